import { FolioError } from '../ports/ports.ts';

/** Pages as people write them: `2-5, 8`, counted from 1. Empty means all. */
export const PAGE_RANGE = /^\s*(\d+\s*(-\s*\d+\s*)?(,\s*\d+\s*(-\s*\d+\s*)?)*)?$/;

/** The numbers a range names among `count` pages; a FolioError says what is wrong with it. */
export function pageNumbers(range: string, count: number): Set<number> {
  if (!PAGE_RANGE.test(range)) throw new FolioError('range.form', `"${range}" is no range of pages.`, 'Write it like 2-5, 8.');
  if (!range.trim()) return new Set(Array.from({ length: count }, (_, i) => i + 1));
  const numbers = new Set<number>();
  for (const part of range.split(',')) {
    const [from, to = from] = part.split('-').map((s) => Number.parseInt(s, 10)) as [number, number?];
    if (from < 1 || to < from || to > count)
      throw new FolioError(
        'range.outside',
        `The document has pages 1 to ${count}; "${part.trim()}" is not among them.`,
        `Choose pages between 1 and ${count}.`,
      );
    for (let n = from; n <= to; n++) numbers.add(n);
  }
  return numbers;
}
