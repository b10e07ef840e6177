/** Two lists of things that come in order, and how to tell which are the same. */
export interface Rows<T> {
  a: readonly T[];
  b: readonly T[];
  /** Things with one key are the same. */
  keyOf(thing: T): string;
  /** How alike two things are, from 0 to 1. */
  likeness(x: T, y: T): number;
  /** What is less alike than this is not the same thing changed. */
  least: number;
}

/** Gaps larger than this many pairs are matched by equal things only. */
const MOST_PAIRS = 90_000;

/**
 * Pairs of an older and a newer list, as indexes, both rising. Things that are the same and stand once in both hold the rest
 * in place (as in “patience” comparing of texts); between them the pairing with the most likeness in all is taken
 * (Needleman and Wunsch, 1970).
 */
export function align<T>(rows: Rows<T>): [number, number][] {
  const out: [number, number][] = [];
  between(rows, 0, rows.a.length, 0, rows.b.length, out);
  return out;
}

function between<T>(rows: Rows<T>, a0: number, a1: number, b0: number, b1: number, out: [number, number][]): void {
  const { a, b, keyOf } = rows;
  const ends: [number, number][] = [];
  while (a0 < a1 && b0 < b1 && keyOf(a[a0]!) === keyOf(b[b0]!)) out.push([a0++, b0++]);
  while (a0 < a1 && b0 < b1 && keyOf(a[a1 - 1]!) === keyOf(b[b1 - 1]!)) ends.push([--a1, --b1]);
  if (a0 < a1 && b0 < b1) {
    const anchors = anchorsIn(rows, a0, a1, b0, b1);
    if (anchors.length) {
      let [fromA, fromB] = [a0, b0];
      for (const [i, j] of anchors) {
        between(rows, fromA, i, fromB, j, out);
        out.push([i, j]);
        [fromA, fromB] = [i + 1, j + 1];
      }
      between(rows, fromA, a1, fromB, b1, out);
    } else if ((a1 - a0) * (b1 - b0) <= MOST_PAIRS) mostAlike(rows, a0, a1, b0, b1, out);
    else equalInOrder(rows, a0, a1, b0, b1, out);
  }
  out.push(...ends.reverse());
}

/** Things that stand once in both stretches and are the same, as the longest row that rises in both. */
function anchorsIn<T>({ a, b, keyOf }: Rows<T>, a0: number, a1: number, b0: number, b1: number): [number, number][] {
  const once = (list: readonly T[], from: number, to: number): Map<string, number> => {
    const seen = new Map<string, number>();
    for (let i = from; i < to; i++) {
      const key = keyOf(list[i]!);
      seen.set(key, seen.has(key) ? -1 : i);
    }
    return seen;
  };
  const inB = once(b, b0, b1);
  const pairs: [number, number][] = [];
  for (const [key, i] of once(a, a0, a1)) {
    const j = inB.get(key) ?? -1;
    if (i >= 0 && j >= 0) pairs.push([i, j]);
  }
  pairs.sort(([x], [y]) => x - y);
  // The longest rising row of the second numbers, by piles.
  const piles: number[] = [];
  const below: number[] = [];
  pairs.forEach(([, j], n) => {
    let [low, high] = [0, piles.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (pairs[piles[middle]!]![1] < j) low = middle + 1;
      else high = middle;
    }
    below[n] = low ? piles[low - 1]! : -1;
    piles[low] = n;
  });
  const row: [number, number][] = [];
  for (let n = piles[piles.length - 1] ?? -1; n >= 0; n = below[n]!) row.unshift(pairs[n]!);
  return row;
}

function mostAlike<T>(rows: Rows<T>, a0: number, a1: number, b0: number, b1: number, out: [number, number][]): void {
  const { a, b, keyOf, likeness, least } = rows;
  const [n, m] = [a1 - a0, b1 - b0];
  const worth = new Float64Array((n + 1) * (m + 1));
  const score = new Float64Array(n * m);
  const at = (i: number, j: number): number => i * (m + 1) + j;
  for (let i = n - 1; i >= 0; i--)
    for (let j = m - 1; j >= 0; j--) {
      const [x, y] = [a[a0 + i]!, b[b0 + j]!];
      const alike = keyOf(x) === keyOf(y) ? 1 : likeness(x, y);
      score[i * m + j] = alike >= least ? alike : 0;
      worth[at(i, j)] = Math.max(worth[at(i + 1, j)]!, worth[at(i, j + 1)]!, worth[at(i + 1, j + 1)]! + score[i * m + j]!);
    }
  for (let i = 0, j = 0; i < n && j < m;) {
    const s = score[i * m + j]!;
    if (s > 0 && worth[at(i, j)] === worth[at(i + 1, j + 1)]! + s) out.push([a0 + i++, b0 + j++]);
    else if (worth[at(i, j)] === worth[at(i + 1, j)]) i++;
    else j++;
  }
}

/** In stretches too large for more: every thing with the next that is the same. */
function equalInOrder<T>({ a, b, keyOf }: Rows<T>, a0: number, a1: number, b0: number, b1: number, out: [number, number][]): void {
  const places = new Map<string, number[]>();
  for (let j = b1 - 1; j >= b0; j--) (places.get(keyOf(b[j]!)) ?? places.set(keyOf(b[j]!), []).get(keyOf(b[j]!))!).push(j);
  let next = b0;
  for (let i = a0; i < a1; i++) {
    const list = places.get(keyOf(a[i]!)) ?? [];
    while (list.length && list[list.length - 1]! < next) list.pop();
    const j = list.pop();
    if (j === undefined) continue;
    out.push([i, j]);
    next = j + 1;
  }
}
