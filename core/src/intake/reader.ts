import type { Folio } from '../folio/folio.ts';
import type { LibraryFont } from '../folio/libraryFont.ts';
import type { BlobStore, DerivedStore, PicturePort } from '../ports/ports.ts';
import type { PageSketch } from './pageSketch.ts';
import type { ArchiveLimits } from '../packages/limits.ts';

/** A Folio and the files that belong to it, by their path in a package. */
export interface LoadedFolio {
  folio: Folio;
  files: Map<string, { sha256: string; bytes: number }>;
  /** Fonts of the user's own that it is set with; they do not belong to it. */
  library?: LibraryFont[];
  /** Other documents whose web editions it shows, by what they call themselves; those that are at hand. */
  others?: Map<string, LoadedFolio>;
}

export interface ReadJob {
  /** The file as it lies on disk. */
  file: string;
  /** What the file was called by whoever brought it in. */
  name?: string;
  blobs: BlobStore;
  pictures: PicturePort;
  /** Where it is kept which pictures can be decoded, for the outputs that ask next. */
  derived?: DerivedStore;
  limits: ArchiveLimits;
  progress?: (done: number, total: number, what: string) => void;
  /** Is told of each page as soon as it has been read. */
  pageRead?: (page: PageSketch, total: number) => void;
  signal?: AbortSignal;
}

/** One input format: a folder beside this file and a line in `index.ts`. */
export interface Reader {
  id: string;
  label: string;
  extensions: string[];
  read(job: ReadJob): Promise<LoadedFolio>;
}
