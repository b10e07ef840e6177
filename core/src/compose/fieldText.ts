import type { Folio } from '../folio/folio.ts';
import type { Inline } from '../folio/story.ts';
import { pagesOf, placeOfPage, printedNumber } from '../folio/traverse.ts';

/** What a field’s text depends on, as far as it is known. */
export interface FieldSources {
  /** The page on which the field stands. */
  page: string | null;
  /** The printed number of the page on which a paragraph begins. */
  pageOf(paragraph: string): string | undefined;
  /** The number or bullet before a paragraph. */
  labelOf(paragraph: string): string | undefined;
  /** The section that runs on a page. */
  sectionOn(page: string): string | undefined;
}

/** What a field shows. */
export function fieldText(folio: Folio, node: Inline & { type: 'field' }, sources: FieldSources): string {
  switch (node.field) {
    case 'pageNumber': {
      const place = sources.page === null ? undefined : placeOfPage(folio, sources.page);
      return place ? printedNumber(place) : (node.text ?? '');
    }
    case 'pageCount':
      return String(pagesOf(folio).length);
    case 'title':
      return folio.head.metadata.title;
    case 'reference':
      return (node.target !== undefined && sources.pageOf(node.target)) || (node.text ?? '');
    case 'label':
      // A word and its number, “Figure 3”, stay together.
      return ((node.target !== undefined && sources.labelOf(node.target)) || (node.text ?? '')).replaceAll(' ', '\u00A0');
    case 'sectionName':
      return (sources.page !== null && sources.sectionOn(sources.page)) || (node.text ?? '');
    case 'date':
      return node.text ?? '';
  }
}
