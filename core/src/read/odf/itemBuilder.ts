import type { z } from 'zod';
import type { Item } from '../../folio/items.ts';
import { IDENTITY, multiply, rectPath, translation } from '../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import type { DrawnGeometry } from './geometry/enhancedGeometry.ts';
import { cuesOf } from './interactions.ts';
import { lengthOf } from './lengths.ts';
import { fillOf, listTransparentLine, shadowOf, strokeOf, strokeOpacityOf } from './looks.ts';
import { hatchSvg, tiledSvg } from './patterns.ts';
import type { TakenPicture } from './pictures.ts';
import type { FillLook } from './looks.ts';
import type { Pictures } from './pictures.ts';
import type { Family, Scope } from './styleSheet.ts';
import { textLook } from './textLook.ts';
import { TextReader } from './textReader.ts';
import type { Content, TextContext, TextStyle } from './textReader.ts';
import { readTransform } from './transform.ts';
import { childOf, childrenOf, textOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

export type ItemInput = z.input<typeof Item>;
type Attributes = Record<string, string>;

/** What reading drawing objects needs beside what reading texts needs. */
export interface ShapeContext extends TextContext {
  pictures: Pictures;
  /** The layer for a name of the original's. */
  layer(name: string | undefined): string;
  /** Form controls by their ids. */
  controls: ReadonlyMap<string, XmlElement>;
  /** Takes a text that was read, and the frame that shows it. */
  story(content: Content, frame: TextPlace): void;
  decoration(item: string): void;
  /** Takes note of the items that stand for an element. */
  stands(element: XmlElement, items: readonly string[]): void;
  /** Whether another frame's text goes on in the frame of this name. */
  isChained(name: string | undefined): boolean;
}

/** A frame with text: its name and the name of the frame that goes on with it. */
export interface TextPlace {
  item: string;
  name: string | undefined;
  next: string | undefined;
}

/** Members of groups, text over shapes: items that were made for one element, back to front. */
export interface Made {
  items: ItemInput[];
  /** The one that stands for the element. */
  top: string[];
}
export const NOTHING: Made = { items: [], top: [] };

/** Where an element stands: its size, and the matrix from its own space (origin at its top left) to the page. */
export interface Place {
  width: number;
  height: number;
  transform: Matrix;
}

/** Makes items with what their elements say of place, look and text: the same for every kind of object. */
export class ItemBuilder {
  constructor(
    private readonly context: ShapeContext,
    private readonly scope: Scope,
  ) {}

  graphic(element: XmlElement): Attributes {
    return this.context.sheet.resolve(...this.styleOf(element))['graphic'] ?? {};
  }

  styleOf(element: XmlElement): [Family, string | undefined, Scope] {
    const a = element.attributes;
    return a['presentation:style-name'] === undefined
      ? ['graphic', a['draw:style-name'], this.scope]
      : ['presentation', a['presentation:style-name'], this.scope];
  }

  placeOf(element: XmlElement): Place {
    const a = element.attributes;
    const width = Math.max(0, lengthOf(a['svg:width']) ?? 0);
    const height = Math.max(0, lengthOf(a['svg:height']) ?? 0);
    const at = translation(lengthOf(a['svg:x']) ?? 0, lengthOf(a['svg:y']) ?? 0);
    const own = a['draw:transform'] === undefined ? IDENTITY : readTransform(a['draw:transform']);
    if (!own) this.context.notTaken.add('changed', 'Turned object', 'how it is turned cannot be read');
    return { width, height, transform: multiply(own ?? IDENTITY, at) };
  }

  /** What every item has. */
  common(element: XmlElement, prefix: string, link: XmlElement | null, graphic: Attributes) {
    const { names, layer, notTaken } = this.context;
    const a = element.attributes;
    const id = names.free(prefix, a['xml:id'] ?? a['draw:id']);
    this.context.origin(id, element);
    const said = (name: string): string => {
      const found = childOf(element, name);
      return found ? textOf(found).trim() : '';
    };
    const [title, description] = [said('svg:title'), said('svg:desc')];
    const alt = title && description ? `${title}. ${description}` : title || description;
    for (const name in a) if (a[name] === 'true' && name.endsWith(':decorative')) this.context.decoration(id);
    const cues = cuesOf(element, link, names, (href, window) => this.context.destination(href, window), notTaken);
    return {
      id,
      layer: layer(a['draw:layer']),
      ...(a['draw:name'] && { name: a['draw:name'] }),
      ...(alt && { alt }),
      effects: shadowOf(graphic),
      cues,
      ...(graphic['style:protect']?.includes('position') && { locked: true }),
    };
  }

  /** A frame with text, its fill and its stroke. */
  async textFrame(
    element: XmlElement,
    text: XmlElement,
    size: { width: number; height: number },
    transform: Matrix,
    graphic: Attributes,
    link: XmlElement | null,
    corner?: number,
    next?: string,
  ): Promise<Made> {
    const { sheet, notTaken } = this.context;
    const fill = fillOf(graphic, sheet.definitions, { x: 0, y: 0, ...size }, notTaken);
    const behind = fill.image
      ? await this.fillPicture(fill, graphic, rectPath({ x: 0, y: 0, ...size }), size, transform, element.attributes['draw:layer'])
      : null;
    // The text of the frame would show through as well.
    listTransparentLine(graphic, notTaken);
    const stroke = strokeOf(graphic, sheet.definitions);
    const item: ItemInput = {
      ...this.common(element, 'text', link, graphic),
      kind: 'textFrame',
      ...withOpacity(fill),
      stroke,
      ...(corner && { corner: { kind: 'round' as const, radius: corner } }),
      ...textLook(
        this.context,
        element,
        this.textStyle(element),
        graphic,
        { size, transform },
        {
          seen: fill.paint.type !== 'none' || stroke !== null || behind !== null,
          chained: next !== undefined || this.context.isChained(element.attributes['draw:name']),
        },
      ),
    };
    this.readText(element, text, item.id, next);
    return behind ? { items: [behind, item], top: [behind.id, item.id] } : { items: [item], top: [item.id] };
  }

  textStyle(element: XmlElement): TextStyle {
    const [family, name, scope] = this.styleOf(element);
    return { family, name, paragraph: element.attributes['draw:text-style-name'], scope };
  }

  readText(element: XmlElement, text: XmlElement, item: string, next?: string): void {
    const reader = new TextReader(this.context, this.textStyle(element));
    for (const one of reader.read(text)) reader.content.order.push(one);
    this.context.story(reader.content, { item, name: element.attributes['draw:name'], next });
  }

  /** Parts of a shape as items: one for each stretch of path with a fill and stroke of its own. */
  async filled(
    element: XmlElement,
    parts: DrawnGeometry['parts'],
    size: { width: number; height: number },
    transform: Matrix,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<ItemInput[]> {
    const { sheet, notTaken, names } = this.context;
    const fill = fillOf(graphic, sheet.definitions, { x: 0, y: 0, ...size }, notTaken);
    const stroke = strokeOf(graphic, sheet.definitions);
    const common = this.common(element, 'shape', link, graphic);
    const out: ItemInput[] = [];
    const picture =
      fill.image && parts[0]
        ? await this.fillPicture(fill, graphic, parts[0].path, size, transform, element.attributes['draw:layer'])
        : null;
    if (picture) out.push(picture);
    const seen = lineOnly(fill, graphic);
    if (seen === null) listTransparentLine(graphic, notTaken);
    parts.forEach((part, i) => {
      const id = i ? names.free(common.id) : common.id;
      out.push({
        ...common,
        ...(i && { effects: {}, cues: {} }),
        id,
        kind: 'shape',
        path: part.path,
        fillRule: 'evenodd',
        transform,
        ...(part.filled ? withOpacity(fill) : {}),
        ...(seen !== null && seen < 1 && { opacity: seen }),
        stroke: part.stroked ? stroke : null,
      });
    });
    return out;
  }

  /** A fill that is a picture: the picture itself, cut out along the shape. */
  async fillPicture(
    fill: FillLook,
    graphic: Attributes,
    clip: Path,
    { width, height }: { width: number; height: number },
    transform: Matrix,
    layer: string | undefined,
  ): Promise<ItemInput | null> {
    const taken = await this.pictureOf(fill.image!, graphic, { width, height });
    if (!taken) return null;
    return {
      id: this.context.names.free('fill'),
      kind: 'picture',
      layer: this.context.layer(layer),
      size: { width, height },
      transform,
      media: taken.media,
      placement: [width, 0, 0, height, 0, 0],
      clip,
      opacity: fill.opacity,
    };
  }

  private async pictureOf(
    image: NonNullable<FillLook['image']>,
    graphic: Attributes,
    size: { width: number; height: number },
  ): Promise<TakenPicture | null> {
    const { pictures, sheet } = this.context;
    if (image.kind === 'hatch') return pictures.draw(hatchSvg(image.hatch, image.ink, image.back, size), 'hatch');
    const element = sheet.definitions.fillImages.get(image.name);
    const taken = element ? await pictures.take(element, size.width, size.height) : null;
    if (!taken || !image.repeats) return taken;
    return pictures.draw(tiledSvg(await pictures.dataOf(taken.media), taken.natural, graphic, size), 'tiles');
  }

  /** Shapes with the text that stands in them, joined where they are more than one; a picture's text is its image's. */
  withText(
    element: XmlElement,
    items: ItemInput[],
    area: Rect,
    transform: Matrix,
    graphic: Attributes,
    holder: XmlElement = element,
  ): Made {
    const top = items.map((i) => i.id);
    if (!hasText(holder) || area.width <= 0 || area.height <= 0) return this.joined(items, top, element);
    const id = this.context.names.free('text');
    const frame: ItemInput = {
      id,
      kind: 'textFrame',
      layer: this.context.layer(element.attributes['draw:layer']),
      ...textLook(
        this.context,
        element,
        this.textStyle(element),
        graphic,
        { size: { width: area.width, height: area.height }, transform: multiply(transform, translation(area.x, area.y)) },
        { seen: false, chained: false },
      ),
    };
    this.readText(element, holder, id);
    return this.joined([...items, frame], [...top, id], element);
  }

  joined(items: ItemInput[], top: string[], element: XmlElement): Made {
    if (top.length < 2) return { items, top };
    const name = element.attributes['draw:name'];
    const group: ItemInput = {
      id: this.context.names.free('group'),
      kind: 'group',
      layer: items[0]!.layer,
      transform: IDENTITY,
      members: top,
      ...(name && { name }),
    };
    return { items: [...items, group], top: [group.id] };
  }
}

export const hasText = (element: XmlElement): boolean =>
  childrenOf(element).some((c) => (c.name === 'text:p' || c.name === 'text:h' || c.name === 'text:list') && textOf(c).trim() !== '');

/** How much of a shape is seen where it is nothing but its line, or its fill as much as its line; null where they differ. */
const lineOnly = (fill: FillLook, graphic: Attributes): number | null => {
  const line = strokeOpacityOf(graphic);
  if (fill.paint.type === 'none' && !fill.image) return line;
  return line === 1 || Math.abs(line - fill.opacity) < 0.005 ? 1 : null;
};

const withOpacity = ({ paint, opacity }: FillLook): { fill: FillLook['paint']; opacity?: number } =>
  paint.type !== 'none' && opacity < 1 ? { fill: paint, opacity } : { fill: paint };
