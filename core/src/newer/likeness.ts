/** How alike two texts are, from 0 to 1: the share of three-letter runs that they have in common (Dice's coefficient, 1945). */
export function textLikeness(a: string, b: string): number {
  if (a === b) return 1;
  const [x, y] = [runsOf(a), runsOf(b)];
  if (!x.size || !y.size) return 0;
  let shared = 0;
  let total = 0;
  for (const [run, n] of x) {
    shared += Math.min(n, y.get(run) ?? 0);
    total += n;
  }
  for (const n of y.values()) total += n;
  return (2 * shared) / total;
}

/** Texts beyond this are told apart by their beginnings. */
const LOOKED_AT = 4000;
const known = new Map<string, Map<string, number>>();
const MOST_KNOWN = 20_000;

function runsOf(text: string): Map<string, number> {
  let runs = known.get(text);
  if (runs) return runs;
  runs = new Map();
  const plain = ` ${text.slice(0, LOOKED_AT).toLowerCase().replace(/\s+/g, ' ').trim()} `;
  if (plain.length > 2)
    for (let i = 0; i + 3 <= plain.length; i++) {
      const run = plain.slice(i, i + 3);
      runs.set(run, (runs.get(run) ?? 0) + 1);
    }
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(text, runs);
  return runs;
}

/** The share of things that two sets have in common (Jaccard's index); null where neither has any. */
export function shared(a: ReadonlySet<string>, b: ReadonlySet<string>): number | null {
  if (!a.size && !b.size) return null;
  let both = 0;
  for (const x of a) if (b.has(x)) both++;
  return both / (a.size + b.size - both);
}
