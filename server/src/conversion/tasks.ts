import type { MessagePort } from 'node:worker_threads';
import type { Corrections, Folio, LibraryFont, MediaFile } from '@elastic-folio/core';
import type { FontFacts, PageSketch, readMemory, readTerms } from '@elastic-folio/core/read';
import type { ChoiceOfTexts, Inbound, MemoryUnit } from '@elastic-folio/core/language';
import type { Counted } from '@elastic-folio/core/api';
import type { Newer } from '@elastic-folio/core/newer';
import type { Conversion } from '@elastic-folio/core/write';

type Files = [string, { sha256: string; bytes: number }][];
/** A document with all that it is set with. */
interface Loaded {
  folio: Folio;
  files: Files;
  library: LibraryFont[];
  blobs: string;
}
/** What of a document goes to translators of a language, and what was translated before. */
interface Outgoing extends Loaded {
  chosen: ChoiceOfTexts;
  language: string;
  memory: MemoryUnit[];
}

/** A file by others that is no document, and what it is taken for. */
export type Foreign =
  | { what: 'exchange'; file: string; name: string }
  | { what: 'terms' | 'memory'; file: string; source: string; target: string }
  | { what: 'corrections'; file: string; folio: Folio }
  | { what: 'font'; file: string }
  /** A picture, film, sound or the like, which is stored under the name of its bytes. */
  | { what: 'media'; file: string; name: string; id: string; blobs: string };
/** What reading it gives. */
export interface ForeignRead {
  exchange: Inbound;
  terms: ReturnType<typeof readTerms>;
  memory: ReturnType<typeof readMemory>;
  corrections: Corrections;
  font: FontFacts;
  media: MediaFile;
}

/** What an output is made from. */
interface Asked extends Loaded {
  /** Other documents that it shows. */
  others: (readonly [string, { folio: Folio; files: Files; library?: LibraryFont[] }])[];
  derived: string;
  output: string;
  settings: unknown;
  /** What was translated before between the languages of a file for translators. */
  memory: MemoryUnit[];
}

/** What worker threads do; everything in a task can be sent to a thread. */
export type Task =
  | { kind: 'read'; file: string; name: string; staging: string; derived: string; stop: Int32Array; port: MessagePort }
  | { kind: 'foreign'; asked: Foreign }
  | { kind: 'newer'; was: Folio; here: Folio; there: Folio; pairs: [string, string][]; keep: string[] }
  | ({ kind: 'pictures'; pages: number[] } & Loaded)
  | ({ kind: 'survey' } & Loaded)
  /** `others`: documents that go out with it as one set. */
  | ({ kind: 'count'; others?: Folio[] } & Outgoing)
  | ({ kind: 'letters'; language: string } & Loaded)
  | ({ kind: 'serve'; breaksCodes: boolean } & Outgoing)
  | ({ kind: 'return'; inbound: Inbound; language: string } & Loaded)
  | ({ kind: 'plan' } & Asked)
  | ({ kind: 'convert'; folder: string; player: string; at: string; stop: Int32Array; port: MessagePort } & Asked);

/** Pages by their numbers, each as an SVG. */
export type Pictures = [number, string][];
export type { Newer };
export type { BackHome } from '@elastic-folio/core/api';
/** What there is to translate, and which texts those are. */
export type CountedTexts = Counted & { units: string[] };
export type ReadOutcome = { folio: Folio; files: Files };
/** What setting a whole document tells the shelf: what to look at, and the first spread as an SVG. */
export interface Survey {
  openPoints: string[];
  cover: string | null;
}
type Failure = { code: string; message: string; advice: string };
export type Outcome<T> = { ok: T } | { failure: Failure } | { cancelled: true };
export type Progress = { done: number; total: number };
/** Pages that have been read so far. */
export type ReadProgress = { page: PageSketch; total: number };
export type { Conversion };
