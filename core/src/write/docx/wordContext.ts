import type { FieldSources } from '../../compose/fieldText.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Inline, Paragraph, Story } from '../../folio/story.ts';
import type { Part } from '../ooxml/officePackage.ts';
import type { Bookmarks } from './bookmarks.ts';
import type { Numbering } from './numbering.ts';
import type { LinePitch } from './paragraphLook.ts';
import type { WordPictures } from './wordPictures.ts';
import type { WordStyles } from './wordStyles.ts';

/** What writing the text of a document needs to know. */
export interface WordContext {
  folio: Folio;
  styles: WordStyles;
  numbering: Numbering;
  bookmarks: Bookmarks;
  pictures: WordPictures;
  /** Paragraphs that are places for others’ words; null where none are. */
  prompts: ReadonlySet<string> | null;
  /** The part that is being written: its links and pictures are its own. */
  part: Part;
  /** How wide the text is set, in points. */
  measure: number;
  /** Whether text that would not be seen on white paper stands on grounds of its own; else readers see it in theirs. */
  exactInk: boolean;
  /** Whether page numbers and references go on being worked out, or are words. */
  liveFields: boolean;
  fields: Omit<FieldSources, 'page'>;
  /** Whether a paragraph or a page is in the result, so that a link can lead there. */
  has(kind: 'p' | 'pg', id: string): boolean;
  /** Takes a note that was referred to; gives its number in the file, or what stands there instead where notes cannot be. */
  note(story: Story, node: Inline & { type: 'note' }): number | { instead: string; raised: boolean; standsFor?: string };
  /** How lines of a paragraph follow one another; what its style says where undefined. */
  pitch(paragraph: Paragraph): LinePitch | undefined;
  /** A relationship by which a press on an item leads somewhere, if it does. */
  linkOf(item: Item, page: string, part: Part): string | undefined;
  tables: 'exact' | 'free';
  /** Whether initials stand over several lines; they do so in the text itself only. */
  initials: boolean;
}
