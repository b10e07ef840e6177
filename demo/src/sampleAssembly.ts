import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { Folio, Item, IDENTITY, Opening, Structure, Table, Transition } from '@elastic-folio/core';
import type {
  CharacterOverrides,
  CharacterStyle,
  Colour,
  Edition,
  Inline,
  Matrix,
  MasterPage,
  MediaFile,
  ParagraphOverrides,
  ParagraphStyle,
  Path,
  Role,
  Spread,
  Page,
} from '@elastic-folio/core';
import type { z } from 'zod';
import { editionOf } from './editions/edition.ts';
import type { EditionTexts, MoreOfEdition } from './editions/edition.ts';

type ItemInput = z.input<typeof Item>;
type Common = Partial<Omit<Extract<ItemInput, { kind: 'shape' }>, 'kind' | 'path' | 'id'>>;

export interface Sample {
  folio: Folio;
  files: Map<string, { sha256: string; bytes: number }>;
  blobs: { stream(sha256: string): Readable };
}

/** A note with its text, which becomes a paragraph of style `note`. */
export interface NotePiece {
  note: Piece[];
}
/** Text pieces of a paragraph: a string is plain text. */
export type Piece = string | Inline | NotePiece;
export const note = (...text: Piece[]): NotePiece => ({ note: text });
/** The page on which a paragraph stands, and the number before it. */
export const pageOf = (id: string, target: string): Inline => ({ type: 'field', id, field: 'reference', target });
export const labelOf = (id: string, target: string): Inline => ({ type: 'field', id, field: 'label', target });
export const anchored = (item: string, place: 'inline' | 'above' | 'side'): Inline => ({
  type: 'anchor',
  id: `${item}-anchor`,
  item,
  place,
});
export const strong = (text: string): Inline => ({ type: 'span', text, style: 'strong' });
export const em = (text: string): Inline => ({ type: 'span', text, style: 'emphasis' });
export const soft: Inline = { type: 'softReturn' };
export const tab: Inline = { type: 'tab' };
export const styled = (text: string, overrides: CharacterOverrides): Inline => ({ type: 'span', text, overrides });

export interface ParagraphInput {
  /** Its id, where something refers to it. */
  id?: string;
  style: string;
  text: Piece | Piece[];
  overrides?: ParagraphOverrides;
  character?: CharacterOverrides;
}
export const para = (style: string, text: Piece | Piece[], more: Omit<ParagraphInput, 'style' | 'text'> = {}): ParagraphInput => ({
  style,
  text,
  ...more,
});

/** A table: rows of cells, each with its paragraphs; the first rows are its head. */
interface TableInput {
  table: {
    id: string;
    style: string;
    columns: z.input<typeof Table>['columns'];
    rows: { cells: (Piece | Piece[])[]; height?: number }[];
    headerRows?: number;
    paragraphStyles: { header: string; body: string; first?: string };
  };
}
export type BlockInput = ParagraphInput | TableInput;

/** Assembles a sample document step by step; `finish` checks it against the document's schema. */
export class SampleAssembly {
  private readonly folio: z.input<typeof Folio>;
  private readonly bytes = new Map<string, Uint8Array>();
  private readonly files: Sample['files'] = new Map();
  private readonly editions: ((folio: Folio) => Edition)[] = [];
  private counter = 0;

  constructor(id: string, title: string, extra: Partial<Folio['head']['metadata']> = {}) {
    this.folio = {
      head: {
        formatVersion: 1,
        id,
        metadata: { title, language: 'en', creators: ['Marrowby Hill Observatory'], publisher: 'Marrowby Hill Observatory', ...extra },
        layers: {
          art: { id: 'art', name: 'Pictures' },
          text: { id: 'text', name: 'Text' },
          notes: { id: 'notes', name: 'Printer’s notes', visible: false, printing: false },
        },
        layerOrder: ['art', 'text', 'notes'],
        swatches: {},
        paragraphStyles: {},
        characterStyles: {},
        media: {},
        masterPages: {},
        spreadOrder: [] as unknown as [string],
        storyOrder: [],
        structure: Structure.parse({}),
      },
      spreads: {},
      stories: {},
      editions: {},
      recipes: {},
    };
    this.characterStyle({ id: 'strong', name: 'Strong', character: { fontWeight: 700 }, role: role('strong') });
    this.characterStyle({ id: 'emphasis', name: 'Emphasis', character: { fontStyle: 'italic' }, role: role('em') });
  }

  id(prefix: string): string {
    return `${prefix}-${++this.counter}`;
  }

  get head(): Folio['head'] {
    return this.folio.head as Folio['head'];
  }

  swatch(id: string, name: string, colour: Colour): void {
    this.head.swatches[id] = { id, name, colour };
  }

  style(style: Omit<ParagraphStyle, 'paragraph' | 'character'> & { paragraph?: ParagraphOverrides; character?: CharacterOverrides }): void {
    this.head.paragraphStyles[style.id] = { paragraph: {}, character: {}, ...style };
  }

  characterStyle(style: CharacterStyle): void {
    this.head.characterStyles[style.id] = style;
  }

  /** Draws an SVG to pixels and keeps it as a media file. */
  async art(id: string, name: string, drawing: string, as: 'jpeg' | 'png' = 'jpeg'): Promise<string> {
    // Its place among the pictures is taken at once: drawings are finished in any order.
    this.head.media[id] = {} as MediaFile;
    const image = sharp(Buffer.from(drawing));
    const out = await (
      as === 'jpeg' ? image.flatten({ background: '#fff' }).jpeg({ quality: 88 }) : image.png({ compressionLevel: 9 })
    ).toBuffer({ resolveWithObject: true });
    const sha256 = createHash('sha256').update(out.data).digest('hex');
    const file = `media/${id}.${as === 'jpeg' ? 'jpg' : 'png'}`;
    const media: MediaFile = {
      id,
      name,
      file,
      mediaType: `image/${as}`,
      sha256,
      bytes: out.data.length,
      width: out.info.width,
      height: out.info.height,
    };
    this.head.media[id] = media;
    this.bytes.set(sha256, out.data);
    this.files.set(file, { sha256, bytes: out.data.length });
    return id;
  }

  /** A file that is no picture: a film, a sound. */
  file(id: string, name: string, mediaType: string, bytes: Uint8Array, seconds?: number): void {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const file = `media/${name}`;
    this.head.media[id] = { id, name, file, mediaType, sha256, bytes: bytes.length, ...(seconds !== undefined && { seconds }) };
    this.bytes.set(sha256, Buffer.from(bytes));
    this.files.set(file, { sha256, bytes: bytes.length });
  }

  /** A master page; its texts name it instead of a spread. */
  master(id: string, name: string): SpreadBuilder {
    const master: MasterPage = { id, name, items: {}, order: [] };
    this.head.masterPages[id] = master;
    return new SpreadBuilder(this, master);
  }

  /** A spread of pages that lie side by side. */
  spread(
    id: string,
    pages: {
      id: string;
      width: number;
      height: number;
      background?: z.input<typeof Page>['background'];
      master?: string;
      number?: string;
    }[],
  ): SpreadBuilder {
    let x = 0;
    const placed = pages.map((p) => {
      const box = { x, y: 0, width: p.width, height: p.height };
      x += p.width;
      return {
        id: p.id,
        box,
        ...(p.background && { background: p.background }),
        ...(p.master && { master: p.master }),
        ...(p.number && { number: p.number }),
      };
    });
    this.folio.spreads[id] = { id, pages: placed, items: {}, order: [] };
    this.head.spreadOrder.push(id);
    return new SpreadBuilder(this, this.folio.spreads[id] as Spread);
  }

  /** Goes on with a spread that was begun before. */
  on(id: string): SpreadBuilder {
    return new SpreadBuilder(this, this.folio.spreads[id] as Spread);
  }

  /** A text and the frames it flows through; `items` are anchored in it. */
  story(
    id: string,
    frames: { spread: string; item: string }[],
    blocks: readonly BlockInput[],
    links: Folio['stories'][string]['links'] = {},
    items: readonly ItemInput[] = [],
  ): void {
    const builder = new StoryBuilder(id);
    const order = blocks.map((b) => ('table' in b ? builder.table(b.table) : builder.paragraph(b)));
    const held = Object.fromEntries(items.map((i) => [i.id, Item.parse(i)]));
    this.folio.stories[id] = { id, blocks: builder.blocks, order, frames, links, items: held };
    this.head.storyOrder.push(id);
  }

  strand(id: string, name: string, entries: { spread: string; item: string }[]): void {
    this.head.structure.strands.push({ id, name, entries });
  }

  /** An edition in another language, from its paragraphs; more is said of it where it has more. */
  edition(language: string, name: string, texts: EditionTexts, more: MoreOfEdition = {}): void {
    this.editions.push((folio) => editionOf(folio, language, name, [texts], more));
  }

  decoration(...items: string[]): void {
    this.head.structure.decorations.push(...items);
  }

  /** How pages come into sight, one style after another through the document. */
  transitions(styles: readonly z.input<typeof Transition>[]): void {
    let n = 0;
    for (const id of this.head.spreadOrder)
      for (const page of this.folio.spreads[id]!.pages) page.transition = Transition.parse(styles[n++ % styles.length]);
  }

  /** Pages go on by themselves, and begin again after the last. */
  advances(seconds: number): void {
    for (const spread of Object.values(this.folio.spreads)) for (const page of spread.pages) page.advanceAfter = seconds;
    this.head.opening = Opening.parse({ loop: true });
  }

  finish(): Sample {
    const plain = Folio.parse(this.folio);
    const editions = Object.fromEntries(this.editions.map((make) => make(plain)).map((e) => [e.language, e]));
    const folio: Folio = { ...plain, editions };
    const { bytes } = this;
    return { folio, files: this.files, blobs: { stream: (sha) => Readable.from([bytes.get(sha)!]) } };
  }
}

/** Makes the blocks of one text. */
class StoryBuilder {
  readonly blocks: Folio['stories'][string]['blocks'] = {};
  private paragraphs = 0;
  private notes = 0;

  constructor(private readonly story: string) {}

  paragraph({ id = `${this.story}-${this.paragraphs + 1}`, style, text, overrides, character }: ParagraphInput): string {
    this.paragraphs++;
    const pieces = Array.isArray(text) ? text : [text];
    const content = pieces.map((piece) => this.inline(piece));
    this.blocks[id] = { kind: 'paragraph', id, style, content, ...(overrides && { overrides }), ...(character && { character }) };
    return id;
  }

  private inline(piece: Piece): Inline {
    if (typeof piece === 'string') return { type: 'span', text: piece };
    if (!('note' in piece)) return piece;
    const id = `${this.story}-note-${++this.notes}`;
    const paragraph = `${id}-text`;
    this.blocks[paragraph] = { kind: 'paragraph', id: paragraph, style: 'footnote', content: piece.note.map((p) => this.inline(p)) };
    return { type: 'note', id, kind: 'footnote', order: [paragraph] };
  }

  table({ id, style, columns, rows, headerRows = 1, paragraphStyles }: TableInput['table']): string {
    const cells: z.input<typeof Table>['cells'] = {};
    rows.forEach(({ cells: row }, r) =>
      row.forEach((text, c) => {
        const cell = `${id}-${r + 1}-${c + 1}`;
        const { header, body, first = body } = paragraphStyles;
        const order = [this.paragraph({ id: `${cell}-text`, style: r < headerRows ? header : c === 0 ? first : body, text })];
        cells[cell] = { id: cell, row: r, column: c, order, header: r < headerRows, verticalAlign: r < headerRows ? 'bottom' : 'top' };
      }),
    );
    const heights = rows.map(({ height = 0 }) => ({ height }));
    this.blocks[id] = Table.parse({ kind: 'table', id, style, columns, rows: heights, headerRows, cells });
    return id;
  }
}

/** Puts items on one spread; each call adds on top of what is there. */
export class SpreadBuilder {
  constructor(
    private readonly builder: SampleAssembly,
    private readonly spread: Pick<Spread, 'id' | 'items' | 'order'>,
  ) {}

  add(item: ItemInput): { spread: string; item: string } {
    this.spread.items[item.id] = Item.parse(item);
    this.spread.order.push(item.id);
    return { spread: this.spread.id, item: item.id };
  }

  text(
    id: string,
    box: [x: number, y: number, width: number, height: number],
    more: Partial<Extract<ItemInput, { kind: 'textFrame' }>> = {},
  ): { spread: string; item: string } {
    return this.add({
      kind: 'textFrame',
      id,
      layer: 'text',
      transform: [1, 0, 0, 1, box[0], box[1]],
      size: { width: box[2], height: box[3] },
      ...more,
    });
  }

  /** A picture that fills its box, cropped evenly where the proportions differ. */
  picture(
    id: string,
    media: string,
    box: [x: number, y: number, width: number, height: number],
    more: Partial<Extract<ItemInput, { kind: 'picture' }>> = {},
  ): { spread: string; item: string } {
    const [x, y, width, height] = box;
    const file = this.builder.head.media[media]!;
    const scale = Math.max(width / file.width!, height / file.height!);
    const [w, h] = [file.width! * scale, file.height! * scale];
    const placement: Matrix = [w, 0, 0, h, (width - w) / 2, (height - h) / 2];
    return this.add({
      kind: 'picture',
      id,
      layer: 'art',
      media,
      transform: [1, 0, 0, 1, x, y],
      size: { width, height },
      placement,
      ...more,
    });
  }

  shape(id: string, path: Path, more: Common = {}): { spread: string; item: string } {
    return this.add({ kind: 'shape', id, layer: 'art', transform: IDENTITY, path, ...more });
  }
}

export const role = (element: Role['element'], more: Partial<Role> = {}): Role => ({
  element,
  startsSection: false,
  leaveOut: false,
  ...more,
});
export const ink = (swatch: string, tint = 1) => ({ type: 'swatch' as const, swatch, tint });
export const rgb = (hexColour: string): Colour => {
  const n = Number.parseInt(hexColour.slice(1), 16);
  return { space: 'rgb', r: ((n >> 16) & 255) / 255, g: ((n >> 8) & 255) / 255, b: (n & 255) / 255 };
};
