import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import type { RoleElement } from '../../folio/styles.ts';
import type { Child, Xml } from '../shared/office/xml.ts';
import { all, el } from '../shared/office/xml.ts';
import type { Insertion } from './inlineContent.ts';
import { inkOf, inlineContent } from './inlineContent.ts';
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
}

/** A paragraph of the document as one of the file, by a bookmark of its own. */
export function paragraphXml(
  story: Story,
  paragraph: Paragraph,
  { page, insertions, onGround, parts, before }: ParagraphPlace,
  c: WordContext,
): Xml {
  const element: RoleElement = paragraphRole(c.folio.head, paragraph.style).element;
  const ground = onGround ?? !!resolveParagraph(c.folio.head, paragraph).paragraph.shading;
  const properties = c.styles.paragraph(
    paragraph,
    { numbering: c.numbering.of(story, paragraph), pitch: c.pitch(paragraph), element, ink: inkOf(paragraph, {}, ground, c) },
    parts,
  );
  const content = inlineContent(story, paragraph, { page, ...(insertions && { insertions }), onGround: ground }, c);
  return el('w:p', {}, properties, c.bookmarks.around('p', paragraph.id, all(before, content)));
}
