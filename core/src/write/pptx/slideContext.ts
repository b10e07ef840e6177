import type { FieldSources } from '../../compose/fieldText.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Destination } from '../../folio/motion.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import type { Leading } from '../office/leading.ts';
import type { Part } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';

/** What writing the text of a slide needs to know. */
export interface SlideContext {
  folio: Folio;
  fonts: FontSet;
  /** Families that the recipe puts in the place of others, by their names in small letters. */
  replacements: ReadonlyMap<string, string>;
  /** The part that is being written: its links are its own. */
  part: Part;
  /** The page of the layout that it shows. */
  page: string;
  fields: Omit<FieldSources, 'page'>;
  /** Whether the number of the page is that of its slide, so that programs can count it. */
  countsPages: boolean;
  leading(paragraph: Paragraph): Leading;
  /** Takes down a paragraph of the box that is being written, with all that is said in it. */
  wrote?: ((block: BoxBlock, said: string) => void) | undefined;
  /** Where a press leads, as an element of that name; null where it leads nowhere. */
  press(destination: Destination, title: string | undefined, page: string, part: Part): Xml | null;
}
