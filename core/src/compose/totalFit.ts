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
  /** Added where the line before the last ends with a hyphen, so that the last is the end of a word. */
  finalHyphen: number;
  /** Added where a tight line stands beside a loose one. */
  unevenNeighbours: number;
  /** Most lines in a row that end with a hyphen; 0 is no limit. */
  hyphensInARow: number;
  /** Lines more (or fewer) than the optimum, where the paragraph allows it. */
  looseness: number;
}

/** Zeroed breakpoints. Those made before are let go with it: a paragraph is broken before the next is begun. */
export function emptyBreakpoints(count: number): Breakpoints {
  if (count > room.width.length) room = roomFor(2 * count);
  for (const part of [room.width, room.stretch, room.shrink, room.nextWidth, room.nextStretch, room.nextShrink, room.extra, room.cost])
    part.fill(0, 0, count);
  room.flagged.fill(0, 0, count);
  room.count = count;
  return room;
}

const roomFor = (count: number): Breakpoints => ({
  count,
  width: new Float64Array(count),
  stretch: new Float64Array(count),
  shrink: new Float64Array(count),
  nextWidth: new Float64Array(count),
  nextStretch: new Float64Array(count),
  nextShrink: new Float64Array(count),
  extra: new Float64Array(count),
  cost: new Float64Array(count),
  flagged: new Uint8Array(count),
});
let room = roomFor(1024);
let later = new Float64Array(1024);

/**
 * Ways to set the paragraph as far as some breakpoint, as arrays by index; one set of arrays serves every paragraph.
 * The first stands for the paragraph's beginning.
 */
class Ways {
  count = 0;
  /** Index of the breakpoint, −1 at the paragraph's beginning, and the way up to the line before. */
  at = new Int32Array(256);
  previous = new Int32Array(256);
  line = new Int32Array(256);
  fitness = new Int32Array(256);
  /** Lines in a row, up to here, that end with a hyphen. */
  hyphens = new Int32Array(256);
  demerits = new Float64Array(256);

  clear(): void {
    this.count = 0;
    this.add(-1, -1, 0, 1, 0, 0);
  }

  add(at: number, previous: number, line: number, fitness: number, hyphens: number, demerits: number): number {
    if (this.count === this.at.length) this.grow();
    this.set(this.count, at, previous, line, fitness, hyphens, demerits);
    return this.count++;
  }

  set(i: number, at: number, previous: number, line: number, fitness: number, hyphens: number, demerits: number): void {
    this.at[i] = at;
    this.previous[i] = previous;
    this.line[i] = line;
    this.fitness[i] = fitness;
    this.hyphens[i] = hyphens;
    this.demerits[i] = demerits;
  }

  private grow(): void {
    const larger = (old: Int32Array): Int32Array<ArrayBuffer> => {
      const out = new Int32Array(2 * old.length);
      out.set(old);
      return out;
    };
    this.at = larger(this.at);
    this.previous = larger(this.previous);
    this.line = larger(this.line);
    this.fitness = larger(this.fitness);
    this.hyphens = larger(this.hyphens);
    const demerits = new Float64Array(2 * this.demerits.length);
    demerits.set(this.demerits);
    this.demerits = demerits;
  }
}
const ways = new Ways();
let active: number[] = [];

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
  const { mostRatio, hyphensInARow } = options;
  ways.clear();
  active = [0];
  for (let b = 0; b < points.count; b++) {
    const cost = points.cost[b]!;
    if (cost >= NEVER) continue;
    const forced = cost <= FORCED;
    const flagged = points.flagged[b] === 1;
    const length = points.width[b]! + points.extra[b]!;
    const least = leastLater[b]!;
    /** Ways to end a line here are added from this one on. */
    const fresh = ways.count;
    let kept = 0;
    for (let a = 0; a < active.length; a++) {
      const way = active[a]!;
      const from = ways.at[way]!;
      const measure = measureOf(ways.line[way]!);
      const shrunk = from < 0 ? 0 : points.nextShrink[from]!;
      const before = from < 0 ? 0 : points.nextWidth[from]!;
      const own = length - before;
      const give = own < measure ? points.stretch[b]! - (from < 0 ? 0 : points.nextStretch[from]!) : points.shrink[b]! - shrunk;
      const ratio = own === measure ? 0 : give > 0 ? (measure - own) / give : own < measure ? Infinity : -Infinity;
      // A line too long even when shrunk only grows longer: this beginning is done with.
      if (!forced && (ratio >= -1 || least - before + shrunk <= measure)) active[kept++] = way;
      if (ratio < -1 || ratio > mostRatio) continue;
      const hyphens = flagged ? ways.hyphens[way]! + 1 : 0;
      if (hyphensInARow > 0 && hyphens > hyphensInARow) continue;
      const fitness = fitnessOf(ratio);
      let demerits = ways.demerits[way]! + demeritsOf(ratio, cost);
      if (ways.hyphens[way]! > 0) demerits += flagged ? options.doubleHyphen : b === points.count - 1 ? options.finalHyphen : 0;
      if (from >= 0 && Math.abs(fitness - ways.fitness[way]!) > 1) demerits += options.unevenNeighbours;
      keepBest(fresh, b, way, ways.line[way]! + 1, fitness, hyphens, demerits);
    }
    active.length = kept;
    for (let way = fresh; way < ways.count; way++) active.push(way);
    if (!active.length) return null;
  }
  const ends = active.filter((way) => ways.at[way] === points.count - 1);
  return ends.length ? chainOf(choose(ends, options.looseness)) : null;
}

/** Of the ways to end a line at one breakpoint, the best is kept for each number of lines and each fitness. */
function keepBest(fresh: number, at: number, previous: number, line: number, fitness: number, hyphens: number, demerits: number): void {
  for (let way = fresh; way < ways.count; way++)
    if (ways.line[way] === line && ways.fitness[way] === fitness) {
      if (ways.demerits[way]! > demerits) ways.set(way, at, previous, line, fitness, hyphens, demerits);
      return;
    }
  ways.add(at, previous, line, fitness, hyphens, demerits);
}

/** For each breakpoint, the least shrunk length up to any later one. */
function leastLengths(points: Breakpoints): Float64Array {
  if (points.count > later.length) later = new Float64Array(2 * points.count);
  const out = later;
  let least = Infinity;
  for (let b = points.count - 1; b >= 0; b--) {
    out[b] = least;
    if (points.cost[b]! < NEVER) least = Math.min(least, points.width[b]! + points.extra[b]! - points.shrink[b]!);
  }
  return out;
}

function choose(ends: readonly number[], looseness: number): number {
  const { demerits, line } = ways;
  const best = ends.reduce((a, b) => (demerits[b]! < demerits[a]! ? b : a));
  if (!looseness) return best;
  const wanted = line[best]! + looseness;
  return ends.reduce((a, b) => {
    const [da, db] = [Math.abs(line[a]! - wanted), Math.abs(line[b]! - wanted)];
    return db < da || (db === da && demerits[b]! < demerits[a]!) ? b : a;
  });
}

function chainOf(end: number): number[] {
  const out: number[] = [];
  for (let way = end; ways.at[way]! >= 0; way = ways.previous[way]!) out.push(ways.at[way]!);
  return out.reverse();
}
