import type { Composition, FrameBox } from '../../compose/marks.ts';
import { multiply, rectPath, translation, union } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import type { Item, TextFrame } from '../../folio/items.ts';
import { itemBounds, pageOfItem } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { isUnread } from '../../structure/readingOrder.ts';
import type { TextPiece, WordsPiece } from '../../structure/textPieces.ts';
import { blipFill } from '../ooxml/drawing/blip.ts';
import { geometryXml, rectangle } from '../ooxml/drawing/geometry.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { placementOf } from '../ooxml/drawing/placement.ts';
import type { Placement } from '../ooxml/drawing/placement.ts';
import { shapeOf } from '../ooxml/drawing/shapeLook.ts';
import type { ShapeLook } from '../ooxml/drawing/shapeLook.ts';
import { opacityOfWhole } from '../office/drawnLooks.ts';
import type { DrawnBox, DrawnLooks } from '../office/drawnLooks.ts';
import type { PictureParts } from '../office/pictureParts.ts';
import type { PlacedPictures } from '../office/placedPictures.ts';
import type { Xml } from '../assets/xml.ts';
import { spreadInLayout } from '../../folio/joinedSpreads.ts';
import type { PageItem, PaintedLeaf } from '../pages/paintedPage.ts';
import { bodyXml, groupXml, pictureXml, shapeXml, tableFrameXml } from './shapes.ts';
import type { BodyLook, Placeholder, ShapeFacts } from './shapes.ts';
import type { Filled } from './placeholders.ts';
import type { SlideContext } from './slideContext.ts';
import type { SlideMedia } from './slideMedia.ts';
import { tableParts, tableXml } from './slideTable.ts';
import { paragraphsXml } from './slideText.ts';

/** Where the page lies on its slide, in points. */
export interface Offset {
  dx: number;
  dy: number;
}

export interface ShapeSources {
  composition: Composition;
  pieces: ReadonlyMap<string, readonly TextPiece[]>;
  pictures: PlacedPictures;
  files: PictureParts;
  looks: DrawnLooks;
  media: SlideMedia;
  fit: BodyLook['fit'];
  /** Whether texts that fill places of the layout are left to those who write there. */
  emptyPlaces: boolean;
}

const ANCHORS = { top: 't', centre: 'ctr', bottom: 'b' } as const;
const CLEAR: ShapeLook = {
  geometry: rectangle(),
  fill: fillXml({ type: 'none' }, { swatches: {}, opacity: 1, box: { x: 0, y: 0, width: 1, height: 1 } }),
  line: lineXml(null, { swatches: {}, opacity: 1, box: { x: 0, y: 0, width: 1, height: 1 } }),
  effects: null,
};

/** Draws what stands on one slide, or on one layout, and gives every shape its number there (19.3.1.12). */
export class SlideShapes {
  private ids = 1;
  /** The shapes by which a slide speaks of an item, such as in its animations. */
  readonly shapes = new Map<string, number[]>();

  constructor(
    private readonly c: SlideContext,
    private readonly s: ShapeSources,
    private readonly place: PagePlace,
    private readonly offset: Offset,
    /** Which of its texts fill places of the layout. */
    private readonly filled: Filled = { title: null, body: null },
    /** What takes down the texts of its boxes, by their numbers. */
    private readonly takeDown?: (shape: number) => SlideContext['wrote'],
  ) {}

  /** Items from back to front, those of groups together. */
  draw(items: readonly PageItem[]): Xml[] {
    const parents = this.groups();
    const chainOf = (id: string): string[] => {
      const chain: string[] = [];
      for (let at = parents.get(id); at !== undefined && !chain.includes(at) && chain.length < 32; at = parents.get(at)) chain.unshift(at);
      return chain;
    };
    return this.drawIn(
      items.map((at) => ({ at, chain: chainOf(at.item.id) })),
      0,
    );
  }

  private drawIn(items: readonly { at: PageItem; chain: string[] }[], depth: number): Xml[] {
    const out: Xml[] = [];
    for (let i = 0; i < items.length;) {
      const group = items[i]!.chain[depth];
      if (group === undefined) {
        out.push(...this.one(items[i++]!.at));
        continue;
      }
      const from = i;
      while (i < items.length && items[i]!.chain[depth] === group) i++;
      const id = this.next(group);
      const members = this.drawIn(items.slice(from, i), depth + 1);
      const box = union(items.slice(from, i).map(({ at }) => this.onSlide(itemBounds(this.place.spread.items, at.item))));
      const item = this.place.spread.items[group]!;
      const facts = { ...this.factsOf(item), id, decorative: false };
      if (members.length > 1 || facts.press) out.push(groupXml(facts, box, members));
      else out.push(...members);
    }
    return out;
  }

  private groups(): Map<string, string> {
    const out = new Map<string, string>();
    for (const item of Object.values(this.place.spread.items))
      if (item.kind === 'group') for (const member of item.members) if (member !== item.id) out.set(member, item.id);
    return out;
  }

  private next(item: string): number {
    const id = ++this.ids;
    this.shapes.set(item, [...(this.shapes.get(item) ?? []), id]);
    return id;
  }

  private onSlide({ x, y, width, height }: Rect): Rect {
    const { box } = this.place.page;
    return { x: x - box.x + this.offset.dx, y: y - box.y + this.offset.dy, width, height };
  }

  private toSlide(transform: Matrix): Matrix {
    const { box } = this.place.page;
    return multiply(translation(this.offset.dx - box.x, this.offset.dy - box.y), transform);
  }

  /** The page of the layout on which an item stands. */
  private pageOf(item: Item): string {
    return pageOfItem(spreadInLayout(this.place), item).id;
  }

  private placed(at: Placement): Placement {
    return { ...at, x: at.x + this.offset.dx, y: at.y + this.offset.dy };
  }

  /** A box of an item on the slide; upright around all of it where it is slanted. */
  private boxOf(item: Item, box: Rect): Placement {
    const upright = { ...this.onSlide(itemBounds(this.place.spread.items, item)), rotation: 0, flipV: false };
    return placementOf(this.toSlide(item.transform), box) ?? upright;
  }

  private factsOf(item: Item): Omit<ShapeFacts, 'id'> {
    const decorative = isUnread(this.c.folio, item.id);
    // What is for the eye alone is told nothing of.
    const alt = item.kind === 'textFrame' || decorative ? '' : (item.alt ?? '');
    const pressed = linkCueOf(item);
    const press = pressed && this.c.press(pressed.destination, undefined, this.c.page, this.c.part);
    const name = (item.name ?? item.kind).slice(0, 200);
    return { name, alt, decorative, press };
  }

  /** An item with what is drawn under and over it, or drawn whole. */
  private one(at: PageItem): Xml[] {
    const { under, over, instead } = this.s.looks.of(at.item);
    const effect = { name: 'Effect', alt: '', decorative: true, press: null };
    const itself = instead
      ? [this.drawnBox(at.item, instead, this.factsOf(at.item), opacityOfWhole(at.item, at.opacity))]
      : this.itself(at);
    const drawn = (box: DrawnBox): Xml => this.drawnBox(at.item, box, effect, box.opacity ?? at.opacity);
    return [...under.map(drawn), ...itself, ...over.map(drawn)];
  }

  private drawnBox({ id: item }: Item, { image, box }: DrawnBox, facts: Omit<ShapeFacts, 'id'>, opacity: number): Xml {
    const fill = blipFill('p', { ...this.s.files.blip({ image, fallback: null }, this.c.part), opacity });
    return pictureXml({ ...facts, id: this.next(item) }, { ...this.onSlide(box), rotation: 0, flipV: false }, fill, rectangle());
  }

  private itself(at: PageItem): Xml[] {
    const { item } = at;
    switch (item.kind) {
      case 'veil':
      case 'tableFrame':
      case 'field':
        return item.kind === 'field' ? this.outline(at) : [];
      case 'picture':
      case 'media':
      case 'embed':
        return this.picture(at) ?? this.outline(at);
      case 'textFrame':
        return at.own ? this.frame(at, item) : this.outline(at);
      default:
        return this.outline(at);
    }
  }

  private outline(at: PageItem): Xml[] {
    const shape = shapeOf(at, this.place.page, this.c.folio.head.swatches);
    if (!shape) return [];
    return [shapeXml({ ...this.factsOf(at.item), id: this.next(at.item.id) }, this.placed(shape.at), shape.look, null)];
  }

  private picture(at: PageItem): Xml[] | null {
    const { item } = at;
    const picture = this.s.pictures.at(at, this.place);
    const plays = item.kind === 'media' ? this.s.media.of(item, this.c.part) : null;
    if (!picture && !plays) return null;
    const facts = { ...this.factsOf(item), id: this.next(item.id) };
    if (!picture) {
      const shape = shapeOf(at, this.place.page, this.c.folio.head.swatches);
      const own = { x: 0, y: 0, ...(item as Extract<PaintedLeaf, { size: unknown }>).size };
      const box = shape ? this.placed(shape.at) : this.boxOf(item, own);
      const around = shape ? Object.values(shape.look) : rectangle();
      return [pictureXml(facts, box, blipFill('p', this.s.media.empty(this.c.part)), around, plays)];
    }
    const fill = blipFill('p', { ...this.s.files.blip(picture, this.c.part), crop: picture.crop ?? undefined, opacity: picture.opacity });
    return [pictureXml(facts, this.placed(picture.at), fill, picture.around, plays)];
  }

  /** A frame of text: one thing where its text fills it, else its outline, what is drawn with its text, and its pieces. */
  private frame(at: PageItem, frame: TextFrame): Xml[] {
    const pieces = this.s.pieces.get(frame.id) ?? [];
    const shape = shapeOf(at, this.place.page, this.c.folio.head.swatches);
    const drawn = (this.s.composition.frames.get(frame.id)?.boxes ?? []).filter((b) => !this.isOfTable(b, pieces));
    const [only, ...more] = pieces;
    const isRound = frame.corner?.kind === 'round' && frame.corner.radius > 0;
    if (only?.kind === 'words' && !more.length && !drawn.length && !isRound && this.fills(only, frame))
      return [this.words(frame, only, shape?.look ?? CLEAR, { x: 0, y: 0, ...frame.size })];
    return [
      ...this.outline(at),
      ...drawn.map((box) => this.box(frame, box)),
      ...pieces.flatMap((piece) =>
        piece.kind === 'words' ? [this.words(frame, piece, CLEAR, piece.rect)] : tableParts(piece).map((part) => this.table(frame, part)),
      ),
    ];
  }

  /** Lines and grounds of cells are the table’s own. */
  private isOfTable(box: FrameBox, pieces: readonly TextPiece[]): boolean {
    return pieces.some((p) => p.kind === 'table' && box.subject !== undefined && p.table.cells[box.subject] !== undefined);
  }

  private fills({ rect }: WordsPiece, { size, inset: [top, right, bottom, left] }: TextFrame): boolean {
    const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;
    return (
      near(rect.x, left) &&
      near(rect.y, top) &&
      near(rect.x + rect.width, size.width - right) &&
      near(rect.y + rect.height, size.height - bottom)
    );
  }

  private words(frame: TextFrame, piece: WordsPiece, look: ShapeLook, box: Rect): Xml {
    const at = this.boxOf(frame, box);
    const { rect, align, columns, note } = piece;
    const inset = [
      rect.y - box.y,
      box.x + box.width - rect.x - rect.width,
      box.y + box.height - rect.y - rect.height,
      rect.x - box.x,
    ] as const;
    const facts = { ...this.factsOf(frame), id: this.next(frame.id) };
    const c = { ...this.c, page: this.pageOf(frame), wrote: this.takeDown?.(facts.id) };
    const place = this.placeholderOf(piece);
    const body = bodyXml(
      { inset, anchor: ANCHORS[align], columns, fit: this.s.fit },
      paragraphsXml(piece.story, place && this.s.emptyPlaces ? [] : piece.blocks, c, note?.number),
    );
    return shapeXml(facts, { ...at, flipV: false }, look, body, place);
  }

  private placeholderOf(piece: WordsPiece): Placeholder | null {
    if (piece === this.filled.title) return { type: 'title' };
    return piece === this.filled.body ? { type: 'body', idx: 1 } : null;
  }

  private table(frame: TextFrame, piece: Extract<TextPiece, { kind: 'table' }>): Xml {
    // Tables of the format lie upright.
    const box = this.boxOf(frame, piece.rect);
    const facts = { ...this.factsOf(frame), id: this.next(frame.id) };
    return tableFrameXml(
      facts,
      { ...box, rotation: 0, flipV: false },
      tableXml(piece, { ...this.c, page: this.pageOf(frame), wrote: this.takeDown?.(facts.id) }),
    );
  }

  /** A rule, a ground or a border of a paragraph: a shape below its words. */
  private box(frame: TextFrame, { box, fill, stroke }: FrameBox): Xml {
    const at = placementOf(this.toSlide(frame.transform), box) ?? { ...box, rotation: 0, flipV: false };
    const ground = { swatches: this.c.folio.head.swatches, opacity: 1, box };
    const line = stroke ? { ...PLAIN_LINE, ...stroke, dashes: stroke.dashes ?? [] } : null;
    const look: ShapeLook = {
      geometry: geometryXml(rectPath(box), box),
      fill: fillXml(fill ?? { type: 'none' }, ground),
      line: lineXml(line, ground),
      effects: null,
    };
    const facts = { name: 'Text ground', alt: '', decorative: true, press: null, id: this.next(frame.id) };
    return shapeXml(facts, at, look, null);
  }
}

const PLAIN_LINE = { cap: 'butt', join: 'miter', miterLimit: 10, startMarker: 'none', endMarker: 'none' } as const;
