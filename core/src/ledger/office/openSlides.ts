import { pointsOfEmu } from '../../packages/emu.ts';
import { multiply } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { pagesNamed } from '../../folio/joinedSpreads.ts';
import { child, childrenOf, openParts } from '../../packages/officeParts.ts';
import type { Node, OpenPackage } from '../../packages/officeParts.ts';

/** A slide with what lies behind it. */
export interface OpenSlide {
  path: string;
  root: Node | undefined;
  layout: { path: string; root: Node | undefined };
  /** The number that it shows where it is asked for. */
  number: number;
  /** How many pages of a layout it shows, as its name says. */
  pages: number;
}
export interface OpenDeck extends OpenPackage {
  size: { width: number; height: number };
  slides: OpenSlide[];
}

/** Opens a deck of slides from its bytes alone: its slides in the order of the presentation, not of their names. */
export async function openSlides(bytes: Uint8Array): Promise<OpenDeck> {
  const pack = await openParts(bytes);
  const root = pack.part(pack.main);
  const size = child(root, 'p:sldSz')?.attributes ?? {};
  const first = Number(root?.attributes['firstSlideNum'] ?? 1);
  const seen = new Set<string>();
  const slides = childrenOf(child(root, 'p:sldIdLst'), 'p:sldId').map(({ attributes }, i): OpenSlide => {
    const path = pack.relations(pack.main).get(attributes['r:id'] ?? '')?.target ?? '';
    const id = attributes['id'] ?? '';
    if (seen.has(id)) pack.problems.push({ file: pack.main, says: `two slides have the number ${id}` });
    seen.add(id);
    const behind = [...pack.relations(path).values()].find((r) => r.type === 'slideLayout')?.target ?? '';
    if (!behind) pack.problems.push({ file: path, says: 'it has no layout' });
    const root = pack.part(path);
    const pages = pagesNamed(child(root, 'p:cSld')?.attributes['name']);
    return { path, root, pages, layout: { path: behind, root: behind ? pack.part(behind) : undefined }, number: first + i };
  });
  return { ...pack, size: { width: pointsOfEmu(size['cx']), height: pointsOfEmu(size['cy']) }, slides };
}

/** What stands on a slide or layout, with its own box there: groups are unfolded. */
export interface SlideThing {
  node: Node;
  own: Rect;
}

const PROPERTIES: Record<string, string> = { 'p:sp': 'p:spPr', 'p:pic': 'p:spPr', 'p:cxnSp': 'p:spPr' };

/** Where a shape says that it stands (20.1.7.6); `p:xfrm` of frames of tables. */
const transformOf = (node: Node): Node | undefined =>
  node.name === 'p:graphicFrame' ? child(node, 'p:xfrm') : child(child(node, PROPERTIES[node.name] ?? ''), 'a:xfrm');

/** What a shape says of itself. */
export function said(node: Node): Node | undefined {
  const about = node.children[0];
  return child(about, 'p:cNvPr');
}
export const placeholderOf = (node: Node): Node | undefined => child(child(node.children[0], 'p:nvPr'), 'p:ph');

/** All shapes of a tree, from back to front. `layout`: where places that say nothing of their box have it from. */
export function thingsOf(root: Node | undefined, layout?: Node): SlideThing[] {
  const tree = child(child(root, 'p:cSld'), 'p:spTree');
  const places = layout ? thingsOf(layout).filter(({ node }) => placeholderOf(node)) : [];
  const out: SlideThing[] = [];
  const visit = (nodes: readonly Node[], to: Matrix): void => {
    for (const node of nodes) {
      if (node.name === 'p:grpSp') {
        visit(node.children, multiply(to, groupMatrix(child(child(node, 'p:grpSpPr'), 'a:xfrm'))));
        continue;
      }
      if (!['p:sp', 'p:pic', 'p:graphicFrame', 'p:cxnSp'].includes(node.name)) continue;
      const own = boxOf(transformOf(node)) ?? inherited(node, places);
      if (own)
        out.push({
          node,
          own: { x: to[0] * own.x + to[4], y: to[3] * own.y + to[5], width: to[0] * own.width, height: to[3] * own.height },
        });
    }
  };
  visit(tree?.children ?? [], [1, 0, 0, 1, 0, 0]);
  return out;
}

function boxOf(transform: Node | undefined): Rect | null {
  const [off, ext] = [child(transform, 'a:off')?.attributes, child(transform, 'a:ext')?.attributes];
  return off && ext
    ? { x: pointsOfEmu(off['x']), y: pointsOfEmu(off['y']), width: pointsOfEmu(ext['cx']), height: pointsOfEmu(ext['cy']) }
    : null;
}

function inherited(node: Node, places: readonly SlideThing[]): Rect | null {
  const place = placeholderOf(node)?.attributes;
  const same = (n: Node): boolean => {
    const a = placeholderOf(n)?.attributes ?? {};
    return (a['type'] ?? 'obj') === (place?.['type'] ?? 'obj') && (a['idx'] ?? '') === (place?.['idx'] ?? '');
  };
  return place ? (places.find((p) => same(p.node))?.own ?? null) : null;
}

/** From the space of a group’s members to the one that it stands in. */
function groupMatrix(transform: Node | undefined): Matrix {
  const outer = boxOf(transform);
  const [off, ext] = [child(transform, 'a:chOff')?.attributes, child(transform, 'a:chExt')?.attributes];
  if (!outer || !off || !ext) return [1, 0, 0, 1, 0, 0];
  const sx = pointsOfEmu(ext['cx']) ? outer.width / pointsOfEmu(ext['cx']) : 1;
  const sy = pointsOfEmu(ext['cy']) ? outer.height / pointsOfEmu(ext['cy']) : 1;
  return [sx, 0, 0, sy, outer.x - sx * pointsOfEmu(off['x']), outer.y - sy * pointsOfEmu(off['y'])];
}
