import type { ZodType } from 'zod';
import type { Composition } from '../compose/marks.ts';
import type { FontFace } from '../compose/fontFace.ts';
import type { FontSet } from '../compose/fontSet.ts';
import type { Folio } from '../folio/folio.ts';
import type { Evidence } from '../ledger/entry.ts';
import type { MemoryUnit } from '../language/memory.ts';
import type { OtherFolio } from '../ports/documentFiles.ts';
import type { Origin } from '../ports/origin.ts';
import type { DerivedStore, PicturePort } from '../ports/ports.ts';
import type { Plan } from './treatments.ts';

export interface OutputFile {
  /** Relative path inside the result, with `/`. */
  path: string;
  mediaType: string;
  body: AsyncIterable<Uint8Array>;
}

/** A finished file, read again. */
export interface WrittenFile {
  path: string;
  mediaType: string;
  bytes(): Promise<Uint8Array>;
}

/** What a conversion needs from outside. */
export interface ConversionPorts {
  fonts: FontSet;
  /** Sets the document with these typefaces; where it is not said, it is set anew. */
  compose?: (folio: Folio) => Composition;
  /** Bytes of a media file of the document. */
  media(id: string): Promise<Uint8Array>;
  /** Other documents that this one shows, by what they call themselves; those that are at hand. */
  others?: ReadonlyMap<string, OtherFolio> | undefined;
  /** The source that it came in from. */
  origin?: Origin | null;
  /** What was translated before from one language into another. */
  memory?: (source: string, target: string) => Promise<MemoryUnit[]>;
  pictures: PicturePort;
  derived: DerivedStore;
  /** The runtime that goes into web output. */
  player(): Promise<Uint8Array>;
  clock(): Date;
  signal: AbortSignal;
  progress(done: number, total: number): void;
}

export interface WriteJob<S> extends ConversionPorts {
  folio: Folio;
  composition: Composition;
  settings: S;
}

/** A setting that a purpose asks for, and the reason why. */
export interface StartSetting {
  setting: string;
  value: unknown;
  why: string;
}

/** An answer; where the document's length gives it, for how many pages it is right. */
interface StartAnswer {
  id: string;
  label: string;
  pages?: { least?: number; most?: number };
}

/** Questions in the designer's words about what an output is for; the answers make a recipe. */
export interface Start {
  questions: { id: string; ask: string; answers: StartAnswer[] }[];
  settle(answers: Record<string, string>): StartSetting[];
}

/** One output format: a folder beside this file and a line in `index.ts`. */
export interface Writer<S = unknown, Code extends string = string> {
  id: string;
  label: string;
  /** One line that says what the result is good for. */
  about: string;
  version: number;
  /**
   * How it can be looked at: pages line by line as designed, pages of boxes whose lines end where others decide, running text, or texts
   * for translators with a report.
   */
  view: 'pages' | 'boxes' | 'flow' | 'texts';
  /** The file that opens the result. */
  entry: string;
  settings: ZodType<S>;
  /** Where there is more than one good recipe: what it is for. */
  start?: Start;
  /** What of a recipe browsers do over a secure connection only, in plain words. */
  secure?(settings: S): string[];
  migrate(old: unknown, from: number): S;
  write(job: WriteJob<S>): AsyncIterable<OutputFile>;
  /** What becomes of every subject of the document, known before anything is written; pure. */
  plan(job: WriteJob<S>): Plan<Code> | Promise<Plan<Code>>;
  readBack(files: WrittenFile[], job: WriteJob<S>): AsyncIterable<Evidence>;
  /** Whether what others change in its words can be brought back. */
  comesBack?: true;
  /**
   * The result drawn as a page of HTML from its files alone, where browsers cannot show it themselves; the page asked for, where it has
   * such. `faces`: those that are installed where it is looked at, for files that only name theirs.
   */
  redraw?(files: WrittenFile[], page: number, faces: readonly FontFace[], pictures: Pick<PicturePort, 'info'>): Promise<string>;
  /** A plain sentence for each code of its plan. */
  sentences: Record<Code, string>;
}
