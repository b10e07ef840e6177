import type { Folio } from '../folio/folio.ts';
import { pageFacts } from '../folio/pageFacts.ts';
import { textSign } from './textSign.ts';

/** The source that a document came in from, for outputs that go on from it. */
export interface Origin {
  format: string;
  /** The file’s ending, with its point. */
  ending: string;
  /** Our ids → the part of the original and the element in it, by indexes of elements from the root down. */
  elements: Readonly<Record<string, string>>;
  /** A sign of each page as it came in, by its id here. */
  pages: Readonly<Record<string, string>>;
  /** What ids here were called in the source. */
  called(id: string): string;
  bytes(): Promise<Uint8Array>;
}

/** A sign of a page: it is another when anything of the page is. */
export const signOfPage = (folio: Folio, page: string, called?: (id: string) => string): string => textSign(pageFacts(folio, page, called));

/** The signs of all pages, by their ids. */
export const signsOfPages = (folio: Folio): Record<string, string> =>
  Object.fromEntries(Object.values(folio.spreads).flatMap((s) => s.pages.map(({ id }) => [id, signOfPage(folio, id)])));
