import { z } from 'zod';
import { countWords } from '../folio/text.ts';
import { memoryKey } from './memory.ts';
import type { Memory } from './memory.ts';
import { wordsOf } from './parts.ts';
import type { CutUnit } from './unit.ts';

/** How much of a text is there already, from most to least (bands of common practice). */
export const BANDS = ['inContext', 'repeated', 'exact', '95-99', '85-94', '75-84', '50-74', 'new'] as const;
export type Band = (typeof BANDS)[number];

const Count = z.object({ segments: z.number(), words: z.number(), characters: z.number() });
export type Count = z.infer<typeof Count>;

/** What a text amounts to, in all and by bands. */
export const Analysis = z.object({ total: Count, bands: z.record(z.enum(BANDS), Count) });
export type Analysis = z.infer<typeof Analysis>;

/** What a word costs in each band, and how many of them a translator does in a day. */
export const Rates = z.object({
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'must be three letters, such as EUR')
    .default('EUR'),
  perWord: z.number().min(0).max(1000).default(0.12),
  wordsADay: z.number().int().min(1).max(100_000).default(2000),
  /** Shares of the full rate and of the time (common practice, from memory). */
  shares: z
    .record(z.enum(BANDS), z.number().min(0).max(1))
    .default({ inContext: 0, repeated: 0.1, exact: 0.2, '95-99': 0.3, '85-94': 0.5, '75-84': 0.7, '50-74': 1, new: 1 }),
});
export type Rates = z.infer<typeof Rates>;

const none = (): Count => ({ segments: 0, words: 0, characters: 0 });

function add(to: Count, more: Count): void {
  to.segments += more.segments;
  to.words += more.words;
  to.characters += more.characters;
}

/** What a segment counts as: its words, and its characters without white space. */
export function countOf(text: string, language: string): Count {
  return { segments: 1, words: countWords(text, language), characters: [...text.replace(/\s+/g, '')].length };
}

export const bandOf = (percent: number): Band =>
  percent >= 95 ? '95-99' : percent >= 85 ? '85-94' : percent >= 75 ? '75-84' : percent >= 50 ? '50-74' : 'new';

/**
 * What the texts of one or several documents amount to against a memory. A text that stood before in them is *repeated*: it counts in
 * full the first time only. `documents`: the units of each, counted as one set.
 */
export function analyse(documents: readonly (readonly CutUnit[])[], memory: Memory): Analysis[] {
  const seen = new Set<string>();
  return documents.map((units) => {
    const bands = Object.fromEntries(BANDS.map((b) => [b, none()])) as Record<Band, Count>;
    const total = none();
    for (const { source, language, before, after } of inOrder(units)) {
      const count = countOf(wordsOf(source), language);
      const key = memoryKey(source);
      add(total, count);
      add(bands[bandFor()], count);
      seen.add(key);
      function bandFor(): Band {
        const [same] = memory.same(source, { before, after });
        if (same?.kind === 'inContext') return 'inContext';
        if (seen.has(key)) return 'repeated';
        if (same) return 'exact';
        const [best] = memory.find(source, { before, after }, 1);
        return best ? bandOf(best.percent) : 'new';
      }
    }
    return { total, bands };
  });
}

/** Segments with the sources beside them, by which they are known in their places. */
export function* inOrder(units: readonly CutUnit[]) {
  const all = units.flatMap((unit) => unit.segments.map((segment) => ({ unit, segment, key: memoryKey(segment.source) })));
  for (const [i, { unit, segment }] of all.entries())
    yield { unit, segment, source: segment.source, language: unit.language, before: all[i - 1]?.key ?? '', after: all[i + 1]?.key ?? '' };
}

/** What it costs and how long it takes, in days of work. */
export function costOf({ bands }: Analysis, rates: Rates): { cost: number; days: number } {
  let words = 0;
  for (const band of BANDS) words += (bands[band]?.words ?? 0) * (rates.shares[band] ?? 1);
  return { cost: Math.round(words * rates.perWord * 100) / 100, days: Math.round((words / rates.wordsADay) * 10) / 10 };
}

/** Several counts as one. */
export function sumOf(analyses: readonly Analysis[]): Analysis {
  const bands = Object.fromEntries(BANDS.map((b) => [b, none()])) as Record<Band, Count>;
  const total = none();
  for (const a of analyses) {
    add(total, a.total);
    for (const band of BANDS) add(bands[band], a.bands[band] ?? none());
  }
  return { total, bands };
}
