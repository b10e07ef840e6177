/**
 * The total-fit algorithm: breaks a paragraph so that the sum of its lines' demerits is least.
 * D. E. Knuth and M. F. Plass, "Breaking paragraphs into lines", Software: Practice and Experience
 * 11 (1981), 1119–1184; figures as in Plain TeX (The TeXbook, appendix B).
 */

/** Places where a line may end, as arrays by index: sums of width, stretch and shrink up to each. */
export interface Breakpoints {
  count: number;
  /** Sums up to where a line that ends here stops showing. */
  width: Float64Array;
  stretch: Float64Array;
  shrink: Float64Array;
  /** Sums up to where the next line begins: after spaces that vanish at the break. */
  nextWidth: Float64Array;
  nextStretch: Float64Array;
  nextShrink: Float64Array;
  /** Width added where a line ends here: a hyphen. */
  extra: Float64Array;
  /** Undesirability of ending here; FORCED must, NEVER must not. */
  cost: Float64Array;
  /** 1 where a word is divided. */
  flagged: Uint8Array;
}

export const FORCED = -1000;
export const NEVER = 1000;

export interface TotalFitOptions {
  /** Greatest stretch ratio of a line; a paragraph that cannot keep it has no solution. */
  mostRatio: number;
  /** Added where two lines in a row end with a hyphen. */
  doubleHyphen: number;
  /** Added where a tight line stands beside a loose one. */
  unevenNeighbours: number;
  /** Most lines in a row that end with a hyphen; 0 is no limit. */
  hyphensInARow: number;
  /** Lines more (or fewer) than the optimum, where the paragraph allows it. */
  looseness: number;
}

export function emptyBreakpoints(count: number): Breakpoints {
  const room = new Float64Array(8 * count);
  const part = (i: number): Float64Array => room.subarray(i * count, (i + 1) * count);
  return {
    count,
    width: part(0),
    stretch: part(1),
    shrink: part(2),
    nextWidth: part(3),
    nextStretch: part(4),
    nextShrink: part(5),
    extra: part(6),
    cost: part(7),
    flagged: new Uint8Array(count),
  };
}

interface Node {
  /** Index of the breakpoint, −1 at the paragraph's beginning. */
  at: number;
  line: number;
  fitness: number;
  /** Lines in a row, up to here, that end with a hyphen. */
  hyphens: number;
  demerits: number;
  /** Sums up to where the line after it begins. */
  width: number;
  stretch: number;
  shrink: number;
  previous: Node | null;
}

const fitnessOf = (ratio: number): number => (ratio < -0.5 ? 0 : ratio < 0.5 ? 1 : ratio < 1 ? 2 : 3);

/** Demerits of one line (The TeXbook, chapter 14), by its ratio of stretch or shrink. */
function demeritsOf(ratio: number, cost: number): number {
  const badness = 1 + 100 * Math.abs(ratio) ** 3;
  if (cost >= 0) return (badness + cost) ** 2;
  return cost > FORCED ? badness ** 2 - cost ** 2 : badness ** 2;
}

/**
 * The breakpoints to end lines at, first to last, or null where some line would be stretched beyond
 * `mostRatio` or shrunk beyond its limit. `measureOf(line)` is the room of each line, from 0.
 */
export function totalFit(points: Breakpoints, measureOf: (line: number) => number, options: TotalFitOptions): number[] | null {
  const leastLater = leastLengths(points);
  const beginning = { at: -1, line: 0, fitness: 1, hyphens: 0, demerits: 0, width: 0, stretch: 0, shrink: 0, previous: null };
  const active: Node[] = [beginning];
  const fresh: Node[] = [];
  for (let b = 0; b < points.count; b++) {
    const cost = points.cost[b]!;
    if (cost >= NEVER) continue;
    const forced = cost <= FORCED;
    const flagged = points.flagged[b] === 1;
    const [length, stretch, shrink, later] = [points.width[b]! + points.extra[b]!, points.stretch[b]!, points.shrink[b]!, leastLater[b]!];
    let kept = 0;
    fresh.length = 0;
    for (const node of active) {
      const measure = measureOf(node.line);
      const own = length - node.width;
      const give = own < measure ? stretch - node.stretch : shrink - node.shrink;
      const ratio = own === measure ? 0 : give > 0 ? (measure - own) / give : own < measure ? Infinity : -Infinity;
      // A line too long even when shrunk only grows longer: this beginning is done with.
      if (!forced && (ratio >= -1 || later - node.width + node.shrink <= measure)) active[kept++] = node;
      if (ratio < -1 || ratio > options.mostRatio) continue;
      const hyphens = flagged ? node.hyphens + 1 : 0;
      if (options.hyphensInARow > 0 && hyphens > options.hyphensInARow) continue;
      const fitness = fitnessOf(ratio);
      let demerits = node.demerits + demeritsOf(ratio, cost);
      if (flagged && node.hyphens > 0) demerits += options.doubleHyphen;
      if (node.at >= 0 && Math.abs(fitness - node.fitness) > 1) demerits += options.unevenNeighbours;
      const line = node.line + 1;
      const rival = fresh.findIndex((n) => n.line === line && n.fitness === fitness);
      if (rival >= 0 && fresh[rival]!.demerits <= demerits) continue;
      const next = {
        at: b,
        line,
        fitness,
        hyphens,
        demerits,
        width: points.nextWidth[b]!,
        stretch: points.nextStretch[b]!,
        shrink: points.nextShrink[b]!,
        previous: node,
      };
      if (rival >= 0) fresh[rival] = next;
      else fresh.push(next);
    }
    active.length = kept;
    for (const node of fresh) active.push(node);
    if (!active.length) return null;
  }
  const ends = active.filter((n) => n.at === points.count - 1);
  return ends.length ? chainOf(choose(ends, options.looseness)) : null;
}

/** For each breakpoint, the least shrunk length up to any later one. */
function leastLengths(points: Breakpoints): Float64Array {
  const out = new Float64Array(points.count);
  let least = Infinity;
  for (let b = points.count - 1; b >= 0; b--) {
    out[b] = least;
    if (points.cost[b]! < NEVER) least = Math.min(least, points.width[b]! + points.extra[b]! - points.shrink[b]!);
  }
  return out;
}

function choose(ends: Node[], looseness: number): Node {
  const best = ends.reduce((a, b) => (b.demerits < a.demerits ? b : a));
  if (!looseness) return best;
  const wanted = best.line + looseness;
  return ends.reduce((a, b) => {
    const [da, db] = [Math.abs(a.line - wanted), Math.abs(b.line - wanted)];
    return db < da || (db === da && b.demerits < a.demerits) ? b : a;
  });
}

function chainOf(node: Node): number[] {
  const out: number[] = [];
  for (let n: Node | null = node; n && n.at >= 0; n = n.previous) out.push(n.at);
  return out.reverse();
}
