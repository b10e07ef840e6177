import type { Head } from '../folio/head.ts';
import type { Story } from '../folio/story.ts';
import { resolveParagraph } from '../folio/resolve.ts';
import { listOf } from './blockFacts.ts';

type Format = Head['listStyles'][string]['levels'][number]['format'];

const ROMAN: [number, string][] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

/** A number as it stands before a list item. Letters go on after z with aa, ab …; roman numerals reach 3999. */
export function formatNumber(value: number, format: Format): string {
  if (format === 'decimal' || value < 1) return String(value);
  if (format === 'lowerRoman' || format === 'upperRoman') {
    if (value > 3999) return String(value);
    let [rest, out] = [value, ''];
    for (const [worth, letters] of ROMAN) for (; rest >= worth; rest -= worth) out += letters;
    return format === 'lowerRoman' ? out : out.toUpperCase();
  }
  let out = '';
  for (let n = value; n > 0; n = Math.floor((n - 1) / 26)) out = String.fromCharCode(97 + ((n - 1) % 26)) + out;
  return format === 'lowerAlpha' ? out : out.toUpperCase();
}

/** What stands before a paragraph of a list: `{n}` is its own number, `{1}` … `{9}` those of the levels above. */
export interface ListLabel {
  text: string;
  style: string;
  level: number;
}

/**
 * The labels of a story's paragraphs in text order. A level starts anew after a paragraph of a higher level
 * of the same list; `restart` sets a number by hand. Lists of one style go on through the story.
 */
export function listLabels(
  head: Pick<Head, 'paragraphStyles' | 'listStyles' | 'metadata'>,
  story: Story,
  order: readonly string[],
): Map<string, ListLabel> {
  const labels = new Map<string, ListLabel>();
  if (!Object.keys(head.listStyles).length) return labels;
  const counters = new Map<string, number[]>();
  for (const id of order) {
    const block = story.blocks[id];
    if (block?.kind !== 'paragraph') continue;
    const list = listOf(head, block);
    const style = list && head.listStyles[list.style];
    const level = list && style?.levels[Math.min(list.level, style.levels.length - 1)];
    if (!list || !level) continue;
    const numbers = counters.get(list.style) ?? [];
    counters.set(list.style, numbers);
    numbers[list.level] = list.restart ?? (numbers[list.level] ?? 0) + 1;
    numbers.length = list.level + 1;
    const { character } = resolveParagraph(head, block);
    const text = level.texts[character.language] ?? level.texts[character.language.split('-')[0]!] ?? level.text;
    const number = (at: number): string => formatNumber(numbers[at] ?? 1, style.levels[at]?.format ?? 'decimal');
    labels.set(id, {
      text:
        level.kind === 'bullet' ? text : text.replace(/\{([n1-9])\}/g, (_, n: string) => number(n === 'n' ? list.level : Number(n) - 1)),
      style: list.style,
      level: Math.min(list.level, style.levels.length - 1),
    });
  }
  return labels;
}
