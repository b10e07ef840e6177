import { z } from 'zod';

const Count = z.object({ same: z.number(), changed: z.number(), added: z.number(), removed: z.number() });

/** A page or an item that is only in one of the two versions. */
export const Unmatched = z.object({
  id: z.string(),
  kind: z.enum(['page', 'item']),
  /** The item's kind; pages have none. */
  of: z.string().optional(),
  page: z.number().int(),
  says: z.string(),
  /** What the designer decided about it, in words; only on the older side. */
  decided: z.array(z.string()),
});
export type Unmatched = z.infer<typeof Unmatched>;

/** Something that was changed here and in the newer file. */
export const Clashing = z.object({
  id: z.string(),
  what: z.enum(['text', 'altText', 'title']),
  page: z.number().int().optional(),
  here: z.string(),
  there: z.string(),
  /** Whether what was written here stays. */
  kept: z.boolean(),
});
export type Clashing = z.infer<typeof Clashing>;

/** What a newer version of a document's source brings, and what could not be matched. */
export const NewerReport = z.object({
  pages: Count,
  items: Count,
  paragraphs: Count,
  clashes: z.array(Clashing),
  older: z.array(Unmatched),
  newer: z.array(Unmatched),
});
export type NewerReport = z.infer<typeof NewerReport>;
