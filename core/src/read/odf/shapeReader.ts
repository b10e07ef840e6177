import type { z } from 'zod';
import type { Item } from '../../folio/items.ts';
import { boundsOfPath, IDENTITY, multiply, rectPath, translation } from '../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import type { Story } from '../../folio/story.ts';
import { customGeometry, isPlainBox } from './customShape.ts';
import { connectorPath } from './geometry/connector.ts';
import type { DrawnGeometry } from './geometry/enhancedGeometry.ts';
import { fieldOf } from './forms.ts';
import { cuesOf } from './interactions.ts';
import { integerOf, lengthOf, percentOf } from './lengths.ts';
import { fillOf, shadowOf, strokeOf } from './looks.ts';
import type { FillLook } from './looks.ts';
import type { Pictures } from './pictures.ts';
import { listChanges, placementOf } from './pictureLook.ts';
import { pathOf } from './shapePaths.ts';
import type { Family, Scope } from './styleSheet.ts';
import { textLook } from './textLook.ts';
import { readTable } from './tableReader.ts';
import { TextReader } from './textReader.ts';
import type { TextContext, TextStyle } from './textReader.ts';
import { readTransform } from './transform.ts';
import { childOf, childrenOf, textOf } from './xmlTree.ts';
import type { XmlElement } from './xmlTree.ts';

type ItemInput = z.input<typeof Item>;
type Attributes = Record<string, string>;

/** What reading drawing objects needs beside what reading texts needs. */
export interface ShapeContext extends TextContext {
  pictures: Pictures;
  /** The layer for a name of the original's. */
  layer(name: string | undefined): string;
  /** Form controls by their ids. */
  controls: ReadonlyMap<string, XmlElement>;
  /** Takes a text that was read, and the frame that shows it. */
  story(content: Pick<Story, 'blocks' | 'order' | 'links'>, frame: TextPlace): void;
  decoration(item: string): void;
}

/** A frame with text: its name and the name of the frame that goes on with it. */
export interface TextPlace {
  item: string;
  name: string | undefined;
  next: string | undefined;
}

/** Members of groups, text over shapes: items that were made for one element, back to front. */
interface Made {
  items: ItemInput[];
  /** The one that stands for the element. */
  top: string[];
}
const NOTHING: Made = { items: [], top: [] };

/** Reads drawing objects (OpenDocument 1.3 part 3, chapter 10) as items. */
export class ShapeReader {
  constructor(
    private readonly context: ShapeContext,
    private readonly scope: Scope,
    /** Whether an object is a placeholder that pages do not show. */
    private readonly passedOver: (element: XmlElement) => boolean,
  ) {}

  /** All objects among an element's children, in their order from back to front. */
  async readAll(parent: XmlElement, link: XmlElement | null = null): Promise<Made> {
    const out: Made = { items: [], top: [] };
    for (const child of inOrder(childrenOf(parent))) {
      const made = await this.read(child, link);
      out.items.push(...made.items);
      out.top.push(...made.top);
    }
    return out;
  }

  private async read(element: XmlElement, link: XmlElement | null): Promise<Made> {
    if (this.passedOver(element)) return NOTHING;
    switch (element.name) {
      case 'draw:a':
        return this.readAll(element, element);
      case 'draw:g':
        return this.group(element, link);
      case 'draw:frame':
        return this.frame(element, link);
      case 'draw:line':
        return this.line(element, link);
      case 'draw:connector':
        return this.connector(element, link);
      case 'draw:measure':
        this.context.notTaken.add('changed', 'Dimension line', 'its line is taken over, its figures are not');
        return this.line(element, link);
      case 'draw:custom-shape':
        return this.custom(element, link);
      case 'draw:caption':
        return this.caption(element, link);
      case 'draw:rect':
      case 'draw:circle':
      case 'draw:ellipse':
      case 'draw:polyline':
      case 'draw:polygon':
      case 'draw:path':
      case 'draw:regular-polygon':
        return this.outlined(element, link);
      case 'draw:control':
        return this.control(element);
      case 'dr3d:scene':
        this.context.notTaken.add('leftOut', 'Scene in three dimensions', 'only a picture of it could be shown, and the file has none');
        return NOTHING;
      case 'draw:page-thumbnail':
        return NOTHING;
      default:
        return NOTHING;
    }
  }

  private graphic(element: XmlElement): Attributes {
    return this.context.sheet.resolve(...this.styleOf(element))['graphic'] ?? {};
  }

  private styleOf(element: XmlElement): [Family, string | undefined, Scope] {
    const a = element.attributes;
    return a['presentation:style-name'] === undefined
      ? ['graphic', a['draw:style-name'], this.scope]
      : ['presentation', a['presentation:style-name'], this.scope];
  }

  /** Where an element stands: its size, and the matrix from its own space (origin at its top left) to the page. */
  private placeOf(element: XmlElement): { width: number; height: number; transform: Matrix } {
    const a = element.attributes;
    const width = Math.max(0, lengthOf(a['svg:width']) ?? 0);
    const height = Math.max(0, lengthOf(a['svg:height']) ?? 0);
    const at = translation(lengthOf(a['svg:x']) ?? 0, lengthOf(a['svg:y']) ?? 0);
    const own = a['draw:transform'] === undefined ? IDENTITY : readTransform(a['draw:transform']);
    if (!own) this.context.notTaken.add('changed', 'Turned object', 'how it is turned cannot be read');
    return { width, height, transform: multiply(own ?? IDENTITY, at) };
  }

  /** What every item has. */
  private common(element: XmlElement, prefix: string, link: XmlElement | null, graphic: Attributes) {
    const { names, layer, notTaken } = this.context;
    const a = element.attributes;
    const id = names.free(prefix, a['xml:id'] ?? a['draw:id']);
    this.context.origin(id, element);
    const alt = [childOf(element, 'svg:title'), childOf(element, 'svg:desc')]
      .flatMap((e) => (e ? [textOf(e).trim()] : []))
      .filter(Boolean)
      .join('. ');
    if (Object.entries(a).some(([k, v]) => k.endsWith(':decorative') && v === 'true')) this.context.decoration(id);
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

  private async group(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const inside = await this.readAll(element);
    if (!inside.top.length) return NOTHING;
    const group: ItemInput = { ...this.common(element, 'group', link, {}), kind: 'group', transform: IDENTITY, members: inside.top };
    return { items: [...inside.items, group], top: [group.id] };
  }

  private async frame(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.graphic(element);
    const place = this.placeOf(element);
    const children = childrenOf(element);
    const box = children.find((c) => c.name === 'draw:text-box');
    if (box) return this.textBox(element, box, place, graphic, link);
    const table = children.find((c) => c.name === 'table:table');
    if (table) return this.table(element, table, place, graphic, link);
    const media = children.find((c) => c.name === 'draw:plugin');
    const page = children.find((c) => c.name === 'draw:floating-frame');
    if (page) return this.embed(element, page, place, graphic, link);
    const object = children.find((c) => /^draw:(object|object-ole|applet)$/.test(c.name));
    if (object) this.context.notTaken.add('changed', 'Chart or object of another program', 'the picture of it is shown');
    if (media) this.context.notTaken.add('changed', 'Sound or film', 'its picture is shown; the file itself is kept with the original');
    for (const image of children.filter((c) => c.name === 'draw:image')) {
      const made = await this.picture(element, image, place, graphic, link);
      if (made) return made;
    }
    return NOTHING;
  }

  private async picture(
    element: XmlElement,
    image: XmlElement,
    { width, height, transform }: ReturnType<ShapeReader['placeOf']>,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<Made | null> {
    const { notTaken, sheet } = this.context;
    const taken = await this.context.pictures.take(image, width, height);
    if (!taken) return null;
    listChanges(graphic, notTaken);
    const item: ItemInput = {
      ...this.common(element, 'picture', link, graphic),
      kind: 'picture',
      size: { width, height },
      transform,
      media: taken.media,
      placement: placementOf(graphic, width, height, taken.natural),
      stroke: strokeOf(graphic, sheet.definitions, notTaken),
      opacity: percentOf(graphic['draw:image-opacity']) ?? 1,
    };
    return this.withText(element, [item], { x: 0, y: 0, width, height }, transform, graphic, image);
  }

  private embed(
    element: XmlElement,
    page: XmlElement,
    { width, height, transform }: ReturnType<ShapeReader['placeOf']>,
    graphic: Attributes,
    link: XmlElement | null,
  ): Made {
    const item: ItemInput = {
      ...this.common(element, 'embed', link, graphic),
      kind: 'embed',
      size: { width, height },
      transform,
      source: { from: 'address', href: page.attributes['xlink:href'] ?? '' },
    };
    return { items: [item], top: [item.id] };
  }

  private async textBox(
    element: XmlElement,
    box: XmlElement,
    { width, height, transform }: ReturnType<ShapeReader['placeOf']>,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<Made> {
    const least = lengthOf(box.attributes['fo:min-height']) ?? 0;
    const size = { width: width || (lengthOf(box.attributes['fo:min-width']) ?? 0), height: Math.max(height, height ? 0 : least) };
    const corner = lengthOf(box.attributes['draw:corner-radius']);
    return this.textFrame(element, box, size, transform, graphic, link, corner, box.attributes['draw:chain-next-name']);
  }

  /** A frame with text, its fill and its stroke. */
  private async textFrame(
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
    const behind = fill.image ? await this.fillPicture(fill, rectPath({ x: 0, y: 0, ...size }), size, transform, element) : null;
    const stroke = strokeOf(graphic, sheet.definitions, notTaken);
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
        fill.paint.type !== 'none' || stroke !== null || behind !== null,
      ),
    };
    this.readText(element, text, item.id, next);
    return behind ? { items: [behind, item], top: [behind.id, item.id] } : { items: [item], top: [item.id] };
  }

  private textStyle(element: XmlElement): TextStyle {
    const [family, name, scope] = this.styleOf(element);
    return { family, name, paragraph: element.attributes['draw:text-style-name'], scope };
  }

  private readText(element: XmlElement, text: XmlElement, item: string, next?: string): void {
    const reader = new TextReader(this.context, this.textStyle(element));
    reader.content.order.push(...reader.read(text));
    this.context.story(reader.content, { item, name: element.attributes['draw:name'], next });
  }

  private async table(
    element: XmlElement,
    table: XmlElement,
    { width, height, transform }: ReturnType<ShapeReader['placeOf']>,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<Made> {
    const item: ItemInput = { ...this.common(element, 'table', link, graphic), kind: 'textFrame', size: { width, height }, transform };
    const content = readTable(table, this.context, this.textStyle(element));
    this.context.story(content, { item: item.id, name: element.attributes['draw:name'], next: undefined });
    return { items: [item], top: [item.id] };
  }

  private line(element: XmlElement, link: XmlElement | null): Made {
    const a = element.attributes;
    const n = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map((k) => lengthOf(a[k]) ?? 0) as [number, number, number, number];
    return this.open(
      element,
      [
        ['M', n[0], n[1]],
        ['L', n[2], n[3]],
      ],
      link,
    );
  }

  /** A connector as it ran when the file was saved: its curve is in hundredths of a millimetre of the page. */
  private connector(element: XmlElement, link: XmlElement | null): Made {
    const a = element.attributes;
    const n = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map((k) => lengthOf(a[k]) ?? 0) as [number, number, number, number];
    const straight: Path = [
      ['M', n[0], n[1]],
      ['L', n[2], n[3]],
    ];
    const d = a['svg:d'];
    if (d === undefined || a['draw:type'] === 'line') return this.open(element, straight, link);
    return this.open(element, connectorPath(d, { x: n[0], y: n[1] }, { x: n[2], y: n[3] }) ?? straight, link);
  }

  /** A line in page coordinates: it has a stroke, and no fill. */
  private open(element: XmlElement, path: Path, link: XmlElement | null): Made {
    const graphic = this.graphic(element);
    const { sheet, notTaken } = this.context;
    const item: ItemInput = {
      ...this.common(element, 'line', link, graphic),
      kind: 'shape',
      transform: readTransform(element.attributes['draw:transform']) ?? IDENTITY,
      path,
      stroke: strokeOf(graphic, sheet.definitions, notTaken),
    };
    return this.withText(element, [item], middleOf(path, element), item.transform ?? IDENTITY, graphic);
  }

  private async outlined(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.graphic(element);
    const { width, height, transform } = this.placeOf(element);
    const corner = lengthOf(element.attributes['draw:corner-radius']);
    if (element.name === 'draw:rect' && hasText(element))
      return this.textFrame(element, element, { width, height }, transform, graphic, link, corner);
    const path = pathOf(element, width, height);
    if (!path) {
      this.context.notTaken.add('leftOut', 'Shape', 'its outline cannot be read');
      return NOTHING;
    }
    const round = /draw:(circle|ellipse)/.test(element.name);
    const inner = { x: width * 0.1464, y: height * 0.1464, width: width * 0.7072, height: height * 0.7072 };
    const items = await this.filled(
      element,
      [{ path, filled: element.name !== 'draw:polyline', stroked: true }],
      { width, height },
      transform,
      graphic,
      link,
    );
    if (corner && items[0]?.kind === 'shape') items[0].corner = { kind: 'round', radius: corner };
    return this.withText(element, items, round ? inner : { x: 0, y: 0, width, height }, transform, graphic);
  }

  private async custom(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.graphic(element);
    const { width, height, transform } = this.placeOf(element);
    const drawn = customGeometry(element, width, height, graphic, this.context.notTaken);
    if (drawn.text === null && isPlainBox(drawn, width, height) && hasText(element))
      return this.textFrame(element, element, { width, height }, transform, graphic, link);
    if (!drawn.parts.length && hasText(element)) return this.textFrame(element, element, { width, height }, transform, graphic, link);
    const items = await this.filled(element, drawn.parts, { width, height }, transform, graphic, link);
    return this.withText(element, items, drawn.text ?? { x: 0, y: 0, width, height }, transform, graphic);
  }

  private async caption(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.graphic(element);
    const { width, height, transform } = this.placeOf(element);
    const a = element.attributes;
    const box = await this.textFrame(element, element, { width, height }, transform, graphic, link, lengthOf(a['draw:corner-radius']));
    const [x, y] = [lengthOf(a['draw:caption-point-x']), lengthOf(a['draw:caption-point-y'])];
    if (x === undefined || y === undefined) return box;
    const from: [number, number] = [x < 0 ? 0 : x > width ? width : width / 2, y < 0 ? 0 : y > height ? height : height / 2];
    const { layer } = box.items[0]!;
    const pointer: ItemInput = {
      id: this.context.names.free('line'),
      kind: 'shape',
      layer,
      transform,
      path: [
        ['M', ...from],
        ['L', x, y],
      ],
      stroke: strokeOf(graphic, this.context.sheet.definitions, this.context.notTaken),
    };
    return { items: [pointer, ...box.items], top: [pointer.id, ...box.top] };
  }

  /** Parts of a shape as items: one for each stretch of path with a fill and stroke of its own. */
  private async filled(
    element: XmlElement,
    parts: DrawnGeometry['parts'],
    size: { width: number; height: number },
    transform: Matrix,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<ItemInput[]> {
    const { sheet, notTaken, names } = this.context;
    const fill = fillOf(graphic, sheet.definitions, { x: 0, y: 0, ...size }, notTaken);
    const stroke = strokeOf(graphic, sheet.definitions, notTaken);
    const common = this.common(element, 'shape', link, graphic);
    const out: ItemInput[] = [];
    const picture = fill.image && parts[0] ? await this.fillPicture(fill, parts[0].path, size, transform, element) : null;
    if (picture) out.push(picture);
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
        stroke: part.stroked ? stroke : null,
      });
    });
    return out;
  }

  /** A fill that is a picture: the picture itself, cut out along the shape. */
  private async fillPicture(
    fill: FillLook,
    clip: Path,
    { width, height }: { width: number; height: number },
    transform: Matrix,
    element: XmlElement,
  ): Promise<ItemInput | null> {
    const image = this.context.sheet.definitions.fillImages.get(fill.image!.name);
    const taken = image && (await this.context.pictures.take(image, width, height));
    if (!taken) return null;
    if (fill.image!.repeat === 'repeat')
      this.context.notTaken.add('changed', 'Fill of a repeated picture', 'the picture is shown once, over the whole shape');
    return {
      id: this.context.names.free('fill'),
      kind: 'picture',
      layer: this.context.layer(element.attributes['draw:layer']),
      size: { width, height },
      transform,
      media: taken.media,
      placement: [width, 0, 0, height, 0, 0],
      clip,
      opacity: fill.opacity,
    };
  }

  /** Shapes with the text that stands in them, joined where they are more than one; a picture's text is its image's. */
  private withText(
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
        false,
      ),
    };
    this.readText(element, holder, id);
    return this.joined([...items, frame], [...top, id], element);
  }

  private joined(items: ItemInput[], top: string[], element: XmlElement): Made {
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

  private control(element: XmlElement): Made {
    const control = this.context.controls.get(element.attributes['draw:control'] ?? '');
    const { width, height, transform } = this.placeOf(element);
    const field = control && fieldOf(control);
    if (!field) {
      this.context.notTaken.add('leftOut', 'Form control', `there is no field of ours for ${control?.name ?? 'it'}`);
      return NOTHING;
    }
    const item: ItemInput = { ...this.common(element, 'field', null, {}), kind: 'field', size: { width, height }, transform, ...field };
    return { items: [item], top: [item.id] };
  }
}

/** `draw:z-index` sets the order where it stands (19.231); else the order of the file does. */
function inOrder(elements: XmlElement[]): XmlElement[] {
  if (!elements.some((e) => e.attributes['draw:z-index'] !== undefined)) return elements;
  return elements
    .map((e, i) => ({ e, z: integerOf(e.attributes['draw:z-index']) ?? i, i }))
    .sort((a, b) => a.z - b.z || a.i - b.i)
    .map((s) => s.e);
}

/** Height for each paragraph of a line's text, in points. */
const LINE_ROOM = 24;

/** Room for text on a line, about its middle: as wide as the line is long, and at least a few words. */
function middleOf(path: Path, element: XmlElement): Rect {
  const { x, y, width, height } = boundsOfPath(path);
  const w = Math.max(60, Math.hypot(width, height));
  const h = LINE_ROOM * (1 + childrenOf(element).length);
  return { x: x + width / 2 - w / 2, y: y + height / 2 - h / 2, width: w, height: h };
}

const hasText = (element: XmlElement): boolean =>
  childrenOf(element).some((c) => (c.name === 'text:p' || c.name === 'text:h' || c.name === 'text:list') && textOf(c).trim() !== '');

const withOpacity = ({ paint, opacity }: FillLook): { fill: FillLook['paint']; opacity?: number } =>
  paint.type !== 'none' && opacity < 1 ? { fill: paint, opacity } : { fill: paint };
