import type { Stroke } from '../../folio/appearance.ts';
import { solidHex } from '../../folio/colour.ts';
import type { Gradient, Paint } from '../../folio/colour.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Head } from '../../folio/head.ts';
import type { Item } from '../../folio/items.ts';
import { el, percent, pt } from './element.ts';
import type { Xml } from './element.ts';
import type { NotHeld } from './notHeld.ts';

type Attributes = Record<string, string>;

/** Fills, lines and shadows as graphic properties (OpenDocument 1.3 part 3, 16.29), and what they are named by. */
export class Looks {
  /** Gradients and dashes, for the styles' part. */
  readonly definitions: Xml[] = [];
  private readonly names = new Map<string, string>();

  constructor(
    private readonly head: Head,
    private readonly notHeld: NotHeld,
  ) {}

  fill(paint: Paint, opacity: number, box: Rect): Attributes {
    switch (paint.type) {
      case 'none':
        return { 'draw:fill': 'none' };
      case 'gradient':
        return {
          'draw:fill': 'gradient',
          'draw:fill-gradient-name': this.gradient(paint.gradient, box),
          'draw:opacity': percent(opacity),
        };
      default:
        return { 'draw:fill': 'solid', 'draw:fill-color': solidHex(paint, this.head.swatches), 'draw:opacity': percent(opacity) };
    }
  }

  /** A gradient between two colours: the format's own has no more (14.6), and its angle turns against the clock from straight down. */
  private gradient({ kind, stops, transform: [a, b, , , e, f] }: Gradient, box: Rect): string {
    if (stops.length > 2) this.notHeld.add('Gradients of more than two colours');
    if (stops.some((s) => s.opacity < 1)) this.notHeld.add('Gradients that fade');
    const [first, last] = [stops[0]!, stops[stops.length - 1]!].map((s) => solidHex(s.paint, this.head.swatches));
    const turned = Math.round(((Math.atan2(a, b) * 1800) / Math.PI + 3600) % 3600);
    const at = (n: number, from: number, length: number): string =>
      percent(length > 0 ? Math.min(1, Math.max(0, (n - from) / length)) : 0.5);
    const attributes =
      kind === 'linear'
        ? { 'draw:style': 'linear', 'draw:angle': turned, 'draw:start-color': first, 'draw:end-color': last }
        : {
            'draw:style': 'radial',
            'draw:cx': at(e, box.x, box.width),
            'draw:cy': at(f, box.y, box.height),
            // The format's runs from the edge inwards.
            'draw:start-color': last,
            'draw:end-color': first,
          };
    return this.named('Gradient', 'draw:gradient', {
      ...attributes,
      'draw:border': '0%',
      'draw:start-intensity': '100%',
      'draw:end-intensity': '100%',
    });
  }

  stroke(stroke: Stroke | null): Attributes {
    if (!stroke || stroke.weight === 0 || stroke.paint.type === 'none') return { 'draw:stroke': 'none' };
    const colour = stroke.paint.type === 'gradient' ? '#000000' : solidHex(stroke.paint, this.head.swatches);
    if (stroke.paint.type === 'gradient') this.notHeld.add('Lines with gradients');
    const [on = 0, off = 0, on2, off2] = stroke.dashes;
    if (off2 !== undefined && off2 !== off) this.notHeld.add('Dashes with unequal gaps');
    const dash = stroke.dashes.length
      ? this.named('Dash', 'draw:stroke-dash', {
          'draw:style': 'rect',
          'draw:dots1': 1,
          'draw:dots1-length': pt(on),
          'draw:distance': pt(off || on),
          ...(on2 !== undefined && { 'draw:dots2': 1, 'draw:dots2-length': pt(on2) }),
        })
      : undefined;
    return {
      'draw:stroke': dash ? 'dash' : 'solid',
      ...(dash !== undefined && { 'draw:stroke-dash': dash }),
      'svg:stroke-width': pt(stroke.weight),
      'svg:stroke-color': colour,
      'svg:stroke-linecap': stroke.cap,
      'draw:stroke-linejoin': stroke.join,
      ...(stroke.startMarker !== 'none' && { 'draw:marker-start': this.marker(stroke.startMarker) }),
      ...(stroke.endMarker !== 'none' && { 'draw:marker-end': this.marker(stroke.endMarker) }),
    };
  }

  private marker(kind: 'arrow' | 'circle' | 'bar'): string {
    const d = { arrow: 'm10 0-10 30h20z', circle: 'm10 0a10 10 0 1 0 .01 0z', bar: 'm0 0h20v4h-20z' }[kind];
    const name = { arrow: 'Arrow', circle: 'Circle', bar: 'Bar' }[kind];
    return this.named(name, 'draw:marker', { 'svg:viewBox': '0 0 20 30', 'svg:d': d });
  }

  effects({ effects, blend, corner, wrap }: Item): Attributes {
    const { outerShadow, innerShadow, glow, feather } = effects;
    for (const [there, what] of [
      [innerShadow, 'Shadows inside items'],
      [glow, 'Glows'],
      [feather, 'Soft edges'],
      [blend !== 'normal', 'Blend modes'],
      [corner && corner.kind !== 'round', 'Cut and inward corners'],
      [wrap.kind !== 'none', 'Texts that run around items'],
    ] as const)
      if (there) this.notHeld.add(what);
    if (!outerShadow) return {};
    return {
      'draw:shadow': 'visible',
      'draw:shadow-offset-x': pt(outerShadow.dx),
      'draw:shadow-offset-y': pt(outerShadow.dy),
      'draw:shadow-color': solidHex(outerShadow.paint, this.head.swatches),
      'draw:shadow-opacity': percent(outerShadow.opacity),
    };
  }

  /** The name of a definition; the same one for the same. */
  private named(stem: string, element: string, attributes: Record<string, string | number | undefined>): string {
    const key = JSON.stringify([element, attributes]);
    let name = this.names.get(key);
    if (name === undefined) {
      name = `${stem}_${this.names.size + 1}`;
      this.names.set(key, name);
      this.definitions.push(el(element, { 'draw:name': name, 'draw:display-name': `${stem} ${this.names.size}`, ...attributes }));
    }
    return name;
  }
}
