import { boundsOfPath, IDENTITY, multiply, translation } from '@elastic-folio/core';
import type { Cue, Folio, Item, Matrix, Path, Rect } from '@elastic-folio/core';
import type { AutomaticStyles } from './automaticStyles.ts';
import { el, percent, pt, text } from './element.ts';
import type { Node } from './element.ts';
import type { Looks } from './looks.ts';
import type { NotHeld } from './notHeld.ts';
import type { Texts } from './texts.ts';

type Of<K extends Item['kind']> = Extract<Item, { kind: K }>;
export interface Control {
  id: string;
  node: Node;
}

/** Items as drawing objects of OpenDocument (part 3, chapter 10), in the coordinates of their page. */
export class Shapes {
  /** Form controls of the page that is being written. */
  controls: Control[] = [];
  private readonly written = new Set<string>();

  constructor(
    private readonly folio: Folio,
    private readonly texts: Texts,
    private readonly looks: Looks,
    private readonly automatic: AutomaticStyles,
    private readonly notHeld: NotHeld,
    private readonly pageName: (page: string) => string,
    private readonly storyOf: ReadonlyMap<string, string>,
  ) {}

  /** An item and what belongs to it; `origin` is where its page lies on the spread. */
  item(items: Record<string, Item>, item: Item, origin: Matrix): Node[] {
    switch (item.kind) {
      case 'group':
        return [
          el('draw:g', this.common(item), [
            ...this.about(item),
            ...item.members.flatMap((id) => (items[id] ? this.item(items, items[id], origin) : [])),
          ]),
        ];
      case 'textFrame':
        return [this.textFrame(item, origin)];
      case 'picture':
        return this.picture(item, origin);
      case 'shape':
        return [this.shape(item, origin)];
      case 'field':
        return this.field(item, origin);
      case 'media':
        return this.media(item, origin);
      case 'switcher':
        this.notHeld.add('Switchers (their first cards are written)');
        return (item.cards[0]?.items ?? []).flatMap((id) => (items[id] ? this.item(items, items[id], origin) : []));
      case 'embed':
        this.notHeld.add('Embedded web content');
        return [];
      case 'veil':
        this.notHeld.add('Veils');
        return [];
      case 'tableFrame':
        this.notHeld.add('Table frames');
        return [];
    }
  }

  private common(item: Item): Record<string, string | undefined> {
    const layer = this.folio.head.layers[item.layer];
    // An item that lies over two pages is written twice: its id only once.
    const id = this.written.has(item.id) ? undefined : item.id;
    this.written.add(item.id);
    return { 'draw:name': item.name, 'draw:layer': layer?.name, 'xml:id': id, 'draw:id': id };
  }

  /** Alternative words, and what happens on a press. */
  private about(item: Item): (Node | undefined)[] {
    return [
      item.alt === undefined ? undefined : el('svg:desc', {}, [text(item.alt)]),
      Object.keys(item.cues).length ? this.events(Object.values(item.cues)) : undefined,
    ];
  }

  private events(cues: readonly Cue[]): Node | undefined {
    const listeners = cues.flatMap((cue): Node[] => {
      const [step, ...more] = cue.steps;
      if (cue.trigger.when !== 'press' || step?.do !== 'go' || more.length) {
        this.notHeld.add('Cues other than a press that goes somewhere');
        return [];
      }
      const to = step.destination;
      const event = { 'script:event-name': 'dom:click', 'xlink:type': 'simple' };
      if (to.to === 'page')
        return [el('presentation:event-listener', { ...event, 'presentation:action': 'show', 'xlink:href': `#${this.pageName(to.page)}` })];
      if (to.to === 'address')
        return [el('presentation:event-listener', { ...event, 'presentation:action': 'show', 'xlink:href': to.href })];
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
  private place(matrix: Matrix, size: { width: number; height: number }): Record<string, string> {
    const [a, b, c, d, e, f] = matrix;
    const upright = [a - 1, b, c, d - 1].every((n) => Math.abs(n) < 1e-9);
    const extent = { 'svg:width': pt(size.width), 'svg:height': pt(size.height) };
    if (upright) return { ...extent, 'svg:x': pt(e), 'svg:y': pt(f) };
    const n = (x: number): string => String(Math.round(x * 1e6) / 1e6 + 0);
    return { ...extent, 'draw:transform': `matrix(${[a, b, c, d].map(n).join(' ')} ${pt(e)} ${pt(f)})` };
  }

  private look(item: Item, box: Rect, more: Record<string, string> = {}, inside: Node[] = []): string {
    if (item.style !== undefined) this.notHeld.add('Styles of items (written as looks of their own)');
    return this.automatic.graphic(
      undefined,
      { ...this.looks.fill(item.fill, item.opacity, box), ...this.looks.stroke(item.stroke), ...this.looks.effects(item), ...more },
      inside,
    );
  }

  private textFrame(item: Of<'textFrame'>, origin: Matrix): Node {
    const storyId = this.storyOf.get(item.id);
    const story = storyId === undefined ? undefined : this.folio.stories[storyId];
    const at = story?.frames.findIndex((f) => f.item === item.id) ?? -1;
    const next = at >= 0 ? story?.frames[at + 1]?.item : undefined;
    const [top, right, bottom, left] = item.inset;
    if (item.verticalAlign === 'justify') this.notHeld.add('Lines spread over the height of a frame');
    const style = this.look(
      item,
      { x: 0, y: 0, ...item.size },
      {
        'draw:auto-grow-height': 'false',
        'draw:auto-grow-width': 'false',
        'draw:textarea-vertical-align': { top: 'top', centre: 'middle', bottom: 'bottom', justify: 'justify' }[item.verticalAlign],
        'fo:padding-top': pt(top),
        'fo:padding-right': pt(right),
        'fo:padding-bottom': pt(bottom),
        'fo:padding-left': pt(left),
        ...(item.shrinkToFit && { 'draw:fit-to-size': 'shrink-to-fit' }),
      },
      item.columns > 1 ? [el('style:columns', { 'fo:column-count': item.columns, 'fo:column-gap': pt(item.gutter) })] : [],
    );
    // The whole text stands in the first frame of its chain; the others name themselves to the one before them.
    const inside = story && at === 0 ? this.texts.blocks(story, story.order) : [];
    const name = at >= 0 && story!.frames.length > 1 ? item.id : item.name;
    return el(
      'draw:frame',
      { ...this.common(item), 'draw:name': name, 'draw:style-name': style, ...this.place(multiply(origin, item.transform), item.size) },
      [
        el(
          'draw:text-box',
          { 'draw:chain-next-name': next, 'draw:corner-radius': item.corner?.kind === 'round' ? pt(item.corner.radius) : undefined },
          inside,
        ),
        ...this.about(item),
      ],
    );
  }

  /** A picture with its crop, counted at its natural size, and turned over where it is (20.179 fo:clip, 20.402 style:mirror). */
  private picture(item: Of<'picture'>, origin: Matrix): Node[] {
    const media = item.media === null ? undefined : this.folio.head.media[item.media];
    if (!media) return [];
    const { width, height } = item.size;
    const [, b, c] = item.placement;
    let [a, , , d, e, f] = item.placement;
    const mirror = [a < 0 && 'horizontal', d < 0 && 'vertical'].filter(Boolean).join(' ');
    if (a < 0) [a, e] = [-a, width - e];
    if (d < 0) [d, f] = [-d, height - f];
    if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) this.notHeld.add('Pictures turned inside their frames');
    if (item.clip) this.notHeld.add('Pictures cut by paths');
    const natural = { width: ((media.width ?? 1) * 72) / 96, height: ((media.height ?? 1) * 72) / 96 };
    const [sx, sy] = [natural.width / (a || 1), natural.height / (d || 1)];
    const crop = [-f * sy, (a + e - width) * sx, (d + f - height) * sy, -e * sx];
    const style = this.look(
      item,
      { x: 0, y: 0, ...item.size },
      {
        'draw:image-opacity': percent(item.opacity),
        ...(crop.some((n) => Math.abs(n) > 0.01) && { 'fo:clip': `rect(${crop.map(pt).join(', ')})` }),
        ...(mirror && { 'style:mirror': mirror }),
      },
    );
    return [
      el('draw:frame', { ...this.common(item), 'draw:style-name': style, ...this.place(multiply(origin, item.transform), item.size) }, [
        el('draw:image', { 'xlink:type': 'simple', 'xlink:href': `Pictures/${media.file.replace(/^.*\//, '')}`, 'xlink:show': 'embed' }),
        ...this.about(item),
      ]),
    ];
  }

  private shape(item: Of<'shape'>, origin: Matrix): Node {
    const box = boundsOfPath(item.path, IDENTITY);
    const style = this.look(item, box, item.fillRule === 'evenodd' ? { 'svg:fill-rule': 'evenodd' } : {});
    const matrix = multiply(multiply(origin, item.transform), translation(box.x, box.y));
    const storyId = this.storyOf.get(item.id);
    const story = storyId === undefined ? undefined : this.folio.stories[storyId];
    return el(
      'draw:path',
      {
        ...this.common(item),
        'draw:style-name': style,
        ...this.place(matrix, box),
        'svg:viewBox': `0 0 ${unit(box.width)} ${unit(box.height)}`,
        'svg:d': pathData(item.path, box),
      },
      [...this.about(item), ...(story ? this.texts.blocks(story, story.order) : [])],
    );
  }

  private media(item: Of<'media'>, origin: Matrix): Node[] {
    const media = item.media === null ? undefined : this.folio.head.media[item.media];
    if (!media) return [];
    return [
      el('draw:frame', { ...this.common(item), ...this.place(multiply(origin, item.transform), item.size) }, [
        el('draw:plugin', {
          'xlink:type': 'simple',
          'xlink:href': `Media/${media.file.replace(/^.*\//, '')}`,
          'draw:mime-type': media.mediaType,
        }),
        ...this.about(item),
      ]),
    ];
  }

  private field(item: Of<'field'>, origin: Matrix): Node[] {
    const { control } = item;
    const id = `control-${item.id}`;
    const common = {
      'form:name': item.fieldName,
      'form:title': item.label,
      'xml:id': id,
      'form:id': id,
      'form:tab-index': item.tabOrder,
      'form:input-required': item.required ? 'true' : undefined,
    };
    const node = ((): Node | null => {
      switch (control.type) {
        case 'checkBox':
          return el('form:checkbox', { ...common, 'form:value': control.value, 'form:state': control.on ? 'checked' : 'unchecked' });
        case 'radio':
          return el('form:radio', {
            ...common,
            'form:name': control.group,
            'form:value': control.value,
            'form:selected': String(control.on),
          });
        case 'text':
          return el(control.lines === 'many' ? 'form:textarea' : 'form:text', { ...common, 'form:value': control.value });
        case 'choice':
          return el(
            'form:listbox',
            { ...common },
            control.options.map((o) =>
              el('form:option', {
                'form:label': o.label,
                'form:value': o.value,
                'form:current-selected': o.value === control.value ? 'true' : undefined,
              }),
            ),
          );
        case 'date':
          return el('form:date', { ...common, 'form:value': control.value });
        case 'button':
          return el('form:button', { ...common, 'form:label': control.caption });
        case 'signature':
          return null;
      }
    })();
    if (!node) {
      this.notHeld.add('Places for signatures');
      return [];
    }
    this.controls.push({ id, node });
    return [
      el(
        'draw:control',
        { ...this.common(item), 'draw:control': id, ...this.place(multiply(origin, item.transform), item.size) },
        this.about(item),
      ),
    ];
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
