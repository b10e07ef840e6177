import { z } from 'zod';
import { NotTaken } from '../../check/notTaken.ts';

/** What is kept of how a document came in, as `origin/intake.json` of its files: for the report, and for writing back. */
export const IntakeRecord = z.object({
  format: z.string(),
  mediaType: z.string(),
  /** The original among the document's files, byte for byte. */
  source: z.string(),
  /** Our ids → the part of the original and the element in it, by indexes of elements from the root down. */
  elements: z.record(z.string(), z.string()),
  notTaken: z.array(NotTaken),
});
export type IntakeRecord = z.infer<typeof IntakeRecord>;
export const INTAKE_RECORD = 'origin/intake.json';

/** The record among a document's files; null for a document that was made here. */
export async function recordOf(
  files: ReadonlyMap<string, { sha256: string }>,
  blobs: { read(sha256: string): Promise<Uint8Array> },
): Promise<IntakeRecord | null> {
  const file = files.get(INTAKE_RECORD);
  return file ? IntakeRecord.parse(JSON.parse(new TextDecoder().decode(await blobs.read(file.sha256)))) : null;
}
