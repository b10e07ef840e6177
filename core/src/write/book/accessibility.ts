/** What of a book’s accessibility can be told from its content (EPUB Accessibility 1.1, section 2; schema.org’s vocabulary). */
export interface Accessibility {
  accessModes: string[];
  sufficient: string[];
  features: string[];
  hazards: string[];
  summary: string;
}

/** What is in a book, as far as it bears on who can read it. */
export interface BookContent {
  /** Pictures that are read, and whether each is put in words. */
  pictures: { described: boolean }[];
  tables: boolean;
  outline: boolean;
  /** Whether printed pages are listed, and whether their beginnings are marked in the text. */
  pages: 'none' | 'listed' | 'marked';
  /** Whether text fits itself to the reader’s size, typeface and colours. */
  reflows: boolean;
}

/** Works accessibility metadata out of what is in a book: nothing is claimed that is not there. */
export function accessibilityOf(has: BookContent): Accessibility {
  const total = has.pictures.length;
  const silent = has.pictures.filter((p) => !p.described).length;
  const features = [
    ...(has.reflows ? ['displayTransformability'] : []),
    'readingOrder',
    ...(has.outline ? ['tableOfContents', 'structuralNavigation'] : []),
    ...(has.pages === 'none' ? [] : ['pageNavigation']),
    ...(has.pages === 'marked' ? ['pageBreakMarkers'] : []),
    ...(total && !silent ? ['alternativeText'] : []),
  ];
  const pictures = !total
    ? 'It has no pictures.'
    : silent
      ? `${silent} of its ${total} pictures have no description.`
      : 'All of its pictures are described.';
  const order = `All text is live and in reading order${has.outline ? ', with headings and a table of contents' : ''}`;
  const fixed = has.reflows ? '' : ' Pages keep their design: text can be made larger only with the page.';
  return {
    accessModes: total ? ['textual', 'visual'] : ['textual'],
    // Text alone is enough where every picture is put in words.
    sufficient: silent ? ['textual,visual'] : ['textual'],
    features,
    hazards: ['none'],
    summary: `${order}${has.tables ? '; tables are tables, with their headings' : ''}. ${pictures}${fixed}`,
  };
}
