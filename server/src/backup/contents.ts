import { z } from 'zod';

/** The head of a backup: what it is, and what a whole one holds. */
export const BackupHead = z.object({
  format: z.literal('elastic-folio-backup'),
  version: z.literal(1),
  at: z.string(),
  /** The migrations of the database it was taken from. */
  migrations: z.array(z.string()),
  /** Rows of each table. */
  tables: z.record(z.string(), z.number().int().min(0)),
  /** Pictures, media and fonts; each is called by its hash. */
  blobs: z.number().int().min(0),
  /** The SHA-256 of every other file, by its path. */
  sums: z.record(z.string(), z.string()),
});
export type BackupHead = z.infer<typeof BackupHead>;

export const HEAD_FILE = 'backup.json';
export const tableFile = (table: string): string => `tables/${table}.jsonl`;
export const blobFile = (sha256: string): string => `blobs/${sha256}`;
export const PUBLISHED = 'published/';
