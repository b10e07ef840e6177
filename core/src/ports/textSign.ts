import { createHash } from 'node:crypto';

/** A short sign of a text: it is another when the text is. */
export const textSign = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 16);
