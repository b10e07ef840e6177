import type { Head } from '../../folio/head.ts';
import type { Item } from '../../folio/items.ts';
import { resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../../folio/styles.ts';

/** Properties of paragraphs that the typesetter does not act on yet, in a designer's words. */
const PARAGRAPH: [string, (p: ParagraphProperties) => boolean][] = [['spanning columns', (p) => p.spanColumns]];

const CHARACTER: [string, (c: CharacterProperties) => boolean][] = [
  ['the wide or narrow version of the font', (c) => c.fontStretch !== 100],
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
export function lookNotPaintedYet(item: Item): string[] {
  return [...(item.kind === 'textFrame' && item.shrinkToFit ? ['text that shrinks to fit'] : [])];
}
