import { leadingOf, paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Inline, Paragraph, Story } from '../../folio/story.ts';
import type { ParagraphProperties, RoleElement } from '../../folio/styles.ts';
import { contentLength, initialLetters, sliceContent } from '../../folio/text.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { all, el, words } from '../assets/xml.ts';
import type { Insertion } from './inlineContent.ts';
import { inkOf, inlineContent, run } from './inlineContent.ts';
import type { ParagraphPart } from './paragraphLook.ts';
import type { WordContext } from './wordContext.ts';

export interface ParagraphPlace {
  /** The page of the layout on which it begins. */
  page: string | null;
  insertions?: readonly Insertion[];
  /** Whether it stands on a ground of the document’s. */
  onGround?: boolean;
  /** What it says of itself besides its look: a frame, a section that ends with it. */
  parts?: Partial<Record<ParagraphPart, Xml | null>>;
  /** What stands before its words, such as the number of a note. */
  before?: Child;
  /** Which part of a paragraph it is; all of it where nothing is said. */
  part?: { from: number; to: number } | null;
  /** Whether it stands on other pages as well, and is none of the text’s here. */
  repeats?: boolean;
}

/** A paragraph of the document as one of the file, by a bookmark of its own; its initial is one before it. */
export function paragraphXml(story: Story, paragraph: Paragraph, place: ParagraphPlace, c: WordContext): Xml {
  const initial = c.initials && !place.parts?.['w:framePr'] ? resolveParagraph(c.folio.head, paragraph).paragraph.dropCapital : null;
  if (!initial || !initialLetters(paragraph, initial.characters)) return oneParagraph(story, paragraph, place, c);
  const capital = sliceContent(paragraph.content, 0, initial.characters);
  const rest: Paragraph = {
    ...paragraph,
    content: sliceContent(paragraph.content, initial.characters, contentLength(paragraph.content)),
    overrides: { ...paragraph.overrides, firstLineIndent: 0 },
  };
  const insertions = place.insertions?.map((i) => ({ ...i, offset: Math.max(0, i.offset - initial.characters) }));
  return all(initialXml(paragraph, capital, initial, c), oneParagraph(story, rest, { ...place, ...(insertions && { insertions }) }, c));
}

function oneParagraph(
  story: Story,
  paragraph: Paragraph,
  { page, insertions, onGround, parts, before, part = null, repeats = false }: ParagraphPlace,
  c: WordContext,
): Xml {
  const element: RoleElement = paragraphRole(c.folio.head, paragraph.style).element;
  const ground = onGround ?? !!resolveParagraph(c.folio.head, paragraph).paragraph.shading;
  const properties = c.styles.paragraph(
    paragraph,
    {
      numbering: c.numbering.of(story, paragraph),
      pitch: c.pitch(paragraph),
      element,
      ink: inkOf(paragraph, {}, ground, c),
    },
    parts,
  );
  const content = inlineContent(story, paragraph, { page, ...(insertions && { insertions }), onGround: ground }, c);
  const filled = c.prompts?.has(paragraph.id) ? promptXml(content) : content;
  const marked = repeats ? c.bookmarks.aside(filled) : c.bookmarks.paragraph(paragraph.id, part, filled);
  return el('w:p', {}, properties, before, marked);
}

/** A place for others’ words, which is gone as soon as they write (structured document tag: ISO/IEC 29500-1, 17.5.2.31). */
const promptXml = (content: Xml): Xml =>
  el('w:sdt', {}, el('w:sdtPr', {}, el('w:temporary'), el('w:showingPlcHdr'), el('w:text')), el('w:sdtContent', {}, content));

/** A capital is about two thirds of its size; one in a frame stands a little lower than its line (common practice, both). */
const CAPITAL = 0.66;
const LOWERED = 0.06;

/** Large first letters in a frame of their own beside the first lines (ISO/IEC 29500-1, 17.3.1.11: `dropCap`). */
function initialXml(
  paragraph: Paragraph,
  capital: readonly Inline[],
  { lines, style }: NonNullable<ParagraphProperties['dropCapital']>,
  c: WordContext,
): Xml {
  const { character } = resolveParagraph(c.folio.head, paragraph);
  const pitch = c.pitch(paragraph)?.points ?? leadingOf(character);
  const size = ((lines - 1) * pitch + CAPITAL * character.size) / CAPITAL;
  const properties = c.styles.paragraph(
    paragraph,
    { numbering: null, element: paragraphRole(c.folio.head, paragraph.style).element, pitch: { points: lines * pitch, rule: 'exact' } },
    {
      'w:keepNext': el('w:keepNext'),
      'w:framePr': el('w:framePr', { 'w:dropCap': 'drop', 'w:lines': lines, 'w:wrap': 'around', 'w:vAnchor': 'text', 'w:hAnchor': 'text' }),
      'w:textAlignment': el('w:textAlignment', { 'w:val': 'baseline' }),
      'w:ind': el('w:ind', { 'w:left': 0, 'w:right': 0, 'w:firstLine': 0 }),
    },
  );
  const runs = capital.map((n) => {
    if (n.type !== 'span') return null;
    const look = c.styles.run(paragraph, {
      style: style ?? n.style,
      overrides: { ...n.overrides, size, baselineShift: LOWERED * size },
    });
    return run(look, el('w:t', { 'xml:space': 'preserve' }, words(n.text)));
  });
  return el('w:p', {}, properties, runs);
}
