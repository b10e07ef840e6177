/** Dice's coefficient (1945) of two texts: the share of runs of letters that they have in common, from 0 to 1. */
function dice(x: Runs, y: Runs): number {
  let common = 0;
  for (const [run, n] of x.counts) common += Math.min(n, y.counts.get(run) ?? 0);
  return (2 * common) / (x.total + y.total);
}

interface Runs {
  counts: ReadonlyMap<string, number>;
  total: number;
}

/** Texts beyond this many letters are told apart by their beginnings. */
const LOOKED_AT = 4000;
const MOST_KNOWN = 20_000;

/** Counts the runs of `length` letters in a text; each text is counted once. */
function runsOf(length: number): (text: string) => Runs {
  const known = new Map<string, Runs>();
  return (text) => {
    const before = known.get(text);
    if (before) return before;
    const counts = new Map<string, number>();
    const last = Math.min(text.length, LOOKED_AT) - length;
    for (let i = 0; i <= last; i++) {
      const run = text.slice(i, i + length);
      counts.set(run, (counts.get(run) ?? 0) + 1);
    }
    const runs = { counts, total: Math.max(0, last + 1) };
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(text, runs);
    return runs;
  };
}

const threes = runsOf(3);
const pairs = runsOf(2);

/** How alike two texts are, from 0 to 1, whatever their spaces and capitals: by the runs of three letters that they share. */
export function textLikeness(a: string, b: string): number {
  if (a === b) return 1;
  const [x, y] = [a, b].map((text) => threes(` ${text.slice(0, LOOKED_AT).toLowerCase().replace(/\s+/g, ' ').trim()} `)) as [Runs, Runs];
  return x.total && y.total ? dice(x, y) : 0;
}

/** How unlike two texts are, from 0 (equal) to 1, to the letter: by the pairs of letters that they share. */
export function unlikeness(a: string, b: string): number {
  if (a === b) return 0;
  if (a.length < 2 || b.length < 2) return 1;
  return Math.max(0.02, 1 - dice(pairs(a), pairs(b)));
}

/** The share of things that two sets have in common (Jaccard's index); null where neither has any. */
export function shared(a: ReadonlySet<string>, b: ReadonlySet<string>): number | null {
  if (!a.size && !b.size) return null;
  let both = 0;
  for (const x of a) if (b.has(x)) both++;
  return both / (a.size + b.size - both);
}
