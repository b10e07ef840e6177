import { resolveParagraphStyle } from '../../folio/resolve.ts';
import type { CharacterProperties } from '../../folio/styles.ts';
import { nearestElement } from './styleBook.ts';
import type { OwnLook, StyleBook } from './styleBook.ts';
import { merge } from './styleSheet.ts';
import type { OdfStyle, StyleSheet } from './styleSheet.ts';
import type { TextStyle } from './textReader.ts';

/** A paragraph's style of ours, what it has of its own, and how its letters look with both. */
export interface ParagraphLook extends OwnLook {
  style: string;
  letters: CharacterProperties;
}

/** How paragraphs look that hang on the same styles. Most of a document's do: it is worked out once. */
export class ParagraphLooks {
  private readonly known = new Map<string, ParagraphLook>();

  constructor(
    private readonly sheet: StyleSheet,
    private readonly book: StyleBook,
  ) {}

  /** In a text of a style, with the paragraph's own style by name, of the named style that the designer chose. */
  of({ family, name, scope }: TextStyle, own: string | undefined, chosen: OdfStyle | undefined): ParagraphLook {
    const key = JSON.stringify([family, name, scope, own, chosen?.family, chosen?.name]);
    let found = this.known.get(key);
    if (!found) {
      const style = this.book.paragraphStyle(chosen);
      const properties = merge([this.sheet.overrides(family, name, scope), this.sheet.overrides('paragraph', own, scope)]);
      const look = this.book.own(style, properties, nearestElement(this.sheet, 'paragraph', own, scope));
      const inherited = resolveParagraphStyle(this.book.head, style).character;
      this.known.set(key, (found = { style, ...look, letters: { ...inherited, ...look.character } as CharacterProperties }));
    }
    return found;
  }
}
