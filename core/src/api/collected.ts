import { z } from 'zod';
import { MEASURED } from '../folio/measured.ts';

/** What a web edition sends: some things that happened during one visit, `at` milliseconds after it began. */
export const Collected = z.object({
  id: z.string().max(100),
  /** A number that is drawn anew with every visit and kept nowhere. */
  visit: z.string().regex(/^[0-9a-z]{6,24}$/),
  title: z.string().max(500),
  language: z.string().max(35),
  events: z
    .array(
      z.object({
        kind: z.enum(MEASURED),
        at: z.number().int().min(0).max(86_400_000),
        page: z.number().int().min(1).max(100_000),
        what: z.string().max(300).optional(),
      }),
    )
    .min(1)
    .max(200),
});
export type Collected = z.infer<typeof Collected>;

const count = z.number().int().min(0);

/** What the stand-in collector has been sent under one name, counted. */
export const Measures = z.object({
  id: z.string(),
  visits: count,
  pages: z.array(z.object({ page: z.number(), shown: count, visits: count })),
  days: z.array(z.object({ day: z.string(), visits: count, events: count })),
  kinds: z.array(z.object({ kind: z.enum(MEASURED), count })),
  /** What was followed, played, answered or searched for most. */
  most: z.array(z.object({ kind: z.enum(MEASURED), what: z.string(), count })),
  /** What came last, as it came. */
  latest: z.array(z.object({ at: z.string(), kind: z.enum(MEASURED), page: z.number(), what: z.string().nullable() })),
});
export type Measures = z.infer<typeof Measures>;
