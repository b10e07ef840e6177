import type { Folio } from '../../folio/folio.ts';
import { readText } from '../../folio/text.ts';
import type { FlowSection } from '../../structure/flow.ts';
import { headingLevel, outlineText } from '../../structure/outline.ts';

/** A heading in a list of contents. */
export interface Entry {
  level: number;
  text: string;
  paragraph: string;
  printed: string | undefined;
}

/** Headings that a table of contents lists, down to a level. */
export function contentsOf(
  folio: Folio,
  sections: readonly FlowSection[],
  depth: number,
  pageOf: (paragraph: string) => string | undefined,
): Entry[] {
  return sections.flatMap((s) =>
    s.blocks.flatMap((b): Entry[] => {
      const level = b.kind === 'paragraph' ? headingLevel(b.role.element) : 0;
      if (b.kind !== 'paragraph' || !level || level > depth) return [];
      const text = outlineText(folio.head, b.paragraph.id, readText(b.paragraph).trim());
      return text === null ? [] : [{ level, text, paragraph: b.paragraph.id, printed: pageOf(b.paragraph.id) }];
    }),
  );
}
