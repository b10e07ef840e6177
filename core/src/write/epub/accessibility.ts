import type { FlowBlock, FlowSection } from '../../structure/flow.ts';

/** What of a book’s accessibility can be told from its content (EPUB Accessibility 1.1, section 2; schema.org’s vocabulary). */
export interface Accessibility {
  accessModes: string[];
  sufficient: string[];
  features: string[];
  hazards: string[];
  summary: string;
}

/** Works accessibility metadata out of what is in a book: nothing is claimed that is not there. */
export function accessibilityOf(
  sections: readonly FlowSection[],
  has: { outline: boolean; pages: boolean; picture(item: string): boolean; decorations: ReadonlySet<string> },
): Accessibility {
  const figures = sections.flatMap((s) => s.blocks.flatMap(figuresIn)).filter((f) => has.picture(f.item.id));
  const silent = figures.filter((f) => !f.item.alt && !has.decorations.has(f.item.id)).length;
  const tables = sections.some((s) => s.blocks.some((b) => b.kind === 'table'));
  const features = [
    'displayTransformability',
    'readingOrder',
    ...(has.outline ? ['tableOfContents', 'structuralNavigation'] : []),
    ...(has.pages ? ['pageNavigation', 'pageBreakMarkers'] : []),
    ...(figures.length && !silent ? ['alternativeText'] : []),
  ];
  const pictures = !figures.length
    ? 'It has no pictures.'
    : silent
      ? `${silent} of its ${figures.length} pictures have no description.`
      : 'All of its pictures are described.';
  return {
    accessModes: figures.length ? ['textual', 'visual'] : ['textual'],
    // Text alone is enough where every picture is put in words.
    sufficient: silent ? ['textual,visual'] : ['textual'],
    features,
    hazards: ['none'],
    summary: `All text is live and in reading order${has.outline ? ', with headings and a table of contents' : ''}${tables ? '; tables are tables, with their headings' : ''}. ${pictures}`,
  };
}

function figuresIn(block: FlowBlock): Extract<FlowBlock, { kind: 'figure' }>[] {
  if (block.kind === 'figure') return [block];
  if (block.kind === 'paragraph') return block.inline.map((i) => i.figure);
  return block.kind === 'box' ? block.blocks.flatMap(figuresIn) : [];
}
