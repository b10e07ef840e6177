import { isSafeAddress } from '../folio/address.ts';

/** What a drawn page may do: show what it holds itself, and nothing else (Content Security Policy, level 3). */
const POLICY = "default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

/**
 * A drawing of a result as a page of its own. Values of a file go into its styles as they are, and the file may be anybody's: whatever
 * it tries, the page runs nothing and fetches nothing. No end of the style sheet is in it: `<\/` is the same to CSS and none to HTML.
 */
export const drawnPage = (drawn: string, css: string): string =>
  `<!doctype html><html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="${POLICY}"><meta name="viewport" content="width=device-width"><style>${css.replace(/<\//g, '<\\/')}</style></head><body>${drawn}</body></html>`;

/** A colour as a file names it, where it can be one: `#` and digits, or a word. */
export const colourIn = (value: string | null | undefined): string | undefined => (value && /^#?\w+$/.test(value) ? value : undefined);

/** Where a link of a file leads, where that is an address that links may have. */
export const linkIn = (href: string): string => (isSafeAddress(href) ? href : '');
