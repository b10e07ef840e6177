import { z } from 'zod';
import type { LoadedFolio } from './reader.ts';
import type { Origin } from '../ports/origin.ts';
import { NotTaken } from './notTaken.ts';

/** What is kept of how a document came in, as `intake.json` beside its source: for the report, and for writing back. */
export const IntakeRecord = z.object({
  format: z.string(),
  mediaType: z.string(),
  /** What the file was called, without its ending: a document without a title is called so. */
  name: z.string().default('document'),
  /** The original among the document's files, byte for byte. */
  source: z.string(),
  /** Our ids → the part of the original and the element in it, by indexes of elements from the root down. */
  elements: z.record(z.string(), z.string()),
  notTaken: z.array(NotTaken),
  /** A sign of each page as it was read, by the id that reading the source gives it. */
  pages: z.record(z.string(), z.string()).optional(),
  /** Our ids by those that reading the source gives, where a newer version of it was taken over an older one. */
  ids: z.record(z.string(), z.string()).optional(),
});
export type IntakeRecord = z.infer<typeof IntakeRecord>;
/** The folder of a document's first source, and where the record of one stands. */
export const FIRST_ORIGIN = 'origin';
export const recordPath = (origin: string): string => `${origin}/intake.json`;

/** The source of a document for outputs that go on from it; null for one that was made here. */
export async function originOf(
  loaded: Pick<LoadedFolio, 'folio' | 'files'>,
  blobs: { read(sha256: string): Promise<Uint8Array> },
): Promise<Origin | null> {
  const record = await recordOf(loaded, blobs);
  const source = record && loaded.files.get(record.source);
  if (!record || !source) return null;
  const ours = record.ids ?? {};
  const raw = new Map(Object.entries(ours).map(([there, here]) => [here, there]));
  return {
    format: record.format,
    ending: /\.[a-z]+$/.exec(record.source)?.[0] ?? '',
    elements: record.elements,
    pages: Object.fromEntries(Object.entries(record.pages ?? {}).map(([id, sign]) => [ours[id] ?? id, sign])),
    called: (id) => raw.get(id) ?? id,
    bytes: () => blobs.read(source.sha256),
  };
}

/** The record among a document's files; null for a document that was made here. */
export async function recordOf(
  { folio, files }: Pick<LoadedFolio, 'folio' | 'files'>,
  blobs: { read(sha256: string): Promise<Uint8Array> },
): Promise<IntakeRecord | null> {
  const file = files.get(recordPath(folio.head.origin ?? FIRST_ORIGIN));
  return file ? IntakeRecord.parse(JSON.parse(new TextDecoder().decode(await blobs.read(file.sha256)))) : null;
}
