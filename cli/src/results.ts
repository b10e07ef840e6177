import { z } from 'zod';
import { Corrections } from '@elastic-folio/core';
import { Finding, NotTaken } from '@elastic-folio/core/check';
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

/** What `samples --json` prints. */
export const SamplesResult = z.object({
  files: z.array(z.object({ path: z.string(), title: z.string(), bytes: z.number(), notHeld: z.array(z.string()) })),
});
export type SamplesResult = z.infer<typeof SamplesResult>;
