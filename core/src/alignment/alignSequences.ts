/** Two sequences whose members are spoken of by their indexes. */
export interface Sequences {
  lengths: readonly [number, number];
  /** What pairing two members is worth; 0 or less: they are never paired. */
  worth(i: number, j: number): number;
  /** Members with equal keys are the same, and worth at least 1 to each other. Without keys, only `worth` speaks. */
  keys?: readonly [readonly string[], readonly string[]];
}

/** A member of each sequence, or one that stands alone. */
export interface Pair {
  expected: number | null;
  observed: number | null;
}

/** Stretches with more possible pairs than this are matched by equal keys alone; by place where there are none. */
const MOST_PAIRS = 90_000;
const MOST_PAIRS_WITHOUT_KEYS = 4_000_000;

/**
 * Pairs of members, as indexes, both rising. Members whose keys are equal and stand once in both hold the rest in place (as in
 * “patience” comparing of texts); between them the pairing that is worth most in all is taken (Needleman and Wunsch, 1970).
 * Time and memory are bounded for stretches of any length.
 */
export function alignSequences(sequences: Sequences): [number, number][] {
  const out: [number, number][] = [];
  const [n, m] = sequences.lengths;
  between(sequences, { a0: 0, a1: n, b0: 0, b1: m }, out);
  return out;
}

/** The same with every member that stands alone, in the order of both sequences. */
export function alignedPairs(sequences: Sequences): Pair[] {
  const [n, m] = sequences.lengths;
  const out: Pair[] = [];
  let [i, j] = [0, 0];
  for (const [x, y] of [...alignSequences(sequences), [n, m] as const]) {
    while (i < x) out.push({ expected: i++, observed: null });
    while (j < y) out.push({ expected: null, observed: j++ });
    if (x < n || y < m) out.push({ expected: i++, observed: j++ });
  }
  return out;
}

/**
 * The worth of a pair whose cost is between 0 (equal) and 1, where leaving a member out costs 0.55: any two members are rather paired
 * than both left out. What costs more than two that are left out is never paired.
 */
export const worthOfCost = (cost: number): number => 1.1 - cost;

/** A likeness as a worth: what is less alike than `least` is not the same member changed. */
export const atLeast = (least: number, likeness: number): number => (likeness >= least ? likeness : 0);

/** A stretch of both sequences, each from its first index to before its last. */
interface Stretch {
  a0: number;
  a1: number;
  b0: number;
  b1: number;
}

function between(sequences: Sequences, stretch: Stretch, out: [number, number][]): void {
  const { keys } = sequences;
  let { a0, a1, b0, b1 } = stretch;
  const ends: [number, number][] = [];
  if (keys) {
    const [a, b] = keys;
    while (a0 < a1 && b0 < b1 && a[a0] === b[b0]) out.push([a0++, b0++]);
    while (a0 < a1 && b0 < b1 && a[a1 - 1] === b[b1 - 1]) ends.push([--a1, --b1]);
  }
  if (a0 < a1 && b0 < b1) {
    const rest: Stretch = { a0, a1, b0, b1 };
    const anchors = keys ? anchorsIn(keys, rest) : [];
    const pairs = (a1 - a0) * (b1 - b0);
    if (anchors.length) {
      let [fromA, fromB] = [a0, b0];
      for (const [i, j] of anchors) {
        between(sequences, { a0: fromA, a1: i, b0: fromB, b1: j }, out);
        out.push([i, j]);
        [fromA, fromB] = [i + 1, j + 1];
      }
      between(sequences, { a0: fromA, a1, b0: fromB, b1 }, out);
    } else if (pairs <= (keys ? MOST_PAIRS : MOST_PAIRS_WITHOUT_KEYS)) worthMost(sequences, rest, out);
    else if (keys) equalInOrder(keys, rest, out);
    else for (let at = 0; a0 + at < a1 && b0 + at < b1; at++) out.push([a0 + at, b0 + at]);
  }
  out.push(...ends.reverse());
}

/** Members that stand once in both stretches and are the same, as the longest row that rises in both. */
function anchorsIn([a, b]: NonNullable<Sequences['keys']>, { a0, a1, b0, b1 }: Stretch): [number, number][] {
  const once = (list: readonly string[], from: number, to: number): Map<string, number> => {
    const seen = new Map<string, number>();
    for (let i = from; i < to; i++) seen.set(list[i]!, seen.has(list[i]!) ? -1 : i);
    return seen;
  };
  const inB = once(b, b0, b1);
  const pairs: [number, number][] = [];
  for (const [key, i] of once(a, a0, a1)) {
    const j = inB.get(key) ?? -1;
    if (i >= 0 && j >= 0) pairs.push([i, j]);
  }
  pairs.sort(([x], [y]) => x - y);
  return longestRising(pairs);
}

/** The longest subsequence of pairs whose second numbers rise, by patience sorting. */
function longestRising(pairs: readonly [number, number][]): [number, number][] {
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
  for (let n = piles[piles.length - 1] ?? -1; n >= 0; n = below[n]!) row.push(pairs[n]!);
  return row.reverse();
}

function worthMost({ worth, keys }: Sequences, { a0, a1, b0, b1 }: Stretch, out: [number, number][]): void {
  const [n, m] = [a1 - a0, b1 - b0];
  const best = new Float64Array((n + 1) * (m + 1));
  const score = new Float64Array(n * m);
  const at = (i: number, j: number): number => i * (m + 1) + j;
  for (let i = n - 1; i >= 0; i--)
    for (let j = m - 1; j >= 0; j--) {
      const own = Math.max(keys && keys[0][a0 + i] === keys[1][b0 + j] ? 1 : 0, worth(a0 + i, b0 + j));
      score[i * m + j] = own;
      best[at(i, j)] = Math.max(best[at(i + 1, j)]!, best[at(i, j + 1)]!, best[at(i + 1, j + 1)]! + own);
    }
  for (let i = 0, j = 0; i < n && j < m;) {
    const own = score[i * m + j]!;
    if (own > 0 && best[at(i, j)] === best[at(i + 1, j + 1)]! + own) out.push([a0 + i++, b0 + j++]);
    else if (best[at(i, j)] === best[at(i + 1, j)]) i++;
    else j++;
  }
}

/** In stretches too large for more: every member with the next that is the same. */
function equalInOrder([a, b]: NonNullable<Sequences['keys']>, { a0, a1, b0, b1 }: Stretch, out: [number, number][]): void {
  const places = new Map<string, number[]>();
  for (let j = b1 - 1; j >= b0; j--) {
    const list = places.get(b[j]!);
    if (list) list.push(j);
    else places.set(b[j]!, [j]);
  }
  let next = b0;
  for (let i = a0; i < a1; i++) {
    const list = places.get(a[i]!) ?? [];
    while (list.length && list[list.length - 1]! < next) list.pop();
    const j = list.pop();
    if (j === undefined) continue;
    out.push([i, j]);
    next = j + 1;
  }
}
