import { formatNumber } from '../../compose/listLabels.ts';
import type { OdfStyles } from './odfStyles.ts';

const FORMATS: Record<string, Parameters<typeof formatNumber>[1]> = {
  '1': 'decimal',
  a: 'lowerAlpha',
  A: 'upperAlpha',
  i: 'lowerRoman',
  I: 'upperRoman',
};

/** Counts the entries of lists, and says what stands before each (part 3, 16.31 and 16.33). */
export class OdfLabels {
  private readonly counters = new Map<string, number[]>();

  constructor(private readonly styles: OdfStyles) {}

  /** A list begins: unless it goes on, it counts from its first number. */
  begin(style: string, goesOn: boolean): void {
    if (!goesOn) this.counters.delete(style);
  }

  next(style: string, level: number, start: string | undefined): string {
    const numbers = this.counters.get(style) ?? [];
    this.counters.set(style, numbers);
    numbers[level] = start === undefined ? (numbers[level] ?? 0) + 1 : Number(start);
    numbers.length = level + 1;
    const levels = this.styles.list(style)?.children ?? [];
    const own = levels.find((l) => l.attributes['text:level'] === String(level + 1));
    if (own?.name === 'text:list-level-style-bullet') return (own.attributes['text:bullet-char'] ?? '').replace('\u200b', '');
    const a = own?.attributes ?? {};
    const shown = Number(a['text:display-levels'] ?? 1);
    const formatOf = (at: number): string =>
      levels.find((l) => l.attributes['text:level'] === String(at + 1))?.attributes['style:num-format'] ?? '1';
    const parts = Array.from({ length: shown }, (_, i) => level - shown + 1 + i).filter((at) => at >= 0);
    const text = parts.map((at) => formatNumber(numbers[at] ?? 1, FORMATS[formatOf(at)] ?? 'decimal')).join('.');
    return `${a['style:num-prefix'] ?? ''}${text}${a['style:num-suffix'] ?? ''}`;
  }
}
