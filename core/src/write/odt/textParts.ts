import type { Inline, Story } from '../../folio/story.ts';
import { el } from '../opendocument/element.ts';
import type { Xml } from '../opendocument/element.ts';

/** What a text document of OpenDocument is made of, beside its pictures. */
export interface TextParts {
  content: Xml;
  styles: Xml;
  /** Paragraphs, and parts of such in boxes, by the ids that they have in it. */
  written: readonly WrittenParagraph[];
}

/** A paragraph of the file: which of the document’s, or what part of it. */
export interface WrittenParagraph {
  name: string;
  paragraph: string;
  part: { from: number; to: number } | null;
}

/** Names of places in the text (part 3, 6.2.1.2). */
export const placeOfParagraph = (id: string): string => `p_${id}`;
export const placeOfPage = (id: string): string => `pg_${id}`;
export const bookmark = (name: string): Xml => el('text:bookmark', { 'text:name': name });

/** Paragraphs that links and references lead to, among those that are there. */
export function placesIn(stories: Record<string, Story>, used: ReadonlySet<string>): Set<string> {
  const out = new Set<string>();
  const add = (id: string | undefined): void => void (id !== undefined && used.has(id) && out.add(id));
  const inContent = (content: readonly Inline[]): void => content.forEach((n) => n.type === 'field' && add(n.target));
  for (const story of Object.values(stories)) {
    for (const { destination } of Object.values(story.links)) if (destination.to === 'paragraph') add(destination.paragraph);
    for (const block of Object.values(story.blocks)) if (block.kind === 'paragraph') inContent(block.content);
  }
  return out;
}
