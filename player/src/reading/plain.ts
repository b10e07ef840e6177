/** Asked for with `?plain`, pages lie below one another as they were designed, without anything around them. */
export const isPlain = (doc: Document): boolean => doc.location.search === '?plain';
