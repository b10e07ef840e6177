import { z } from 'zod';

/** Something of the original that the document does not hold, or holds in another way. */
export const NotTaken = z.object({
  /** What it is, in words: “Hatched fill”. */
  what: z.string(),
  /** What became of it. */
  outcome: z.enum(['leftOut', 'changed']),
  reason: z.string(),
  page: z.number().int().optional(),
  item: z.string().optional(),
  /** How often the same was met on the page. */
  times: z.number().int(),
});
export type NotTaken = z.infer<typeof NotTaken>;
