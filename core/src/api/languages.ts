import { z } from 'zod';
import { SegmentState, TextPart, TranslatedUnit } from '../folio/edition.ts';
import { Analysis } from '../language/analyse.ts';
import { FAULTS } from '../language/checks.ts';
import type { Fault } from '../language/checks.ts';

/** What there is to translate, and how many texts stay here, by reason. */
export const Counted = z.object({ analysis: Analysis, stays: z.record(z.string(), z.number()) });
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
