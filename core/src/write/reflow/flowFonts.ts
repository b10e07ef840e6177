import type { FontFace } from '../../compose/fontFace.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import { resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { CharacterProperties } from '../../folio/styles.ts';

/** The faces that running text is set in and the characters each must have, those that lend what others lack included. */
export class FlowFonts {
  readonly characters = new Map<FontFace, Set<number>>();
  /** Families that have what the texts’ own lack. */
  readonly lenders: readonly string[];

  constructor(
    private readonly folio: Folio,
    private readonly fonts: FontSet,
    composition: Composition,
    used: ReadonlySet<string>,
  ) {
    const lenders = new Set<string>();
    for (const story of Object.values(folio.stories))
      for (const block of Object.values(story.blocks)) if (block.kind === 'paragraph' && used.has(block.id)) this.take(block);
    for (const frame of composition.frames.values())
      for (const line of frame.lines)
        if (used.has(line.paragraph))
          for (const run of line.runs) {
            const own = fonts.match(run.look);
            if (own !== run.font) lenders.add(run.font.family);
            this.add(run.font, run.text);
          }
    this.lenders = [...lenders];
  }

  /** The families that text of a look asks readers for, the one that it is set in first. */
  families(look: CharacterProperties): string[] {
    const { family } = this.fonts.match(look);
    return [family, ...this.lenders.filter((f) => f !== family)];
  }

  private take(paragraph: Paragraph): void {
    const { character } = resolveParagraph(this.folio.head, paragraph);
    for (const node of paragraph.content)
      if (node.type === 'span') this.add(this.fonts.match(resolveSpan(this.folio.head, character, node)), node.text);
      else if (node.type === 'ruby') this.add(this.fonts.match(character), node.base + node.reading);
  }

  private add(face: FontFace, text: string): void {
    const set = this.characters.get(face) ?? new Set<number>();
    this.characters.set(face, set);
    // A style may show small letters as capitals, and a reader may take that away.
    for (const character of text + text.toUpperCase() + '-\u2010') {
      const point = character.codePointAt(0)!;
      if (face.glyphFor(point)) set.add(point);
    }
  }
}
