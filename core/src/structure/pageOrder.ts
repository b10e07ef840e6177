import type { Rect } from '../folio/geometry.ts';
import { overlap } from '../folio/geometry.ts';

/** Something on a page that is read, as far as its place in the order of reading depends on it. */
export interface Placed {
  id: string;
  box: Rect;
  kind: 'text' | 'figure';
  /** What the text is to others: a caption is read with its figure, an aside after what it stands beside. */
  as?: 'caption' | 'aside' | undefined;
  /** What it is the caption of, where a person has said so. */
  captionOf?: string | undefined;
  /** The chain it belongs to, and its place in it. */
  chain?: { story: string; at: number } | undefined;
}

/** Boxes may overlap by so much, in points, and still count as side by side. */
const GIVE = 3;
/** Gaps of nearly the same width are cut at one time: a grid is read row by row. */
const ALIKE = 0.75;
/** More things than this on one page are no layout that is read: they are taken from the top down. */
const MOST_CUT = 3000;
/** A caption stands no further than this from its figure, in points (common practice: a line or two). */
const CAPTION_REACH = 40;

/**
 * The order in which a page is read, worked out from where things stand: the page is cut along its widest gap, across or
 * down, and each part again (recursive X-Y cut: Nagy and Seth, “Hierarchical representation of optically scanned
 * documents”, ICPR 1984). Then what belongs together is brought together: frames of a chain, captions, asides.
 */
export function pageOrder(placed: readonly Placed[]): string[] {
  const cut = placed.length > MOST_CUT ? topDown(placed) : inParts([...placed]);
  return asidesAfterText(captionsAfterFigures(inChainOrder(cut))).map((p) => p.id);
}

const topDown = (placed: readonly Placed[]): Placed[] => [...placed].sort((a, b) => a.box.y - b.box.y || a.box.x - b.box.x);

type Axis = 'x' | 'y';
const from = (p: Placed, axis: Axis): number => p.box[axis] + give(p, axis);
const until = (p: Placed, axis: Axis): number => p.box[axis] + size(p, axis) - give(p, axis);
const size = (p: Placed, axis: Axis): number => (axis === 'x' ? p.box.width : p.box.height);
const give = (p: Placed, axis: Axis): number => Math.min(GIVE, size(p, axis) / 4);

function inParts(placed: Placed[]): Placed[] {
  if (placed.length < 2) return placed;
  const rows = gapsAlong(placed, 'y');
  const columns = gapsAlong(placed, 'x');
  // The wider gap parts more; where both are alike, a page is read across.
  const best = columns.widest > rows.widest ? columns : rows;
  if (best.widest > 0) return best.parts().flatMap(inParts);
  return aroundLargest(placed);
}

/** The gaps that run through everything along an axis, and the parts between those that are nearly the widest. */
function gapsAlong(placed: readonly Placed[], axis: Axis): { widest: number; parts(): Placed[][] } {
  const sorted = [...placed].sort((a, b) => from(a, axis) - from(b, axis));
  let end = -Infinity;
  const gaps = sorted.map((p) => {
    const gap = end === -Infinity ? 0 : from(p, axis) - end;
    end = Math.max(end, until(p, axis));
    return gap;
  });
  const widest = Math.max(0, ...gaps);
  return {
    widest,
    parts() {
      const parts: Placed[][] = [];
      sorted.forEach((p, i) => {
        if (!i || gaps[i]! >= widest * ALIKE) parts.push([]);
        parts[parts.length - 1]!.push(p);
      });
      return parts;
    },
  };
}

/** Things that lie over one another: the largest is what the others lie on, and is met first; a text goes by where it begins. */
function aroundLargest(placed: readonly Placed[]): Placed[] {
  const area = ({ box }: Placed): number => box.width * box.height;
  const figures = placed.filter((p) => p.kind === 'figure');
  const largest = figures.length ? figures.reduce((a, b) => (area(b) > area(a) ? b : a)) : undefined;
  if (!largest || !placed.some((p) => p !== largest && overlap(p.box, largest.box) > 0)) {
    // Texts that lie over one another: the topmost first, and the others without it.
    const [first, ...rest] = topDown(placed);
    return [first!, ...inParts(rest)];
  }
  // A figure that lies on a larger text stands inside it: the text is begun first.
  const under = placed.filter((p) => p.kind === 'text' && area(p) > area(largest) && overlap(p.box, largest.box) > 0);
  const first = under.length ? under.reduce((a, b) => (area(b) > area(a) ? b : a)) : largest;
  return [first, ...inParts(placed.filter((p) => p !== first))];
}

/** Frames of one chain take the places that they have among all, in the order of the chain. */
function inChainOrder(order: readonly Placed[]): Placed[] {
  const out = [...order];
  const chains = new Map<string, number[]>();
  order.forEach((p, i) => p.chain && chains.set(p.chain.story, [...(chains.get(p.chain.story) ?? []), i]));
  for (const places of chains.values()) {
    const frames = places.map((i) => order[i]!).sort((a, b) => a.chain!.at - b.chain!.at);
    places.forEach((place, i) => (out[place] = frames[i]!));
  }
  return out;
}

/** Points between two boxes. */
export function distance(a: Rect, b: Rect): number {
  const dx = Math.max(0, a.x - b.x - b.width, b.x - a.x - a.width);
  const dy = Math.max(0, a.y - b.y - b.height, b.y - a.y - a.height);
  return Math.hypot(dx, dy);
}

function captionsAfterFigures(order: readonly Placed[]): Placed[] {
  const figures = order.filter((p) => p.kind === 'figure');
  const captions = new Map<string, Placed[]>();
  const moved = new Set<Placed>();
  for (const caption of order) {
    if (caption.as !== 'caption' || !figures.length) continue;
    const linked = figures.find((f) => f.id === caption.captionOf);
    const nearest = linked ?? figures.reduce((a, b) => (distance(b.box, caption.box) < distance(a.box, caption.box) ? b : a));
    if (!linked && distance(nearest.box, caption.box) > CAPTION_REACH) continue;
    captions.set(nearest.id, [...(captions.get(nearest.id) ?? []), caption]);
    moved.add(caption);
  }
  return order.flatMap((p) => (moved.has(p) ? [] : [p, ...(captions.get(p.id) ?? [])]));
}

/** How much of the height of the lower one two boxes share. */
const beside = (a: Rect, b: Rect): number =>
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y)) / Math.max(1, Math.min(a.height, b.height));

function asidesAfterText(order: readonly Placed[]): Placed[] {
  const out = [...order];
  for (const aside of order.filter((p) => p.as === 'aside')) {
    const at = out.indexOf(aside);
    const texts = out.filter((p) => p.kind === 'text' && !p.as && beside(p.box, aside.box) > 0.5);
    if (!texts.length) continue;
    const anchor = texts.reduce((a, b) => (distance(b.box, aside.box) < distance(a.box, aside.box) ? b : a));
    const to = out.indexOf(anchor);
    if (to < at) continue;
    out.splice(at, 1);
    out.splice(to, 0, aside);
  }
  return out;
}

/**
 * An order that a person fixed, with what it does not name put in where it was worked out to be: after what is read before it.
 * What was fixed keeps its order whatever is worked out.
 */
export function fixedFirst(fixed: readonly string[], worked: readonly string[]): string[] {
  const named = new Set(fixed);
  const after = new Map<string | null, string[]>();
  let before: string | null = null;
  for (const id of worked) {
    if (named.has(id)) before = id;
    else after.set(before, [...(after.get(before) ?? []), id]);
  }
  return [...(after.get(null) ?? []), ...fixed.flatMap((id) => [id, ...(after.get(id) ?? [])])];
}
