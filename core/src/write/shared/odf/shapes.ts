import type { Folio } from '../../../folio/folio.ts';
import { boundsOfPath, IDENTITY, multiply, translation } from '../../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../../folio/geometry.ts';
import { nameInXml } from '../../../folio/ids.ts';
import type { Item } from '../../../folio/items.ts';
import type { Cue } from '../../../folio/motion.ts';
import type { TextPiece, WordsPiece } from '../../../structure/textPieces.ts';
import { opacityOfWhole } from '../office/drawnLooks.ts';
import type { AutomaticStyles } from './automaticStyles.ts';
import { el, percent, pt, text } from './element.ts';
import type { Xml } from './element.ts';
import type { Looks } from './graphicLooks.ts';
import type { NotHeld } from './notHeld.ts';
import type { OdfDrawing, OdfSources } from './odfSources.ts';
import type { Texts } from './texts.ts';

type Of<K extends Item['kind']> = Extract<Item, { kind: K }>;
const NOT_DRAWN = { under: null, over: null, instead: null };
const EFFECT = { 'draw:name': 'Effect', 'loext:decorative': 'true' };
export interface Control {
  id: string;
  node: Xml;
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
    private readonly sources: OdfSources,
  ) {}

  /** An item and what belongs to it; `origin` is where its page lies on the spread, `opacity` that of the groups around it. */
  item(items: Record<string, Item>, item: Item, origin: Matrix, opacity = 1): Xml[] {
    if (!this.sources.shown(item)) return [];
    const { told, under, over, instead } = this.sources.drawn?.(item) ?? { ...NOT_DRAWN, told: item.effects };
    const own = item.kind === 'group' ? item : { ...item, effects: told, opacity: item.opacity * opacity };
    if (instead) return [this.drawing(instead, origin, this.common(own), this.about(own), opacityOfWhole(item, own.opacity))];
    return [
      ...(under ? [this.drawing(under, origin, EFFECT, [], own.opacity)] : []),
      ...this.itself(items, own, origin, opacity),
      ...(over ? [this.drawing(over, origin, EFFECT, [], own.opacity)] : []),
    ];
  }

  /** A picture of what the format has no words for. */
  private drawing(
    { href, box }: OdfDrawing,
    origin: Matrix,
    common: Record<string, string | undefined>,
    about: (Xml | undefined)[],
    opacity: number,
  ): Xml {
    const style = this.automatic.graphic(undefined, { 'draw:fill': 'none', 'draw:stroke': 'none', 'draw:image-opacity': percent(opacity) });
    const place = this.place(multiply(origin, translation(box.x, box.y)), box);
    return el('draw:frame', { ...common, 'draw:style-name': style, ...place }, [
      el('draw:image', { 'xlink:type': 'simple', 'xlink:href': href, 'xlink:show': 'embed' }),
      ...about,
    ]);
  }

  private itself(items: Record<string, Item>, item: Item, origin: Matrix, opacity: number): Xml[] {
    const inside = (ids: readonly string[], share = opacity): Xml[] =>
      ids.flatMap((id) => (items[id] && id !== item.id ? this.item(items, items[id], origin, share) : []));
    switch (item.kind) {
      case 'group':
        return [el('draw:g', this.common(item), [...this.about(item), ...inside(item.members, opacity * item.opacity)])];
      case 'textFrame':
        return this.sources.pieces
          ? this.framePieces(item, origin, this.sources.pieces.get(item.id) ?? [])
          : [this.textFrame(item, origin)];
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
        return inside(item.cards[0]?.items ?? []);
      case 'embed':
        this.notHeld.add('Embedded web content');
        return this.picture(item, origin);
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
    const id = this.written.has(item.id) ? undefined : nameInXml(item.id);
    this.written.add(item.id);
    // A word of programs, not of the standard; others pass it over (part 3, 22.3).
    const decorative = this.sources.unread(item) ? 'true' : undefined;
    return { 'draw:name': item.name, 'draw:layer': layer?.name, 'xml:id': id, 'draw:id': id, 'loext:decorative': decorative };
  }

  /** Alternative words, and what happens on a press. */
  private about(item: Item): (Xml | undefined)[] {
    return [
      item.alt === undefined || this.sources.unread(item) ? undefined : el('svg:desc', {}, [text(item.alt)]),
      Object.keys(item.cues).length ? this.events(Object.values(item.cues)) : undefined,
    ];
  }

  private events(cues: readonly Cue[]): Xml | undefined {
    const listeners = cues.flatMap((cue): Xml[] => {
      const [step, ...more] = cue.steps;
      if (cue.trigger.when !== 'press' || step?.do !== 'go' || more.length) {
        this.notHeld.add('Cues other than a press that goes somewhere');
        return [];
      }
      const to = step.destination;
      const target = this.sources.target(to, this.texts.page);
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
  private place(matrix: Matrix, size: { width: number; height: number }): Record<string, string> {
    const [a, b, c, d, e, f] = matrix;
    const upright = [a - 1, b, c, d - 1].every((n) => Math.abs(n) < 1e-9);
    const extent = { 'svg:width': pt(size.width), 'svg:height': pt(size.height) };
    if (upright) return { ...extent, 'svg:x': pt(e), 'svg:y': pt(f) };
    const n = (x: number): string => String(Math.round(x * 1e6) / 1e6 + 0);
    return { ...extent, 'draw:transform': `matrix(${[a, b, c, d].map(n).join(' ')} ${pt(e)} ${pt(f)})` };
  }

  private look(item: Item, box: Rect, more: Record<string, string> = {}, inside: Xml[] = []): string {
    if (item.style !== undefined) this.notHeld.add('Styles of items (written as looks of their own)');
    return this.automatic.graphic(
      undefined,
      { ...this.looks.fill(item.fill, item.opacity, box), ...this.looks.stroke(item.stroke), ...this.looks.effects(item), ...more },
      inside,
    );
  }

  private textFrame(item: Of<'textFrame'>, origin: Matrix): Xml {
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

  /** What a frame holds, piece by piece: one box with its outline where its text fills it. */
  private framePieces(item: Of<'textFrame'>, origin: Matrix, pieces: readonly TextPiece[]): Xml[] {
    const toPage = multiply(origin, item.transform);
    const [only, ...more] = pieces;
    const [top, right, bottom, left] = item.inset;
    const inner = { x: left, y: top, width: item.size.width - left - right, height: item.size.height - top - bottom };
    const fills = only?.kind === 'words' && !more.length && sameRect(only.rect, inner);
    if (fills) return [this.wordsBox(item, only, toPage, { x: 0, y: 0, ...item.size }, true)];
    const isSeen = item.fill.type !== 'none' || (item.stroke?.weight ?? 0) > 0;
    const ground = isSeen ? [this.wordsBox(item, null, toPage, { x: 0, y: 0, ...item.size }, true)] : [];
    return [
      ...ground,
      ...pieces.map((piece) =>
        piece.kind === 'words' ? this.wordsBox(item, piece, toPage, piece.rect, false) : this.tableBox(item, piece, toPage),
      ),
    ];
  }

  /** A box of text; `dressed`: with the ground and the outline of its frame. */
  private wordsBox(item: Of<'textFrame'>, piece: WordsPiece | null, toPage: Matrix, box: Rect, dressed: boolean): Xml {
    const rect = piece?.rect ?? box;
    const room = [rect.y - box.y, box.x + box.width - rect.x - rect.width, box.y + box.height - rect.y - rect.height, rect.x - box.x];
    const more = {
      'draw:auto-grow-height': 'false',
      'draw:auto-grow-width': 'false',
      'draw:textarea-vertical-align': { top: 'top', centre: 'middle', bottom: 'bottom' }[piece?.align ?? 'top'],
      'fo:padding-top': pt(room[0]!),
      'fo:padding-right': pt(room[1]!),
      'fo:padding-bottom': pt(room[2]!),
      'fo:padding-left': pt(room[3]!),
    };
    const columns =
      piece && piece.columns.count > 1
        ? [el('style:columns', { 'fo:column-count': piece.columns.count, 'fo:column-gap': pt(piece.columns.gutter) })]
        : [];
    const plain = { 'draw:fill': 'none', 'draw:stroke': 'none' };
    const style = dressed ? this.look(item, box, more, columns) : this.automatic.graphic(undefined, { ...plain, ...more }, columns);
    const blocks = piece ? piece.blocks.map((b) => b.block) : [];
    const inside = piece ? this.onPageOf(item, () => this.texts.parts(piece.story, blocks, piece.note?.number)) : [];
    const corner = dressed && item.corner?.kind === 'round' ? pt(item.corner.radius) : undefined;
    return el(
      'draw:frame',
      { ...this.common(item), 'draw:style-name': style, ...this.place(multiply(toPage, translation(box.x, box.y)), box) },
      [el('draw:text-box', { 'draw:corner-radius': corner }, inside), ...this.about(item)],
    );
  }

  private tableBox(
    item: Of<'textFrame'>,
    { rect, story, table, widths, heights }: Extract<TextPiece, { kind: 'table' }>,
    toPage: Matrix,
  ): Xml {
    const rows = table.rows.map((row, i) => ({ ...row, height: heights[i] ?? row.height }));
    return el('draw:frame', { ...this.common(item), ...this.place(multiply(toPage, translation(rect.x, rect.y)), rect) }, [
      ...this.onPageOf(item, () =>
        this.texts.parts(story, [{ ...table, rows, columns: widths.map((width) => ({ width, unit: 'pt' as const })) }]),
      ),
    ]);
  }

  /** Writes a text as it is on the page of the layout where its frame stands. */
  private onPageOf<T>(item: Item, write: () => T): T {
    const { page } = this.texts;
    this.texts.page = this.sources.pageOf?.(item, page) ?? page;
    const out = write();
    this.texts.page = page;
    return out;
  }

  /** A picture with its crop, counted at its natural size, and turned over where it is (20.179 fo:clip, 20.402 style:mirror). */
  private picture(item: Of<'picture' | 'embed'>, origin: Matrix): Xml[] {
    const picture = this.sources.picture(item);
    if (!picture) return [];
    const { natural, crop, drawnAt } = picture;
    const cut = crop && [crop.top * natural.height, crop.right * natural.width, crop.bottom * natural.height, crop.left * natural.width];
    let mirror = '';
    if (item.kind === 'picture' && crop) {
      const [a, b, c, d] = item.placement;
      mirror = [a < 0 && 'horizontal', d < 0 && 'vertical'].filter(Boolean).join(' ');
      if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) this.notHeld.add('Pictures turned inside their frames');
      if (item.clip) this.notHeld.add('Pictures cut by paths');
    }
    const style = this.look(
      drawnAt ? { ...item, fill: { type: 'none' }, stroke: null } : item,
      { x: 0, y: 0, ...item.size },
      {
        'draw:image-opacity': percent(drawnAt ? 1 : item.opacity),
        ...(cut?.some((n) => Math.abs(n) > 0.01) && { 'fo:clip': `rect(${cut.map(pt).join(', ')})` }),
        ...(mirror && { 'style:mirror': mirror }),
      },
    );
    const place = drawnAt
      ? this.place(translation(drawnAt.x, drawnAt.y), drawnAt)
      : this.place(multiply(origin, item.transform), item.size);
    return [
      el('draw:frame', { ...this.common(item), 'draw:style-name': style, ...place }, [
        el('draw:image', { 'xlink:type': 'simple', 'xlink:href': picture.href, 'xlink:show': 'embed' }),
        ...this.about(item),
      ]),
    ];
  }

  private shape(item: Of<'shape'>, origin: Matrix): Xml {
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

  private media(item: Of<'media'>, origin: Matrix): Xml[] {
    const played = this.sources.played(item);
    const picture = this.sources.picture(item);
    if (!played && !picture) return [];
    const style = picture ? this.look(item, { x: 0, y: 0, ...item.size }) : undefined;
    const place = this.place(multiply(origin, item.transform), item.size);
    // What can be shown best stands first, then what stands for it (10.4.2).
    return [
      el('draw:frame', { ...this.common(item), 'draw:style-name': style, ...place }, [
        played && el('draw:plugin', { 'xlink:type': 'simple', 'xlink:href': played.href, 'draw:mime-type': played.mediaType }),
        picture && el('draw:image', { 'xlink:type': 'simple', 'xlink:href': picture.href, 'xlink:show': 'embed' }),
        ...this.about(item),
      ]),
    ];
  }

  private field(item: Of<'field'>, origin: Matrix): Xml[] {
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
    const node = ((): Xml | null => {
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

const sameRect = (a: Rect, b: Rect): boolean =>
  [a.x - b.x, a.y - b.y, a.width - b.width, a.height - b.height].every((n) => Math.abs(n) < 0.01);

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
