import { z } from 'zod';
import { LedgerCounts } from '../ledger/entry.ts';

/** One conversion, as the application shows it. */
export const Run = z.object({
  id: z.string(),
  folio: z.string(),
  recipe: z.string(),
  output: z.string(),
  state: z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']),
  pagesDone: z.number(),
  pagesTotal: z.number(),
  inputHash: z.string(),
  message: z.string().nullable(),
  advice: z.string().nullable(),
  counts: LedgerCounts.nullable(),
  valid: z.boolean().nullable(),
  files: z.array(z.object({ path: z.string(), mediaType: z.string(), bytes: z.number() })).nullable(),
  /** It is published as soon as it is there. */
  publish: z.boolean(),
  createdAt: z.string(),
  finishedAt: z.string().nullable(),
});
export type Run = z.infer<typeof Run>;
