import { decorativeXml } from '../ooxml/drawing/decorative.ts';
import type { ShapeLook } from '../ooxml/drawing/shapeLook.ts';
import { transformXml } from '../ooxml/drawing/placement.ts';
import type { Placement } from '../ooxml/drawing/placement.ts';
import { emu } from '../ooxml/lengths.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';

const TABLE = 'http://schemas.openxmlformats.org/drawingml/2006/table';

/** What a thing on a slide says of itself. */
export interface ShapeFacts {
  id: number;
  name: string;
  /** What is said instead of it. */
  alt: string;
  /** Nothing of it is read. */
  decorative: boolean;
  /** Where a press on it leads. */
  press: Xml | null;
}

/** `cNvPr` (ISO/IEC 29500-1, 20.1.2.2.8). */
export const about = ({ id, name, alt, decorative, press }: ShapeFacts): Xml =>
  el('p:cNvPr', { id, name, descr: alt || undefined }, press, decorative && decorativeXml());

/** How text stands in its shape (21.1.2.1.1). */
export interface BodyLook {
  /** Room around it: top, right, bottom, left; in points. */
  inset: readonly [number, number, number, number];
  anchor: 't' | 'ctr' | 'b';
  columns: { count: number; gutter: number };
  fit: 'stays' | 'shrinks' | 'grows';
}
const FITS = { stays: 'a:noAutofit', shrinks: 'a:normAutofit', grows: 'a:spAutoFit' } as const;

export const bodyXml = ({ inset: [top, right, bottom, left], anchor, columns, fit }: BodyLook, paragraphs: Xml): Xml =>
  el(
    'p:txBody',
    {},
    el(
      'a:bodyPr',
      {
        rot: 0,
        vert: 'horz',
        wrap: 'square',
        lIns: emu(left),
        tIns: emu(top),
        rIns: emu(right),
        bIns: emu(bottom),
        numCol: columns.count,
        spcCol: emu(columns.gutter),
        rtlCol: 0,
        anchor,
      },
      el(FITS[fit]),
    ),
    el('a:lstStyle'),
    paragraphs,
  );

/** The place that a slide fills of its layout. */
export type Placeholder = { type: 'title' } | { type: 'body' | 'pic'; idx: number };
const placeholderXml = (p: Placeholder | null): Xml => el('p:nvPr', {}, p && el('p:ph', { ...p }));

/** A shape, with text in it or without (19.3.1.43). */
export const shapeXml = (
  facts: ShapeFacts,
  at: Placement,
  look: ShapeLook,
  body: Xml | null,
  placeholder: Placeholder | null = null,
): Xml =>
  el(
    'p:sp',
    {},
    el('p:nvSpPr', {}, about(facts), el('p:cNvSpPr', { txBox: body && !placeholder ? 1 : undefined }), placeholderXml(placeholder)),
    el('p:spPr', {}, transformXml('a:xfrm', at), look.geometry, look.fill, look.line, look.effects),
    body,
  );

/** A picture, or the still picture of a film or sound (19.3.1.37); `plays`: what stands in `nvPr` of these. */
export const pictureXml = (facts: ShapeFacts, at: Placement, fill: Xml, around: Child, plays: Child = null): Xml =>
  el(
    'p:pic',
    {},
    el('p:nvPicPr', {}, about(facts), el('p:cNvPicPr', {}, el('a:picLocks', { noChangeAspect: 1 })), el('p:nvPr', {}, plays)),
    fill,
    el('p:spPr', {}, transformXml('a:xfrm', at), around),
  );

/** A table in its place (19.3.1.21). */
export const tableFrameXml = (facts: ShapeFacts, at: Placement, table: Xml): Xml =>
  el(
    'p:graphicFrame',
    {},
    el('p:nvGraphicFramePr', {}, about(facts), el('p:cNvGraphicFramePr', {}, el('a:graphicFrameLocks', { noGrp: 1 })), el('p:nvPr')),
    transformXml('p:xfrm', at),
    el('a:graphic', {}, el('a:graphicData', { uri: TABLE }, table)),
  );

/** Things that belong together (19.3.1.22): they stand where they did, so that the group’s own space is that of the slide. */
export function groupXml(facts: ShapeFacts, box: { x: number; y: number; width: number; height: number }, members: readonly Xml[]): Xml {
  const [off, ext] = [
    { x: emu(box.x), y: emu(box.y) },
    { cx: emu(box.width), cy: emu(box.height) },
  ];
  return el(
    'p:grpSp',
    {},
    el('p:nvGrpSpPr', {}, about(facts), el('p:cNvGrpSpPr'), el('p:nvPr')),
    el('p:grpSpPr', {}, el('a:xfrm', {}, el('a:off', off), el('a:ext', ext), el('a:chOff', off), el('a:chExt', ext))),
    members,
  );
}

/** All that a slide, a layout or a master shows, from back to front (19.3.1.45). */
export const shapeTree = (shapes: Child): Xml =>
  el(
    'p:spTree',
    {},
    el('p:nvGrpSpPr', {}, el('p:cNvPr', { id: 1, name: '' }), el('p:cNvGrpSpPr'), el('p:nvPr')),
    el(
      'p:grpSpPr',
      {},
      el(
        'a:xfrm',
        {},
        el('a:off', { x: 0, y: 0 }),
        el('a:ext', { cx: 0, cy: 0 }),
        el('a:chOff', { x: 0, y: 0 }),
        el('a:chExt', { cx: 0, cy: 0 }),
      ),
    ),
    shapes,
  );

/** Which colours of the theme text and grounds have (19.3.1.6). */
export const colourMap = (): Xml => {
  const same = ['accent1', 'accent2', 'accent3', 'accent4', 'accent5', 'accent6', 'hlink', 'folHlink'];
  return el('p:clrMap', { bg1: 'lt1', tx1: 'dk1', bg2: 'lt2', tx2: 'dk2', ...Object.fromEntries(same.map((c) => [c, c])) });
};
