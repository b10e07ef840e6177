import { z } from 'zod';

/** What an entry speaks of. `aspect` names the property: a text's wording, its look, its place … */
export const Subject = z.object({
  kind: z.enum([
    'document',
    'page',
    'layer',
    'item',
    'masterItem',
    'paragraph',
    'table',
    'cell',
    'link',
    'note',
    'field',
    'anchor',
    'ruby',
    'cue',
    'story',
    'font',
    'pin',
    'edition',
  ]),
  id: z.string(),
  aspect: z.string(),
});
export type Subject = z.infer<typeof Subject>;
export const subjectKey = (s: Subject): string => `${s.kind}:${s.id}:${s.aspect}`;

export const Outcome = z.enum(['kept', 'adapted', 'dropped', 'excluded']);
export type Outcome = z.infer<typeof Outcome>;

/** A code of a writer, which has a sentence, and what stands in the sentence’s braces. */
const Reason = z.object({ code: z.string(), values: z.record(z.string(), z.union([z.string(), z.number()])).default({}) });
export type Reason = z.infer<typeof Reason>;

/** One line of a ledger: what an output did with one property of one thing, and whether reading the files back bears it out. */
export const LedgerEntry = z.object({
  subject: Subject,
  pages: z.array(z.string()),
  outcome: Outcome,
  code: z.string(),
  values: z.record(z.string(), z.union([z.string(), z.number()])).default({}),
  /** Further reasons, where there is more than one. */
  also: z.array(Reason).optional(),
  check: z.enum(['planned', 'confirmed', 'contradicted', 'uncheckable']),
  evidence: z.string().optional(),
  repair: z.string().optional(),
});
export type LedgerEntry = z.infer<typeof LedgerEntry>;

/** What a writer does with a subject, and why. */
export interface Treatment<Code extends string = string> {
  outcome: Outcome;
  code: Code;
  values?: Record<string, string | number>;
  /** Further reasons, where there is more than one. */
  also?: readonly { code: Code; values?: Record<string, string | number> }[];
  repair?: string;
}

/** What reading the finished files back found about a subject. */
export interface Evidence {
  subject: Subject;
  agrees: boolean;
  says: string;
}

export const LedgerCounts = z.object({
  kept: z.number(),
  adapted: z.number(),
  dropped: z.number(),
  excluded: z.number(),
  contradicted: z.number(),
  uncheckable: z.number(),
});
export type LedgerCounts = z.infer<typeof LedgerCounts>;

export function countLedger(entries: readonly LedgerEntry[]): LedgerCounts {
  const counts: LedgerCounts = { kept: 0, adapted: 0, dropped: 0, excluded: 0, contradicted: 0, uncheckable: 0 };
  for (const e of entries) {
    counts[e.outcome]++;
    if (e.check === 'contradicted') counts.contradicted++;
    if (e.check === 'uncheckable') counts.uncheckable++;
  }
  return counts;
}
