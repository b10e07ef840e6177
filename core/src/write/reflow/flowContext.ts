import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Destination } from '../../folio/motion.ts';
import type { Inline, Story } from '../../folio/story.ts';
import type { FieldSources } from '../../compose/fieldText.ts';
import type { FlowStyles } from './flowStyles.ts';

/** A picture as running text shows it. */
export interface FlowPicture {
  /** From the file that shows it. */
  source: string;
  width: number;
  height: number;
  /** How much of the text’s width it takes, from 0 to 1. */
  share: number;
}

/** What making markup of running text needs to know. */
export interface FlowContext {
  folio: Folio;
  styles: FlowStyles;
  language: string;
  /** Whether elements carry what e-book readers know of them (EPUB 3.3, epub:type). */
  book: boolean;
  /** Where a paragraph or a page is in the result, seen from the file that is being made; null where it is not in it. */
  paragraphAt(id: string): string | null;
  pageAt(id: string): string | null;
  printed(page: string): string;
  /** How wide most lines of the text are set, in points. */
  measure: number;
  picture(item: Item): FlowPicture | null;
  /** The file of a film, a sound or captions, from the file that plays it. */
  played(media: string): string | null;
  fields: Omit<FieldSources, 'page'>;
  /** The number or bullet before a paragraph. */
  label(story: Story, paragraph: string): string | undefined;
  noteNumber(story: Story, note: string): string;
  /** Takes a note that was referred to, so that its text follows. */
  note(story: Story, note: Inline & { type: 'note' }): void;
  /** How lists and pages are shown. */
  lists: 'lists' | 'text';
  pageMarks: boolean;
}

/** Ids of the result: ours, made names that XML and CSS allow (XML 1.0: a name does not begin with a digit). */
export const anchor = {
  paragraph: (id: string): string => `t-${id}`,
  page: (id: string): string => `page-${id}`,
  item: (id: string): string => `f-${id}`,
  note: (id: string): string => `n-${id}`,
  reference: (id: string): string => `r-${id}`,
};

/** Where a link leads in the result; null where it leads nowhere in it. */
export function hrefOf(
  destination: Destination,
  c: Pick<FlowContext, 'paragraphAt' | 'pageAt'>,
  isSafe: (href: string) => boolean,
): string | null {
  if (destination.to === 'address') return isSafe(destination.href) ? destination.href : null;
  if (destination.to === 'page') return c.pageAt(destination.page);
  if (destination.to === 'paragraph') return c.paragraphAt(destination.paragraph);
  return null;
}
