import type { CharacterOverrides, ParagraphOverrides } from './styles.ts';
import type { Paragraph, Span } from './story.ts';

/** A look that a place has without a style for it; a language or a new beginning of numbers is no look. */
export interface HandLook {
  paragraph: ParagraphOverrides;
  character: CharacterOverrides;
}

/** What of a paragraph's own properties says how it looks, and what only belongs to its place in the text. */
export function lookOfParagraph(p: Pick<Paragraph, 'overrides' | 'character'>): { look: HandLook; place: HandLook } {
  const look: HandLook = { paragraph: { ...p.overrides }, character: { ...p.character } };
  const place: HandLook = { paragraph: {}, character: {} };
  const { list, breakBefore } = look.paragraph;
  if (list && list.restart !== undefined) {
    place.paragraph.list = list;
    delete look.paragraph.list;
  }
  if (breakBefore !== undefined) {
    place.paragraph.breakBefore = breakBefore;
    delete look.paragraph.breakBefore;
  }
  moveLanguage(look.character, place.character);
  return { look, place };
}

/** The same for a passage inside a paragraph. */
export function lookOfSpan(span: Pick<Span, 'overrides'>): { look: CharacterOverrides; place: CharacterOverrides } {
  const look = { ...span.overrides };
  const place: CharacterOverrides = {};
  moveLanguage(look, place);
  return { look, place };
}

function moveLanguage(look: CharacterOverrides, place: CharacterOverrides): void {
  if (look.language === undefined) return;
  place.language = look.language;
  delete look.language;
}

export const isEmpty = (look: object): boolean => Object.keys(look).length === 0;
