import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { Folio, Item, IDENTITY } from '@elastic-folio/core';
import type {
  CharacterOverrides,
  CharacterStyle,
  Colour,
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

type ItemInput = z.input<typeof Item>;
type Common = Partial<Omit<Extract<ItemInput, { kind: 'shape' }>, 'kind' | 'path' | 'id'>>;

export interface Sample {
  folio: Folio;
  files: Map<string, { sha256: string; bytes: number }>;
  blobs: { stream(sha256: string): Readable };
}

/** Text pieces of a paragraph: a string is plain text. */
export type Piece = string | Inline;
export const strong = (text: string): Inline => ({ type: 'span', text, style: 'strong' });
export const em = (text: string): Inline => ({ type: 'span', text, style: 'emphasis' });
export const soft: Inline = { type: 'softReturn' };
export const tab: Inline = { type: 'tab' };
export const styled = (text: string, overrides: CharacterOverrides): Inline => ({ type: 'span', text, overrides });

export interface ParagraphInput {
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

/** Assembles a sample document step by step; `finish` checks it against the document's schema. */
export class SampleAssembly {
  private readonly folio: z.input<typeof Folio>;
  private readonly bytes = new Map<string, Uint8Array>();
  private readonly files: Sample['files'] = new Map();
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
        structure: { strands: [], pins: {}, decorations: [], leftOut: [], sectionStarts: [] },
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

  /** A master page; its texts name it instead of a spread. */
  master(id: string, name: string): SpreadBuilder {
    const master: MasterPage = { id, name, items: {}, order: [] };
    this.head.masterPages[id] = master;
    return new SpreadBuilder(this, master);
  }

  /** A spread of pages that lie side by side. */
  spread(
    id: string,
    pages: { id: string; width: number; height: number; background?: z.input<typeof Page>['background']; master?: string }[],
  ): SpreadBuilder {
    let x = 0;
    const placed = pages.map((p) => {
      const box = { x, y: 0, width: p.width, height: p.height };
      x += p.width;
      return { id: p.id, box, ...(p.background && { background: p.background }), ...(p.master && { master: p.master }) };
    });
    this.folio.spreads[id] = { id, pages: placed, items: {}, order: [] };
    this.head.spreadOrder.push(id);
    return new SpreadBuilder(this, this.folio.spreads[id] as Spread);
  }

  /** A text and the frames it flows through. */
  story(
    id: string,
    frames: { spread: string; item: string }[],
    paragraphs: ParagraphInput[],
    links: Folio['stories'][string]['links'] = {},
  ): void {
    const blocks: Folio['stories'][string]['blocks'] = {};
    const order = paragraphs.map((p, i) => {
      const key = `${id}-${i + 1}`;
      const content = (Array.isArray(p.text) ? p.text : [p.text]).map((piece): Inline =>
        typeof piece === 'string' ? { type: 'span', text: piece } : piece,
      );
      blocks[key] = {
        kind: 'paragraph',
        id: key,
        style: p.style,
        content,
        ...(p.overrides && { overrides: p.overrides }),
        ...(p.character && { character: p.character }),
      };
      return key;
    });
    this.folio.stories[id] = { id, blocks, order, frames, links };
    this.head.storyOrder.push(id);
  }

  strand(id: string, name: string, entries: { spread: string; item: string }[]): void {
    this.head.structure.strands.push({ id, name, entries });
  }

  decoration(...items: string[]): void {
    this.head.structure.decorations.push(...items);
  }

  finish(): Sample {
    const folio = Folio.parse(this.folio);
    const { bytes } = this;
    return { folio, files: this.files, blobs: { stream: (sha) => Readable.from([bytes.get(sha)!]) } };
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
