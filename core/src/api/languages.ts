import { z } from 'zod';
import { SegmentState, TextPart, TranslatedUnit } from '../folio/edition.ts';
import { Analysis } from '../language/analyse.ts';
import { Term } from '../language/terms.ts';
import { FAULTS } from '../language/checks.ts';
import type { Fault } from '../language/checks.ts';

/** What there is to translate, and how many texts stay here, by reason. */
export const Counted = z.object({
  analysis: Analysis,
  stays: z.record(z.string(), z.number()),
  /** Other documents that go out with it, counted as one set: what stood in one before is repeated in the next. */
  others: z.array(z.object({ title: z.string(), analysis: Analysis })).default([]),
});
export type Counted = z.infer<typeof Counted>;

/** What a translator sent back, held against the document; `units` by their names, for taking them. */
export const BackHome = z.object({
  segments: z.array(
    z.object({
      id: z.string(),
      unit: z.string(),
      kind: z.enum(['new', 'changed', 'unchanged', 'empty', 'unknown']),
      source: z.array(TextPart),
      before: z.array(TextPart).nullable(),
      after: z.array(TextPart).nullable(),
      state: SegmentState,
      findings: z.array(z.object({ fault: z.enum(Object.keys(FAULTS) as [Fault, ...Fault[]]), says: z.string() })),
      belongs: z.string().optional(),
      pages: z.array(z.number()).readonly(),
      comments: z.array(z.string()),
      locked: z.boolean(),
    }),
  ),
  units: z.record(z.string(), TranslatedUnit),
  passedOver: z.array(z.string()),
});
export type BackHome = z.infer<typeof BackHome>;

/** A text whose matches are asked for: the name of its unit, and which of its segments. */
export const MatchesAsked = z.object({ unit: z.string().max(300), segment: z.number().int().min(0).default(0) });
export type MatchesAsked = z.infer<typeof MatchesAsked>;

/** Something that was translated before and is like a text: its target has the codes of that text. */
export const FoundMatch = z.object({
  source: z.array(TextPart),
  target: z.array(TextPart),
  kind: z.enum(['inContext', 'exact', 'fuzzy']),
  percent: z.number(),
  from: z.string().optional(),
  by: z.string().optional(),
});
export type FoundMatch = z.infer<typeof FoundMatch>;

/** A pair of texts in the memory, by a name of its own. */
export const MemoryEntry = z.object({
  entry: z.string(),
  source: z.array(TextPart),
  target: z.array(TextPart),
  from: z.string().optional(),
  by: z.string().optional(),
  at: z.string().optional(),
});
export type MemoryEntry = z.infer<typeof MemoryEntry>;

/** A term that is kept between two languages. */
export const KeptTerm = Term.extend({ id: z.string() });
export type KeptTerm = z.infer<typeof KeptTerm>;
