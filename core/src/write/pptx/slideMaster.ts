import { CHARACTER_DEFAULTS, PARAGRAPH_DEFAULTS } from '../../folio/styles.ts';
import { leadingOf, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { WordsPiece } from '../../structure/textPieces.ts';
import { rectangle } from '../ooxml/drawing/geometry.ts';
import { transformXml } from '../ooxml/drawing/placement.ts';
import type { Placement } from '../ooxml/drawing/placement.ts';
import type { Xml } from '../assets/xml.ts';
import { el, words, xmlFile } from '../assets/xml.ts';
import { NAMESPACES } from './namespaces.ts';
import { levelLook } from './paragraphLook.ts';
import { about, colourMap, shapeTree } from './shapes.ts';
import type { Placeholder } from './shapes.ts';
import type { SlideContext } from './slideContext.ts';

/** What new text in a place of a layout says before somebody writes (common words of the trade). */
const PROMPTS = { title: 'Heading', body: 'Text', pic: 'Picture' } as const;

/** A place that slides fill: where it is, and what text in it looks like (ISO/IEC 29500-1, 19.3.1.36). */
export function placeholderXml(id: number, place: Placeholder, at: Placement, look: Xml | null, says = ''): Xml {
  const prompt = el('a:p', {}, el('a:r', {}, el('a:t', {}, words(says || PROMPTS[place.type]))));
  return el(
    'p:sp',
    {},
    el(
      'p:nvSpPr',
      {},
      about({ id, name: PROMPTS[place.type], alt: '', decorative: false, press: null }),
      el('p:cNvSpPr', {}, el('a:spLocks', { noGrp: 1 })),
      el('p:nvPr', {}, el('p:ph', { ...place })),
    ),
    el('p:spPr', {}, transformXml('a:xfrm', at), rectangle()),
    el('p:txBody', {}, el('a:bodyPr', { lIns: 0, tIns: 0, rIns: 0, bIns: 0 }, el('a:noAutofit')), el('a:lstStyle', {}, look), prompt),
  );
}

/** What new text in the place of a text looks like: as its first paragraph does. */
export function lookOfPiece({ blocks }: WordsPiece, c: SlideContext): Xml | null {
  const first = blocks.find(({ block }) => block.kind === 'paragraph')?.block as Paragraph | undefined;
  return first ? levelLook(resolveParagraph(c.folio.head, first), c.leading(first).points, c) : null;
}

/** The master of all layouts: white, with a place for a heading and one for text (19.3.1.42). `layouts`: by which it names them. */
export function masterFile(
  size: { width: number; height: number },
  layouts: readonly { id: number; relation: string }[],
  c: SlideContext,
): string {
  const edge = Math.min(size.width, size.height) * 0.08;
  const inside = { x: edge, width: size.width - 2 * edge, rotation: 0, flipV: false };
  const title = { ...inside, y: edge, height: edge * 1.5 };
  const body = { ...inside, y: edge * 3, height: size.height - edge * 4 };
  const plain = { paragraph: PARAGRAPH_DEFAULTS, character: { ...CHARACTER_DEFAULTS, language: c.folio.head.metadata.language } };
  const heading = { ...plain, character: { ...plain.character, size: 28, leading: 'auto' as const } };
  const style = (name: string, look: typeof plain | typeof heading): Xml => el(name, {}, levelLook(look, leadingOf(look.character), c));
  return xmlFile(
    el(
      'p:sldMaster',
      NAMESPACES,
      el(
        'p:cSld',
        {},
        el('p:bg', {}, el('p:bgPr', {}, el('a:solidFill', {}, el('a:schemeClr', { val: 'bg1' })), el('a:effectLst'))),
        shapeTree([placeholderXml(2, { type: 'title' }, title, null), placeholderXml(3, { type: 'body', idx: 1 }, body, null)]),
      ),
      colourMap(),
      el(
        'p:sldLayoutIdLst',
        {},
        layouts.map(({ id, relation }) => el('p:sldLayoutId', { id, 'r:id': relation })),
      ),
      el('p:txStyles', {}, style('p:titleStyle', heading), style('p:bodyStyle', plain), style('p:otherStyle', plain)),
    ),
  );
}

/** A layout: what repeats on the slides that have it, and the places that they fill (19.3.1.39). */
export const layoutFile = (name: string, shapes: readonly Xml[]): string =>
  xmlFile(
    el(
      'p:sldLayout',
      { ...NAMESPACES, preserve: 1, userDrawn: 1 },
      el('p:cSld', { name }, shapeTree(shapes)),
      el('p:clrMapOvr', {}, el('a:masterClrMapping')),
    ),
  );
