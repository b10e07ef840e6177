import { child, childrenOf, valueOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';

const ROMAN: [number, string][] = [
  [1000, 'M'],
  [900, 'CM'],
  [500, 'D'],
  [400, 'CD'],
  [100, 'C'],
  [90, 'XC'],
  [50, 'L'],
  [40, 'XL'],
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];

function roman(n: number): string {
  let [rest, out] = [n, ''];
  for (const [worth, letters] of ROMAN) for (; rest >= worth; rest -= worth) out += letters;
  return out;
}

/** Letters of the format go on after z with aa, bb … (ISO/IEC 29500-1, 17.18.59, lowerLetter). */
const letter = (n: number): string => String.fromCharCode(97 + ((n - 1) % 26)).repeat(Math.floor((n - 1) / 26) + 1);

function formatted(n: number, format: string): string {
  if (format === 'lowerLetter') return letter(n);
  if (format === 'upperLetter') return letter(n).toUpperCase();
  if (format === 'lowerRoman') return roman(n).toLowerCase();
  return format === 'upperRoman' ? roman(n) : String(n);
}

interface Level {
  format: string;
  text: string;
  start: number;
}

/** Numbers and bullets before paragraphs, counted as programs count them (ISO/IEC 29500-1, 17.9). */
export class WordLabels {
  private readonly lists = new Map<string, { abstract: string; levels: Level[]; starts: Map<number, number> }>();
  private readonly counts = new Map<string, number[]>();
  private readonly begun = new Set<string>();

  constructor(numbering: Node | undefined) {
    const abstracts = new Map(
      childrenOf(numbering, 'w:abstractNum').map((a) => [
        a.attributes['w:abstractNumId']!,
        childrenOf(a, 'w:lvl').map((l): Level => ({
          format: valueOf(l, 'w:numFmt') ?? 'decimal',
          text: valueOf(l, 'w:lvlText') ?? '',
          start: Number(valueOf(l, 'w:start') ?? 0),
        })),
      ]),
    );
    for (const num of childrenOf(numbering, 'w:num')) {
      const abstract = valueOf(num, 'w:abstractNumId') ?? '';
      const starts = new Map(
        childrenOf(num, 'w:lvlOverride').flatMap((o): [number, number][] => {
          const start = child(o, 'w:startOverride')?.attributes['w:val'];
          return start === undefined ? [] : [[Number(o.attributes['w:ilvl']), Number(start)]];
        }),
      );
      this.lists.set(num.attributes['w:numId']!, { abstract, levels: abstracts.get(abstract) ?? [], starts });
    }
  }

  /** The label of the next paragraph of a list; paragraphs must come in their order. */
  next(numId: string, level: number): string | undefined {
    const list = this.lists.get(numId);
    const at = list?.levels[level];
    if (!list || !at) return undefined;
    const counts = this.counts.get(list.abstract) ?? [];
    this.counts.set(list.abstract, counts);
    // Where a number of its own begins, its counting begins anew.
    if (!this.begun.has(numId)) {
      this.begun.add(numId);
      for (const [l, start] of list.starts) counts[l] = start - 1;
    }
    counts[level] = (counts[level] ?? at.start - 1) + 1;
    counts.length = level + 1;
    if (at.format === 'bullet') return at.text;
    return at.text.replace(/%([1-9])/g, (_, n: string) =>
      formatted(counts[Number(n) - 1] ?? list.levels[Number(n) - 1]?.start ?? 1, list.levels[Number(n) - 1]?.format ?? 'decimal'),
    );
  }
}
