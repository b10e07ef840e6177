import type { Folio } from '../folio/folio.ts';
import { PageFacts } from '../folio/pageFacts.ts';
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

/** Signs of pages: each is another when anything of its page is. `called`: what ids were called before. */
export function signsOfPages(folio: Folio, called?: (id: string) => string): (page: string) => string {
  const facts = new PageFacts(folio, called);
  return (page) => textSign(facts.of(page));
}

/** Those of all pages, by their ids. */
export function allSignsOfPages(folio: Folio): Record<string, string> {
  const sign = signsOfPages(folio);
  return Object.fromEntries(Object.values(folio.spreads).flatMap((s) => s.pages.map(({ id }) => [id, sign(id)])));
}
