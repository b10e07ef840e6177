import { masterChain } from '../../folio/masters.ts';
import type { Folio } from '../../folio/folio.ts';
import { overlap, translation } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import type { Item, Media } from '../../folio/items.ts';
import type { Destination } from '../../folio/motion.ts';
import type { SolidPaint } from '../../folio/colour.ts';
import type { CharacterProperties } from '../../folio/styles.ts';
import type { Block, Inline, Paragraph, Story } from '../../folio/story.ts';
import { itemBounds, pageOfItem, pagesOf, storyOfFrame } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { Xml } from './element.ts';
import type { Graft } from './graft.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import type { TextPiece } from '../../structure/textPieces.ts';

/** A file that is shown as a picture; `natural`: its own size, 96 pixels to the inch where it says nothing, in points. */
export interface OdfPicture {
  href: string;
  natural: { width: number; height: number };
  /** What of it is cut away on each side, as shares of its size; null where it is drawn as the page shows it. */
  crop: { left: number; top: number; right: number; bottom: number } | null;
  /** Where such a drawing stands, on its page. */
  drawnAt?: { x: number; y: number; width: number; height: number };
}

/** Drawings that belong to an item. */
export interface OdfDrawn {
  /** The effects that the format is told. */
  told: Item['effects'];
  under: readonly OdfDrawing[];
  over: readonly OdfDrawing[];
  instead: OdfDrawing | null;
}
/** One of them, and where it lies on the spread. */
export interface OdfDrawing {
  href: string;
  box: Rect;
  /** Its own, where it is another than that of the item. */
  opacity?: number;
}

/** A box of a text, in the space of its frame. */
export interface OdfBox {
  name: string;
  /** The box in which its text goes on. */
  next: string | undefined;
  rect: Rect;
  /** All of the text, where it begins here. */
  content: BoxContent | null;
}

/** The text of boxes, with the notes that stand after it. */
export interface BoxContent {
  story: Story;
  blocks: readonly Block[];
  notes: readonly { number: string; blocks: readonly Block[] }[];
}

/** What stands on a master page: the same `key` for pages that can have it together. */
interface OdfMaster {
  key: string;
  name: string | undefined;
  /** Whether anything of it is seen on the page. */
  shows: boolean;
  items: Record<string, Item>;
  order: readonly Item[];
  origin: Matrix;
}

/** What drawings and presentations are made from, beside the document itself: their pages as well. */
export interface OdfSources extends ShapeSources {
  pages: readonly PagePlace[];
  title: string;
  language: string;
  transitions: boolean;
  notes: boolean;
  master(place: PagePlace): OdfMaster;
  /** What a page shows of its own, from back to front; groups as wholes. */
  own(place: PagePlace): readonly Item[];
  /** Pages that are written as they stand in another document, with what they stand on there. */
  original?: OriginalSources | null;
}

/** What things and texts are written from, whatever pages they stand on. */
export interface ShapeSources {
  shown(item: Item): boolean;
  /** Whether an item is seen and not read. */
  unread(item: Item): boolean;
  picture(item: Item): OdfPicture | null;
  /** What is drawn of an item’s look, where the format has no words for it: under it, over it, or instead of it. */
  drawn?(item: Item): OdfDrawn;
  /** The film or sound that an item plays. */
  played(item: Media): { href: string; mediaType: string } | null;
  /** Texts by what each frame holds, where the format knows no frames that follow one another; null where it does. */
  pieces: ReadonlyMap<string, readonly TextPiece[]> | null;
  /** The boxes that texts run through on pages of a text document, by their frames: there everything is anchored in its place. */
  boxes?: ReadonlyMap<string, readonly OdfBox[]>;
  /** How much wider than a space the room is, in points, that a picture needs in a line of a text that cannot hold it. */
  gap?(width: number, look: CharacterProperties): number;
  /** Families that others take the place of, by their names in small letters. */
  instead?: ReadonlyMap<string, string>;
  /** Whether rows of tables are as high as they are, and do not grow. */
  exactRows?: boolean;
  /** The one distance between lines that a paragraph gets, in points. */
  pitch?(paragraph: Paragraph): number;
  /** Takes down what is written where, so that it is found again. */
  takes?: TakesTexts;
  /** The page of the layout on which an item stands, where what is shown as one page is several. */
  pageOf?(item: Item, page: string): string;
  /** What a field shows on a page, and whether programs can go on working it out; null where nothing is known of it. */
  field(node: Inline & { type: 'field' }, page: string): { shows: string; live: boolean } | null;
  /** Where a press or a link leads: an address, or a page of the result. */
  target(destination: Destination, page: string): { href: string; newWindow: boolean } | { page: string } | null;
  /** What running text has beside that; nothing of it where texts stand in boxes. */
  running?: RunningSources;
}

/** Pages of another document of the format, made fit to stand in this one. */
interface OriginalSources {
  has(page: string): boolean;
  /** What pages are called there. */
  nameOf(page: string): string | undefined;
  page(page: string, name: string): Xml;
  graft: Pick<Graft, 'fonts' | 'named' | 'singleOf' | 'masters' | 'declarations' | 'layers'>;
}

/** Takes down the paragraphs of boxes, as they are written. */
export interface TakesTexts {
  /** A slide begins, by its name. */
  slide(name: string): void;
  /** A box of it begins, or its speaker’s notes, with these blocks or parts of such; gives the name by which it is found again. */
  box(name: string, blocks: readonly BoxBlock[]): string;
  paragraph(paragraph: Paragraph, inside: Xml): void;
}

/** What a document of running text has that boxes of text have not. */
interface RunningSources {
  /** The id of a paragraph in the file; its own where nothing is said. */
  idOf?(paragraph: Paragraph): string;
  /** The level of a paragraph that is a heading. */
  heading(paragraph: Paragraph): number | null;
  /** What stands at places of a paragraph beside its own content. */
  insertions(paragraph: Paragraph): readonly { offset: number; xml: Xml }[];
  /** What an item in a line looks like. */
  inLine(item: Item): Xml | null;
  /** How wide texts are set here, in points. */
  measure(): number;
  /** Whether a paragraph is a place for others’ words. */
  isPrompt(paragraph: Paragraph): boolean;
  /** Whether ink would not be seen on paper. */
  isUnseen(ink: SolidPaint): boolean;
  /** The name of the place where a paragraph begins. */
  place(paragraph: string): string | null;
}

const fileName = (file: string): string => file.replace(/^.*\//, '');

/** All of a document as it is: its own media files, texts that run from frame to frame. */
export function wholeDocument(folio: Folio): OdfSources {
  const { head } = folio;
  const storyOf = storyOfFrame(folio);
  return {
    pages: pagesOf(folio),
    title: head.metadata.title,
    language: head.metadata.language,
    transitions: true,
    notes: true,
    master: ({ page }) => {
      const chain = page.showMaster ? masterChain(folio, page.master) : [];
      return {
        key: page.showMaster ? (page.master ?? '') : '',
        name: chain.at(-1)?.name,
        shows: page.showMaster,
        items: Object.assign({}, ...chain.map((m) => m.items)) as Record<string, Item>,
        order: chain.flatMap((m) => m.order.flatMap((id) => m.items[id] ?? [])),
        origin: translation(0, 0),
      };
    },
    own: ({ spread: { id }, page }) => {
      const spread = folio.spreads[id]!;
      // What lies over both pages of a spread is written on both, but a text only once.
      const here = (item: Item): boolean => {
        if (pageOfItem(spread, item).id === page.id) return true;
        const loose = (item.kind === 'picture' || item.kind === 'shape') && !storyOf.has(item.id);
        return loose && overlap(itemBounds(spread.items, item), page.box) > 4;
      };
      return spread.order.flatMap((item) => (spread.items[item] && here(spread.items[item]) ? [spread.items[item]] : []));
    },
    shown: () => true,
    unread: () => false,
    picture: (item) => {
      const media = item.kind === 'picture' && item.media !== null ? head.media[item.media] : undefined;
      if (item.kind !== 'picture' || !media) return null;
      const { width, height } = item.size;
      let [a, , , d, e, f] = item.placement;
      // Of a picture that is turned over, what is cut away on the left is on its right.
      if (a < 0) [a, e] = [-a, width - e];
      if (d < 0) [d, f] = [-d, height - f];
      return {
        href: `Pictures/${fileName(media.file)}`,
        natural: { width: ((media.width ?? 1) * 72) / 96, height: ((media.height ?? 1) * 72) / 96 },
        crop: { left: -e / (a || 1), top: -f / (d || 1), right: 1 - (width - e) / (a || 1), bottom: 1 - (height - f) / (d || 1) },
      };
    },
    played: ({ media: id }) => {
      const media = id === null ? undefined : head.media[id];
      return media ? { href: `Media/${fileName(media.file)}`, mediaType: media.mediaType } : null;
    },
    pieces: null,
    field: () => null,
    target: (to) => {
      if (to.to === 'address') return { href: to.href, newWindow: to.window === 'new' };
      return to.to === 'page' ? { page: to.page } : null;
    },
  };
}
