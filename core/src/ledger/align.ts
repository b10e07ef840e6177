/** A pairing of two lists in order: what stands alone on either side has null opposite it. */
export interface Pair {
  expected: number | null;
  observed: number | null;
}

/**
 * The cheapest way to read one list as the other (Needleman–Wunsch): pairing costs what `cost` says,
 * from 0 (equal) to 1; leaving one out costs `gap`. Cuts equal beginnings and ends first.
 */
export function align(n: number, m: number, cost: (i: number, j: number) => number, gap = 0.55): Pair[] {
  let head = 0;
  while (head < n && head < m && cost(head, head) === 0) head++;
  let tail = 0;
  while (tail < n - head && tail < m - head && cost(n - 1 - tail, m - 1 - tail) === 0) tail++;
  const [rows, cols] = [n - head - tail, m - head - tail];
  const table = Array.from({ length: rows + 1 }, () => new Float64Array(cols + 1));
  for (let i = 1; i <= rows; i++) table[i]![0] = i * gap;
  for (let j = 1; j <= cols; j++) table[0]![j] = j * gap;
  for (let i = 1; i <= rows; i++)
    for (let j = 1; j <= cols; j++)
      table[i]![j] = Math.min(table[i - 1]![j - 1]! + cost(head + i - 1, head + j - 1), table[i - 1]![j]! + gap, table[i]![j - 1]! + gap);
  const middle: Pair[] = [];
  for (let [i, j] = [rows, cols]; i > 0 || j > 0;) {
    const here = table[i]![j]!;
    if (i > 0 && j > 0 && Math.abs(here - table[i - 1]![j - 1]! - cost(head + i - 1, head + j - 1)) < 1e-9)
      middle.unshift({ expected: head + --i, observed: head + --j });
    else if (i > 0 && Math.abs(here - table[i - 1]![j]! - gap) < 1e-9) middle.unshift({ expected: head + --i, observed: null });
    else middle.unshift({ expected: null, observed: head + --j });
  }
  const start = Array.from({ length: head }, (_, i) => ({ expected: i, observed: i }));
  const end = Array.from({ length: tail }, (_, i) => ({ expected: n - tail + i, observed: m - tail + i }));
  return [...start, ...middle, ...end];
}

/** How unlike two texts are, from 0 to 1, by the pairs of letters they share (Dice). */
export function unlikeness(a: string, b: string): number {
  if (a === b) return 0;
  if (a.length < 2 || b.length < 2) return 1;
  const pairs = new Map<string, number>();
  for (let i = 0; i < a.length - 1; i++) pairs.set(a.slice(i, i + 2), (pairs.get(a.slice(i, i + 2)) ?? 0) + 1);
  let shared = 0;
  for (let i = 0; i < b.length - 1; i++) {
    const left = pairs.get(b.slice(i, i + 2)) ?? 0;
    if (left > 0) {
      shared++;
      pairs.set(b.slice(i, i + 2), left - 1);
    }
  }
  return Math.max(0.02, 1 - (2 * shared) / (a.length + b.length - 2));
}
