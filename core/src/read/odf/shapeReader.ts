import { boundsOfPath, IDENTITY } from '../../folio/geometry.ts';
import type { Path, Point, Rect } from '../../folio/geometry.ts';
import { customGeometry, isPlainBox } from './customShape.ts';
import { fieldOf } from './forms.ts';
import { connectorPath } from './geometry/connector.ts';
import { hasText, ItemBuilder, NOTHING } from './itemBuilder.ts';
import type { ItemInput, Made, Place, ShapeContext } from './itemBuilder.ts';
import { integerOf, lengthOf, percentOf } from './lengths.ts';
import { strokeOf, strokeOpacityOf } from './looks.ts';
import { placementOf } from './pictureLook.ts';
import { colourChanges } from './recolour.ts';
import { pathOf } from './shapePaths.ts';
import { roomForText } from './roomForText.ts';
import type { Scope } from './styleSheet.ts';
import { readTable } from './tableReader.ts';
import { readTransform } from './transform.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;

/** Reads drawing objects (OpenDocument 1.3 part 3, chapter 10) as items. */
export class ShapeReader {
  private readonly make: ItemBuilder;

  constructor(
    private readonly context: ShapeContext,
    scope: Scope,
    /** Whether an object is a placeholder that pages do not show. */
    private readonly passedOver: (element: XmlElement) => boolean,
  ) {
    this.make = new ItemBuilder(context, scope);
  }

  /** All objects among an element's children, in their order from back to front. */
  async readAll(parent: XmlElement, link: XmlElement | null = null): Promise<Made> {
    const out: Made = { items: [], top: [] };
    for (const child of inOrder(childrenOf(parent))) {
      const made = await this.read(child, link);
      this.context.stands(child, made.top);
      for (const one of made.items) out.items.push(one);
      for (const one of made.top) out.top.push(one);
    }
    return out;
  }

  /** One object alone. */
  single = (element: XmlElement): Promise<Made> => this.read(element, null);

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
      default:
        // Beside objects stand a page's forms, notes and titles, which others read.
        if (/^(draw|dr3d):/.test(element.name) && !/page-thumbnail|glue-point|layer-set/.test(element.name))
          this.context.notTaken.add('leftOut', `Object “${element.name.split(':')[1]}”`, 'it is of a kind that is not known here');
        return NOTHING;
    }
  }

  private async group(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const inside = await this.readAll(element);
    if (!inside.top.length) return NOTHING;
    const group: ItemInput = { ...this.make.common(element, 'group', link, {}), kind: 'group', transform: IDENTITY, members: inside.top };
    return { items: [...inside.items, group], top: [group.id] };
  }

  private async frame(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.make.graphic(element);
    const place = this.make.placeOf(element);
    const children = childrenOf(element);
    const box = children.find((c) => c.name === 'draw:text-box');
    if (box) return this.textBox(element, box, place, graphic, link);
    const table = children.find((c) => c.name === 'table:table');
    if (table) return this.table(element, table, place, graphic, link);
    const media = children.find((c) => c.name === 'draw:plugin');
    const page = children.find((c) => c.name === 'draw:floating-frame');
    if (page) return this.embed(element, page, place, graphic, link);
    const object = children.find((c) => /^draw:(object|object-ole|applet)$/.test(c.name));
    let made: Made | null = null;
    for (const image of children.filter((c) => c.name === 'draw:image')) made ??= await this.picture(element, image, place, graphic, link);
    const played = media && (await this.played(element, media, place, graphic, link, made));
    if (played) return played;
    const what = object ? 'Chart or object of another program' : media ? 'Sound or film' : null;
    if (what && made) this.context.notTaken.add('changed', what, 'the picture of it is shown; the object itself is kept with the original');
    else if (what) this.context.notTaken.add('leftOut', what, 'the file has no picture of it that could be shown');
    return made ?? NOTHING;
  }

  /** A sound or film with the picture that stands for it; null where its file is not in the package, or none that is played. */
  private async played(
    element: XmlElement,
    plugin: XmlElement,
    { width, height, transform }: Place,
    graphic: Attributes,
    link: XmlElement | null,
    still: Made | null,
  ): Promise<Made | null> {
    const media = await this.context.pictures.takeMedia(plugin);
    if (media === null) return null;
    const picture = still?.items.find((i) => i.kind === 'picture');
    const poster = picture?.kind === 'picture' ? (picture.media ?? undefined) : undefined;
    const set = (name: string): boolean =>
      childrenOf(plugin, 'draw:param').some((p) => p.attributes['draw:name'] === name && p.attributes['draw:value'] === 'true');
    const item: ItemInput = {
      ...this.make.common(element, 'media', link, graphic),
      kind: 'media',
      size: { width, height },
      transform,
      media,
      ...(poster !== undefined && { poster }),
      autoplay: set('AutoPlay'),
      loop: set('Loop'),
    };
    return { items: [item], top: [item.id] };
  }

  private async picture(
    element: XmlElement,
    image: XmlElement,
    { width, height, transform }: Place,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<Made | null> {
    const { pictures, sheet } = this.context;
    const original = await pictures.take(image, width, height);
    if (!original) return null;
    const changes = colourChanges(graphic);
    const taken = changes ? await pictures.recoloured(original, changes) : original;
    const item: ItemInput = {
      ...this.make.common(element, 'picture', link, graphic),
      kind: 'picture',
      size: { width, height },
      transform,
      media: taken.media,
      placement: placementOf(graphic, width, height, taken.natural),
      stroke: strokeOf(graphic, sheet.definitions),
      opacity: percentOf(graphic['draw:image-opacity']) ?? 1,
    };
    return this.make.withText(element, [item], { x: 0, y: 0, width, height }, transform, graphic, image);
  }

  private embed(
    element: XmlElement,
    page: XmlElement,
    { width, height, transform }: Place,
    graphic: Attributes,
    link: XmlElement | null,
  ): Made {
    const item: ItemInput = {
      ...this.make.common(element, 'embed', link, graphic),
      kind: 'embed',
      size: { width, height },
      transform,
      source: { from: 'address', href: page.attributes['xlink:href'] ?? '' },
    };
    return { items: [item], top: [item.id] };
  }

  private textBox(
    element: XmlElement,
    box: XmlElement,
    { width, height, transform }: Place,
    graphic: Attributes,
    link: XmlElement | null,
  ): Promise<Made> {
    const least = lengthOf(box.attributes['fo:min-height']) ?? 0;
    const size = { width: width || (lengthOf(box.attributes['fo:min-width']) ?? 0), height: height || least };
    const corner = lengthOf(box.attributes['draw:corner-radius']);
    return this.make.textFrame(element, box, size, transform, graphic, link, corner, box.attributes['draw:chain-next-name']);
  }

  private table(
    element: XmlElement,
    table: XmlElement,
    { width, height, transform }: Place,
    graphic: Attributes,
    link: XmlElement | null,
  ): Made {
    const inset: [number, number, number, number] = [0, 0, 0, 0];
    const item: ItemInput = {
      ...this.make.common(element, 'table', link, graphic),
      kind: 'textFrame',
      // A table is as high as its rows ask for: its frame is not seen.
      ...roomForText({ size: { width, height }, transform, inset, verticalAlign: 'top' }, false, true, 'left'),
    };
    const content = readTable(table, this.context, this.make.textStyle(element));
    this.context.story(content, { item: item.id, name: element.attributes['draw:name'], next: undefined });
    return { items: [item], top: [item.id] };
  }

  private line(element: XmlElement, link: XmlElement | null): Made {
    const { from, to } = endsOf(element);
    return this.open(element, straight(from, to), link);
  }

  /** A connector as it ran when the file was saved. */
  private connector(element: XmlElement, link: XmlElement | null): Made {
    const { from, to } = endsOf(element);
    const d = element.attributes['draw:type'] === 'line' ? undefined : element.attributes['svg:d'];
    return this.open(element, (d !== undefined && connectorPath(d, from, to)) || straight(from, to), link);
  }

  /** A line in page coordinates: it has a stroke, and no fill. */
  private open(element: XmlElement, path: Path, link: XmlElement | null): Made {
    const graphic = this.make.graphic(element);
    const { sheet } = this.context;
    const item: ItemInput = {
      ...this.make.common(element, 'line', link, graphic),
      kind: 'shape',
      transform: readTransform(element.attributes['draw:transform']) ?? IDENTITY,
      path,
      stroke: strokeOf(graphic, sheet.definitions),
      opacity: strokeOpacityOf(graphic),
    };
    return this.make.withText(element, [item], middleOf(path, element), item.transform ?? IDENTITY, graphic);
  }

  private async outlined(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.make.graphic(element);
    const { width, height, transform } = this.make.placeOf(element);
    const corner = lengthOf(element.attributes['draw:corner-radius']);
    if (element.name === 'draw:rect' && hasText(element))
      return this.make.textFrame(element, element, { width, height }, transform, graphic, link, corner);
    const path = pathOf(element, width, height);
    if (!path) {
      this.context.notTaken.add('leftOut', 'Shape', 'its outline cannot be read');
      return NOTHING;
    }
    const round = /draw:(circle|ellipse)/.test(element.name);
    const inner = { x: width * 0.1464, y: height * 0.1464, width: width * 0.7072, height: height * 0.7072 };
    const items = await this.make.filled(
      element,
      [{ path, filled: element.name !== 'draw:polyline', stroked: true }],
      { width, height },
      transform,
      graphic,
      link,
    );
    if (corner && items[0]?.kind === 'shape') items[0].corner = { kind: 'round', radius: corner };
    return this.make.withText(element, items, round ? inner : { x: 0, y: 0, width, height }, transform, graphic);
  }

  private async custom(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.make.graphic(element);
    const { width, height, transform } = this.make.placeOf(element);
    const drawn = customGeometry(element, width, height, graphic, this.context.notTaken);
    if (drawn.text === null && isPlainBox(drawn, width, height) && hasText(element))
      return this.make.textFrame(element, element, { width, height }, transform, graphic, link);
    if (!drawn.parts.length && hasText(element)) return this.make.textFrame(element, element, { width, height }, transform, graphic, link);
    const items = await this.make.filled(element, drawn.parts, { width, height }, transform, graphic, link);
    return this.make.withText(element, items, drawn.text ?? { x: 0, y: 0, width, height }, transform, graphic);
  }

  private async caption(element: XmlElement, link: XmlElement | null): Promise<Made> {
    const graphic = this.make.graphic(element);
    const { width, height, transform } = this.make.placeOf(element);
    const a = element.attributes;
    const box = await this.make.textFrame(element, element, { width, height }, transform, graphic, link, lengthOf(a['draw:corner-radius']));
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
      stroke: strokeOf(graphic, this.context.sheet.definitions),
    };
    return { items: [pointer, ...box.items], top: [pointer.id, ...box.top] };
  }

  private control(element: XmlElement): Made {
    const control = this.context.controls.get(element.attributes['draw:control'] ?? '');
    const { width, height, transform } = this.make.placeOf(element);
    const field = control && fieldOf(control);
    if (!field) {
      this.context.notTaken.add('leftOut', 'Form control', `there is no field of ours for ${control?.name ?? 'it'}`);
      return NOTHING;
    }
    const item: ItemInput = {
      ...this.make.common(element, 'field', null, {}),
      kind: 'field',
      size: { width, height },
      transform,
      ...field,
    };
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

/** The ends of a line, in page coordinates. */
function endsOf({ attributes: a }: XmlElement): { from: Point; to: Point } {
  const at = (n: 1 | 2): Point => ({ x: lengthOf(a[`svg:x${n}`]) ?? 0, y: lengthOf(a[`svg:y${n}`]) ?? 0 });
  return { from: at(1), to: at(2) };
}
const straight = (from: Point, to: Point): Path => [
  ['M', from.x, from.y],
  ['L', to.x, to.y],
];

/** Height for each paragraph of a line's text, in points. */
const LINE_ROOM = 24;

/** Room for text on a line, about its middle: as wide as the line is long, and at least a few words. */
function middleOf(path: Path, element: XmlElement): Rect {
  const { x, y, width, height } = boundsOfPath(path);
  const w = Math.max(60, Math.hypot(width, height));
  const h = LINE_ROOM * (1 + childrenOf(element).length);
  return { x: x + width / 2 - w / 2, y: y + height / 2 - h / 2, width: w, height: h };
}
