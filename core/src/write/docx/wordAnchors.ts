import { decorativeXml } from '../ooxml/drawing/decorative.ts';
import type { Placement } from '../ooxml/drawing/placement.ts';
import { transformXml } from '../ooxml/drawing/placement.ts';
import type { ShapeLook } from '../ooxml/drawing/shapeLook.ts';
import { emu } from '../ooxml/lengths.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { all, el } from '../assets/xml.ts';

const SHAPE = 'http://schemas.microsoft.com/office/word/2010/wordprocessingShape';

/** What a drawing says of itself. */
export interface DrawingFacts {
  id: number;
  name: string;
  /** What is said instead of it. */
  alt: string;
  /** Nothing of it is read. */
  decorative: boolean;
  /** A relationship that a press leads by. */
  link?: string | undefined;
}

/** Where it stands in front of and behind others: higher is nearer. */
export interface Anchored extends Placement {
  z: number;
}

/** How far a turned box reaches beyond itself (20.4.2.6). */
function reach({ width, height, rotation }: Placement): { l: number; t: number; r: number; b: number } {
  const r = (rotation * Math.PI) / 180;
  const across = Math.abs(width * Math.cos(r)) + Math.abs(height * Math.sin(r));
  const down = Math.abs(width * Math.sin(r)) + Math.abs(height * Math.cos(r));
  const [x, y] = [emu(Math.max(0, (across - width) / 2)), emu(Math.max(0, (down - height) / 2))];
  return { l: x, t: y, r: x, b: y };
}

/** A drawing at a place of its page, whatever the text does (ISO/IEC 29500-1, 20.4.2.3). */
export function anchorXml(at: Anchored, facts: DrawingFacts, graphic: Xml): Xml {
  const { id, name, alt, decorative, link } = facts;
  const from = (axis: 'wp:positionH' | 'wp:positionV', points: number): Xml =>
    el(axis, { relativeFrom: 'page' }, el('wp:posOffset', {}, String(emu(points)) as Xml));
  return el(
    'w:drawing',
    {},
    el(
      'wp:anchor',
      {
        distT: 0,
        distB: 0,
        distL: 0,
        distR: 0,
        simplePos: 0,
        relativeHeight: at.z,
        behindDoc: 0,
        locked: 0,
        layoutInCell: 1,
        allowOverlap: 1,
      },
      el('wp:simplePos', { x: 0, y: 0 }),
      from('wp:positionH', at.x),
      from('wp:positionV', at.y),
      el('wp:extent', { cx: Math.max(1, emu(at.width)), cy: Math.max(1, emu(at.height)) }),
      el('wp:effectExtent', reach(at)),
      // Text stands in boxes of its own, which leave room for what it runs around.
      el('wp:wrapNone'),
      el('wp:docPr', { id, name, descr: alt }, link !== undefined && el('a:hlinkClick', { 'r:id': link }), decorative && decorativeXml()),
      el('wp:cNvGraphicFramePr'),
      el('a:graphic', {}, graphic),
    ),
  );
}

/** What is inside a shape: text, or what goes on from another. */
export type ShapeText =
  { kind: 'text'; chain: number; content: Xml; goesOn: boolean } | { kind: 'goesOn'; chain: number; place: number; goesOn: boolean };

export interface BoxLook extends ShapeLook {
  /** Where text stands in it: top, middle, bottom. */
  anchor: 't' | 'ctr' | 'b';
}

/** A shape, or a box of text; programs that do not know such get the older form of it beside it (29500-3, 9.3: alternate content). */
export function shapeXml(at: Anchored, facts: DrawingFacts, look: BoxLook, text: ShapeText | null): Xml {
  const isBox = text !== null;
  const inside: Child =
    text === null
      ? null
      : text.kind === 'text'
        ? el('wps:txbx', { id: text.goesOn ? text.chain : undefined }, el('w:txbxContent', {}, text.content))
        : el('wps:linkedTxbx', { id: text.chain, seq: text.place });
  const shape = el(
    'a:graphicData',
    { uri: SHAPE },
    el(
      'wps:wsp',
      {},
      el('wps:cNvSpPr', isBox ? { txBox: 1 } : {}),
      el('wps:spPr', {}, transformXml('a:xfrm', at, { x: 0, y: 0 }), look.geometry, look.fill, look.line, look.effects),
      inside,
      el(
        'wps:bodyPr',
        { rot: 0, vert: 'horz', wrap: 'square', lIns: 0, tIns: 0, rIns: 0, bIns: 0, anchor: look.anchor, anchorCtr: 0 },
        el('a:noAutofit'),
      ),
    ),
  );
  const newer = el('mc:Choice', { Requires: 'wps' }, anchorXml(at, facts, shape));
  if (text === null) return el('w:r', {}, el('mc:AlternateContent', {}, newer, el('mc:Fallback')));
  return el('w:r', {}, el('mc:AlternateContent', {}, newer, el('mc:Fallback', {}, olderBox(at, facts, text))));
}

/** How properties of the older form begin that CSS does not have: a name of the standard’s own (29500-4, 19.1.2.19, `style`), written so that it is no word here. */
const OLDER = '\u006dso-';

/** A box of text as programs before 2010 have it (VML, 29500-4, 19.1.2.11 and 19.1.2.22); those that go on are named by the one before. */
function olderBox(at: Anchored, facts: DrawingFacts, text: ShapeText): Xml {
  const name = (place: number): string => `chain${text.chain}_${place}`;
  const place = text.kind === 'text' ? 0 : text.place;
  const style = [
    'position:absolute',
    `margin-left:${at.x.toFixed(2)}pt`,
    `margin-top:${at.y.toFixed(2)}pt`,
    `width:${at.width.toFixed(2)}pt`,
    `height:${at.height.toFixed(2)}pt`,
    `z-index:${at.z}`,
    `${OLDER}position-horizontal-relative:page`,
    `${OLDER}position-vertical-relative:page`,
    ...(at.rotation ? [`rotation:${at.rotation.toFixed(3)}`] : []),
  ].join(';');
  const isLinked = text.kind === 'goesOn' || text.goesOn;
  const next = text.goesOn ? `${OLDER}next-textbox:#${name(place + 1)}` : undefined;
  // Bookmarks are there once: in the newer form.
  const content = text.kind === 'text' ? (text.content.replace(/<w:bookmark(Start|End)[^>]*\/>/g, '') as Xml) : all();
  return el(
    'w:pict',
    {},
    el(
      'v:rect',
      { id: isLinked ? name(place) : `box${facts.id}`, style, stroked: 'f', filled: 'f' },
      el('v:textbox', { inset: '0,0,0,0', style: next }, el('w:txbxContent', {}, content || el('w:p'))),
    ),
  );
}
