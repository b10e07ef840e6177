/** A text as far as it is compared: spaces, soft hyphens and capitals are matters of look. */
export const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD\u2003]+/g, '').toLowerCase();
