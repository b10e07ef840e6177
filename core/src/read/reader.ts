import type { Folio } from '../folio/folio.ts';
import type { BlobStore, PicturePort } from '../ports/ports.ts';
import type { ArchiveLimits } from './limits.ts';

/** A Folio and the files that belong to it, by their path in a package. */
export interface LoadedFolio {
  folio: Folio;
  files: Map<string, { sha256: string; bytes: number }>;
}

export interface ReadJob {
  /** The file as it lies on disk. */
  file: string;
  /** What the file was called by whoever brought it in. */
  name?: string;
  blobs: BlobStore;
  pictures: PicturePort;
  limits: ArchiveLimits;
  progress?: (done: number, total: number, what: string) => void;
  signal?: AbortSignal;
}

/** One input format: a folder beside this file and a line in `index.ts`. */
export interface Reader {
  id: string;
  label: string;
  extensions: string[];
  read(job: ReadJob): Promise<LoadedFolio>;
}
