import type { Folio } from '../../folio/folio.ts';
import { boundsOfPath, IDENTITY, multiply, translation } from '../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import type { Paint } from '../../folio/colour.ts';
import { nameInXml } from '../../folio/ids.ts';
import type { Item } from '../../folio/items.ts';
import type { Cue } from '../../folio/motion.ts';
import { outlineOf } from '../../paint/boxPath.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import type { AutomaticStyles } from './automaticStyles.ts';
import { el, percent, pt, text } from './element.ts';
import type { Xml } from './element.ts';
import type { Looks } from './graphicLooks.ts';
import type { NotHeld } from './notHeld.ts';
import type { OdfDrawing, ShapeSources } from './odfSources.ts';

type Attributes = Record<string, string>;

/** What belongs to no item: it is seen, and never read. */
const EFFECT = { 'draw:name': 'Effect', 'loext:decorative': 'true' };

/** Where things stand on the pages of a text: anchored to a paragraph, placed from the edges of its page, over and under all text (20.314, 20.402 to 20.411). */
const ON_PAGE: Attributes = {
  'style:wrap': 'run-through',
  'style:run-through': 'foreground',
  'style:flow-with-text': 'false',
  'style:horizontal-pos': 'from-left',
  'style:horizontal-rel': 'page',
  'style:vertical-pos': 'from-top',
  'style:vertical-rel': 'page',
};
/** What boxes of text are made from: programs take what has no such style for drawings, which may be turned, and whose text ends in them (common practice). */
export const FRAME = 'Frame';

/** What all drawing objects have: what they are called, where they stand, how they look, what a press on them does (part 3, chapter 10). */
export class DrawingObjects {
  /** What lies over what, in a text document; each object lies over the one that was written before it. */
  depth = 0;
  private readonly written = new Set<string>();

  constructor(
    private readonly folio: Folio,
    private readonly looks: Looks,
    private readonly automatic: AutomaticStyles,
    readonly notHeld: NotHeld,
    private readonly pageName: (page: string) => string,
    private readonly sources: ShapeSources,
    private readonly page: () => string,
  ) {}

  /** Whether things are anchored in a text, and not on pages of their own. */
  get anchored(): boolean {
    return this.sources.boxes !== undefined;
  }

  private hold(): Record<string, string | number> {
    return this.anchored ? { 'text:anchor-type': 'paragraph', 'draw:z-index': this.depth++ } : {};
  }

  common(item: Item): Record<string, string | number | undefined> {
    const layer = this.anchored ? undefined : this.folio.head.layers[item.layer];
    // An item that lies over two pages is written twice: its id only once.
    const id = this.written.has(item.id) ? undefined : nameInXml(item.id);
    this.written.add(item.id);
    // A word of programs, not of the standard; others pass it over (part 3, 22.3).
    const decorative = this.sources.unread(item) ? 'true' : undefined;
    return {
      'draw:name': item.name,
      ...this.hold(),
      'draw:layer': layer?.name,
      'xml:id': id,
      'draw:id': id,
      'loext:decorative': decorative,
    };
  }

  /** Alternative words, and what happens on a press; in a text, links are around things (10.4.12). */
  about(item: Item): (Xml | undefined)[] {
    return [
      item.alt === undefined || this.sources.unread(item) ? undefined : el('svg:desc', {}, [text(item.alt)]),
      Object.keys(item.cues).length && !this.anchored ? this.events(Object.values(item.cues)) : undefined,
    ];
  }

  /** A thing of a text, with the link that it is. */
  linked(item: Item, object: Xml): Xml {
    const pressed = this.anchored ? linkCueOf(item) : null;
    const target = pressed && this.sources.target(pressed.destination, this.page());
    if (!target) return object;
    const href = 'href' in target ? target.href : `#${this.pageName(target.page)}`;
    const frame = 'href' in target && target.newWindow ? '_blank' : undefined;
    return el('draw:a', { 'xlink:type': 'simple', 'xlink:href': href, 'office:target-frame-name': frame }, [object]);
  }

  private events(cues: readonly Cue[]): Xml | undefined {
    const listeners = cues.flatMap((cue): Xml[] => {
      const [step, ...more] = cue.steps;
      if (cue.trigger.when !== 'press' || step?.do !== 'go' || more.length) {
        this.notHeld.add('Cues other than a press that goes somewhere');
        return [];
      }
      const to = step.destination;
      const target = this.sources.target(to, this.page());
      const event = { 'script:event-name': 'dom:click', 'xlink:type': 'simple' };
      if (target) {
        const href = 'href' in target ? target.href : `#${this.pageName(target.page)}`;
        return [el('presentation:event-listener', { ...event, 'presentation:action': 'show', 'xlink:href': href })];
      }
      const actions: Record<string, string> = { next: 'next-page', previous: 'previous-page', first: 'first-page', last: 'last-page' };
      const action = actions[to.to];
      if (action === undefined) {
        this.notHeld.add('Cues other than a press that goes somewhere');
        return [];
      }
      return [el('presentation:event-listener', { ...event, 'presentation:action': action })];
    });
    return listeners.length ? el('office:event-listeners', {}, listeners) : undefined;
  }

  /** Where a box stands: by its corner where it is upright, else by its matrix (19.228). */
  place(matrix: Matrix, size: { width: number; height: number }): Record<string, string> {
    const [a, b, c, d, e, f] = matrix;
    const upright = [a - 1, b, c, d - 1].every((n) => Math.abs(n) < 1e-9);
    const extent = { 'svg:width': pt(size.width), 'svg:height': pt(size.height) };
    if (upright) return { ...extent, 'svg:x': pt(e), 'svg:y': pt(f) };
    const n = (x: number): string => String(Math.round(x * 1e6) / 1e6 + 0);
    return { ...extent, 'draw:transform': `matrix(${[a, b, c, d].map(n).join(' ')} ${pt(e)} ${pt(f)})` };
  }

  /** A look by all that it is made of. */
  plain(attributes: Attributes, inside: Xml[] = [], parent?: string): string {
    return this.automatic.graphic(parent, { ...attributes, ...(this.anchored && ON_PAGE) }, inside);
  }

  /** The look of an item. */
  look(item: Item, box: Rect, more: Attributes = {}, inside: Xml[] = []): string {
    if (item.style !== undefined) this.notHeld.add('Styles of items (written as looks of their own)');
    const look = { ...this.looks.fill(item.fill, item.opacity, box), ...this.looks.stroke(item.stroke), ...this.looks.effects(item) };
    return this.plain({ ...look, ...more }, inside);
  }

  /** The outline of an item where anything of it is seen. */
  ground(item: Item, origin: Matrix): Xml[] {
    const isSeen = item.fill.type !== 'none' || (item.stroke?.weight ?? 0) > 0;
    return isSeen ? [this.outline(item, outlineOf(item), origin, this.common(item), this.about(item))] : [];
  }

  /** A sheet of paint that belongs to no item. */
  sheet(paint: Paint, path: Path): Xml {
    const style = this.plain({ ...this.looks.fill(paint, 1, boundsOfPath(path)), 'draw:stroke': 'none' });
    return this.path(style, path, IDENTITY, { ...EFFECT, 'draw:name': 'Page', ...this.hold() }, []);
  }

  /** An outline with its paint, and the text that it holds. */
  outline(
    item: Item,
    path: Path,
    origin: Matrix,
    common: Record<string, string | number | undefined>,
    inside: readonly (Xml | undefined)[],
  ): Xml {
    const box = boundsOfPath(path);
    const style = this.look(item, box, item.kind === 'shape' && item.fillRule === 'evenodd' ? { 'svg:fill-rule': 'evenodd' } : {});
    return this.path(style, path, multiply(origin, item.transform), common, inside);
  }

  private path(
    style: string,
    path: Path,
    toPage: Matrix,
    common: Record<string, string | number | undefined>,
    inside: readonly (Xml | undefined)[],
  ): Xml {
    const box = boundsOfPath(path);
    return el(
      'draw:path',
      {
        ...common,
        'draw:style-name': style,
        ...this.place(multiply(toPage, translation(box.x, box.y)), box),
        'svg:viewBox': `0 0 ${unit(box.width)} ${unit(box.height)}`,
        'svg:d': pathData(path, box),
      },
      inside,
    );
  }

  /** A picture of what the format has no words for. */
  drawing(
    { href, box }: OdfDrawing,
    origin: Matrix,
    common: Record<string, string | number | undefined>,
    about: (Xml | undefined)[],
    opacity: number,
  ): Xml {
    const style = this.plain({ 'draw:fill': 'none', 'draw:stroke': 'none', 'draw:image-opacity': percent(opacity) });
    const place = this.place(multiply(origin, translation(box.x, box.y)), box);
    return el('draw:frame', { ...common, 'draw:style-name': style, ...place }, [
      el('draw:image', { 'xlink:type': 'simple', 'xlink:href': href, 'xlink:show': 'embed' }),
      ...about,
    ]);
  }

  /** A picture that belongs to no item. */
  effect(drawing: OdfDrawing, origin: Matrix, opacity: number): Xml {
    return this.drawing(drawing, origin, { ...EFFECT, ...this.hold() }, [], opacity);
  }
}

/** Path coordinates are written in hundredths of a point. */
const unit = (points: number): number => Math.max(1, Math.round(points * 100));

function pathData(path: Path, box: Rect): string {
  const x = (n: number): number => Math.round((n - box.x) * 100);
  const y = (n: number): number => Math.round((n - box.y) * 100);
  return path
    .map((step) => {
      const [letter, ...numbers] = step;
      return letter + (numbers as number[]).map((n, i) => (i % 2 ? y(n) : x(n))).join(' ');
    })
    .join('');
}
