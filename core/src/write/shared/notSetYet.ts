import type { Head } from '../../folio/head.ts';
import type { Item } from '../../folio/items.ts';
import { resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../../folio/styles.ts';

/** Properties of paragraphs that the typesetter does not act on yet, in a designer's words. */
const PARAGRAPH: [string, (p: ParagraphProperties) => boolean][] = [
  ['balanced line ends', (p) => p.composer === 'totalFit'],
  ['hyphenation', (p) => p.hyphenation !== null],
  [
    'letter and glyph widths that give way',
    (p) => p.letterSpace.least !== 0 || p.letterSpace.most !== 0 || p.glyphWidth.least !== 1 || p.glyphWidth.most !== 1,
  ],
  ['hanging punctuation', (p) => p.hangingPunctuation],
  ['tabs other than left-aligned ones', (p) => p.tabs.some((t) => t.align !== 'left' || t.leader)],
  ['keeping lines together', (p) => p.keepLines || p.orphans > 1 || p.widows > 1],
  ['keeping with the next paragraph', (p) => p.keepWithNext > 0],
  ['beginning in a new column, frame or page', (p) => p.breakBefore !== 'none'],
  ['the baseline grid', (p) => p.alignToGrid],
  ['spanning columns', (p) => p.spanColumns],
  ['automatic bullets or numbers', (p) => p.list !== null],
  ['the drop capital', (p) => p.dropCapital !== null],
  ['rules above or below', (p) => p.ruleAbove !== null || p.ruleBelow !== null],
  ['shading or border', (p) => p.shading !== null || p.border !== null],
  ['right-to-left order of the line', (p) => p.direction === 'rtl'],
];

const CHARACTER: [string, (c: CharacterProperties) => boolean][] = [
  ['widened or narrowed letters', (c) => c.horizontalScale !== 1 || c.verticalScale !== 1 || c.fontStretch !== 100],
  ['outlined letters', (c) => c.stroke !== null],
  ['words that may not be broken', (c) => c.noBreak],
];

/** What of a paragraph's formatting does not show yet; empty where all of it does. */
export function textNotSetYet(head: Head, paragraph: Paragraph): string[] {
  const { paragraph: properties, character } = resolveParagraph(head, paragraph);
  const looks = [character, ...paragraph.content.flatMap((n) => (n.type === 'span' ? [resolveSpan(head, character, n)] : []))];
  return [...PARAGRAPH.filter(([, applies]) => applies(properties)), ...CHARACTER.filter(([, applies]) => looks.some(applies))].map(
    ([words]) => words,
  );
}

/** What of an item's look is not painted yet. */
export function lookNotPaintedYet(head: Head, item: Item): string[] {
  const style = item.style === undefined ? undefined : head.itemStyles[item.style];
  return [
    ...(style && (style.fill || style.stroke || style.opacity !== undefined) ? [`the item style “${style.name}”`] : []),
    ...(item.stroke && (item.stroke.startMarker !== 'none' || item.stroke.endMarker !== 'none') ? ['markers at the ends of the line'] : []),
    ...(item.kind === 'textFrame' && item.balance ? ['balanced columns'] : []),
    ...(item.kind === 'textFrame' && item.shrinkToFit ? ['text that shrinks to fit'] : []),
  ];
}
