/** What of a document's head has a name, which a newer version of its source carries too: styles, layers, inks, master pages. */
export const NAMED = [
  'layers',
  'paragraphStyles',
  'characterStyles',
  'listStyles',
  'itemStyles',
  'tableStyles',
  'cellStyles',
  'swatches',
  'masterPages',
] as const;

/** All of the head that is kept by ids: files beside what has a name. */
export const KEYED = [...NAMED, 'fonts', 'media'] as const;
