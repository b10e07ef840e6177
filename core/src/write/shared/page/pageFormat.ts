import type { Format } from '../../../ledger/compare.ts';
import type { FixedPageWriter } from '../judgeFixedPage.ts';

/** Roles as the elements a page of placed frames can hold (HTML: figcaption lives in figure only). */
const ROLES: Record<string, string> = { figcaption: 'p', pre: 'p', th: 'p', td: 'p', div: 'p' };

/** How pages of HTML are compared with what the document asks for. */
export const HTML_PAGES: Format = {
  roleFor: (element) => ROLES[element] ?? element,
  joinsParts: false,
  baselineTolerance: 0.75,
  linksCues: true,
  plays: true,
};

/** What pages of HTML can hold, on the web and in a book. */
export const htmlPageWriter = (where: 'web' | 'book'): FixedPageWriter => ({
  keepsColourSpaces: false,
  hasEffects: true,
  groupsMustBeReadTogether: true,
  linksCues: true,
  motion: { plays: true, embeds: where === 'web', turnsPages: where === 'web', fields: true },
});
