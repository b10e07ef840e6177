import { z } from 'zod';
import { Corrections } from '@elastic-folio/core';
import { Finding, NotTaken } from '@elastic-folio/core/check';
import { Analysis } from '@elastic-folio/core/language';
import { LedgerCounts } from '@elastic-folio/core/ledger';

/** What `inspect --json` prints. */
export const InspectResult = z.object({
  title: z.string(),
  pages: z.number().int(),
  words: z.number().int(),
  stories: z.number().int(),
  items: z.number().int(),
  paragraphStyles: z.array(z.object({ id: z.string(), name: z.string(), element: z.string(), places: z.number().int() })),
  fonts: z.array(
    z.object({
      family: z.string(),
      weight: z.number(),
      style: z.string(),
      mayEmbed: z.boolean(),
      from: z.enum(['document', 'library', 'shipped']),
    }),
  ),
  findings: z.array(Finding),
  notTaken: z.array(NotTaken),
});
export type InspectResult = z.infer<typeof InspectResult>;

/** What `convert --json` prints. `ms` is wall time; `peakMemory` the most bytes the process held while this output was made. */
export const ConvertResult = z.object({
  outputs: z.array(
    z.object({
      id: z.string(),
      files: z.array(z.object({ path: z.string(), mediaType: z.string(), bytes: z.number() })),
      ms: z.number(),
      peakMemory: z.number(),
      ledger: LedgerCounts,
      valid: z.boolean(),
    }),
  ),
});
export type ConvertResult = z.infer<typeof ConvertResult>;

/** What `corrections --json` prints; `taken`: how many of them are in the package that was written. */
export const CorrectionsResult = Corrections.extend({ taken: z.number().int() });
export type CorrectionsResult = z.infer<typeof CorrectionsResult>;

/** What `segments --json` prints: the files of each document, what stays here and why, and what there is to translate, in all and by bands. */
export const SegmentsResult = z.object({
  documents: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      files: ConvertResult.shape.outputs.element.shape.files,
      stays: z.array(z.object({ id: z.string(), because: z.string() })),
      analysis: Analysis,
      valid: z.boolean(),
    }),
  ),
  total: Analysis,
});
export type SegmentsResult = z.infer<typeof SegmentsResult>;

/** What `edition --json` prints: the files that were written, and what was found about each segment. */
export const EditionResult = z.object({
  files: z.array(z.string()),
  taken: z.number().int(),
  segments: z.array(
    z.object({
      id: z.string(),
      kind: z.enum(['new', 'changed', 'unchanged', 'empty', 'unknown']),
      pages: z.array(z.number()),
      findings: z.array(z.object({ fault: z.string(), says: z.string() })),
      taken: z.boolean(),
      belongs: z.string().optional(),
    }),
  ),
  passedOver: z.array(z.string()),
});
export type EditionResult = z.infer<typeof EditionResult>;

/** What `samples --json` prints. */
export const SamplesResult = z.object({
  files: z.array(z.object({ path: z.string(), title: z.string(), bytes: z.number(), notHeld: z.array(z.string()) })),
});
export type SamplesResult = z.infer<typeof SamplesResult>;
