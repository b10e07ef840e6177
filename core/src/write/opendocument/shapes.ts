import type { Folio } from '../../folio/folio.ts';
import { multiply, translation } from '../../folio/geometry.ts';
import type { Matrix } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import { outlineOf } from '../../paint/boxPath.ts';
import { opacityOfWhole } from '../office/drawnLooks.ts';
import type { AutomaticStyles } from './automaticStyles.ts';
import { DrawingObjects } from './drawingObjects.ts';
import { el, percent, pt } from './element.ts';
import type { Xml } from './element.ts';
import type { Looks } from './graphicLooks.ts';
import type { NotHeld } from './notHeld.ts';
import type { OdfDrawing, ShapeSources } from './odfSources.ts';
import { TextFrames } from './textFrames.ts';
import type { Texts } from './texts.ts';

type Of<K extends Item['kind']> = Extract<Item, { kind: K }>;
const NOT_DRAWN = { under: [], over: [], instead: null };
export interface Control {
  id: string;
  node: Xml;
}

/** Items as drawing objects of OpenDocument (part 3, chapter 10), in the coordinates of their page. */
export class Shapes {
  /** Form controls of the page that is being written. */
  controls: Control[] = [];

  constructor(
    private readonly folio: Folio,
    private readonly texts: Texts,
    readonly objects: DrawingObjects,
    private readonly frames: TextFrames,
    private readonly storyOf: ReadonlyMap<string, string>,
    private readonly sources: ShapeSources,
  ) {}

  /** An item and what belongs to it; `origin` is where its page lies on the spread, `opacity` that of the groups around it. */
  item(items: Record<string, Item>, item: Item, origin: Matrix, opacity = 1): Xml[] {
    if (!this.sources.shown(item)) return [];
    const { told, under, over, instead } = this.sources.drawn?.(item) ?? { ...NOT_DRAWN, told: item.effects };
    const own = item.kind === 'group' ? item : { ...item, effects: told, opacity: item.opacity * opacity };
    const { objects } = this;
    const linked = (object: Xml): Xml => objects.linked(item, object);
    const effect = (drawing: OdfDrawing): Xml => objects.effect(drawing, origin, drawing.opacity ?? own.opacity);
    const itself = (): Xml[] =>
      instead
        ? [objects.drawing(instead, origin, objects.common(own), objects.about(own), opacityOfWhole(item, own.opacity))]
        : this.itself(items, own, origin, opacity);
    return [...under.map(effect), ...itself().map(linked), ...over.map(effect)];
  }

  private itself(items: Record<string, Item>, item: Item, origin: Matrix, opacity: number): Xml[] {
    const inside = (ids: readonly string[], share = opacity): Xml[] =>
      ids.flatMap((id) => (items[id] && id !== item.id ? this.item(items, items[id], origin, share) : []));
    switch (item.kind) {
      case 'group':
        return [el('draw:g', this.objects.common(item), [...this.objects.about(item), ...inside(item.members, opacity * item.opacity)])];
      case 'textFrame':
        return this.frames.frame(item, origin);
      case 'picture':
        return this.objects.anchored ? this.anchoredPicture(item, origin) : this.picture(item, origin);
      case 'shape':
        return [this.shape(item, origin)];
      case 'field':
        return this.field(item, origin);
      case 'media':
        return this.media(item, origin);
      case 'switcher':
        // What stands on its cards is written by itself.
        if (this.objects.anchored) return this.objects.ground(item, origin);
        this.objects.notHeld.add('Switchers (their first cards are written)');
        return inside(item.cards[0]?.items ?? []);
      case 'embed': {
        this.objects.notHeld.add('Embedded web content');
        const picture = this.picture(item, origin);
        return picture.length || !this.objects.anchored ? picture : this.objects.ground(item, origin);
      }
      case 'veil':
        this.objects.notHeld.add('Veils');
        return [];
      case 'tableFrame':
        this.objects.notHeld.add('Table frames');
        return [];
    }
  }

  /** Pictures of text documents have neither grounds nor lines of all kinds (common practice): those are outlines behind and before them. */
  private anchoredPicture(item: Of<'picture'>, origin: Matrix): Xml[] {
    const outline = (look: Partial<Item>): Xml => {
      const own = { ...item, effects: {}, ...look } as Of<'picture'>;
      return this.objects.outline(own, outlineOf(own), origin, { ...this.objects.common(own), 'loext:decorative': 'true' }, []);
    };
    const picture = this.sources.picture(item);
    if (!picture) return this.objects.ground(item, origin);
    const isDrawn = !!picture.drawnAt;
    const [hasFill, hasLine] = isDrawn ? [false, false] : [item.fill.type !== 'none', (item.stroke?.weight ?? 0) > 0];
    return [
      ...(hasFill ? [outline({})] : []),
      ...this.picture({ ...item, fill: { type: 'none' }, stroke: null }, origin),
      ...(hasLine ? [outline({ fill: { type: 'none' } })] : []),
    ];
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
      if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) this.objects.notHeld.add('Pictures turned inside their frames');
      if (item.clip) this.objects.notHeld.add('Pictures cut by paths');
    }
    const style = this.objects.look(
      drawnAt ? { ...item, fill: { type: 'none' }, stroke: null } : item,
      { x: 0, y: 0, ...item.size },
      {
        'draw:image-opacity': percent(drawnAt ? 1 : item.opacity),
        ...(cut?.some((n) => Math.abs(n) > 0.01) && { 'fo:clip': `rect(${cut.map(pt).join(', ')})` }),
        ...(mirror && { 'style:mirror': mirror }),
      },
    );
    const place = drawnAt
      ? this.objects.place(translation(drawnAt.x, drawnAt.y), drawnAt)
      : this.objects.place(multiply(origin, item.transform), item.size);
    return [
      el('draw:frame', { ...this.objects.common(item), 'draw:style-name': style, ...place }, [
        el('draw:image', { 'xlink:type': 'simple', 'xlink:href': picture.href, 'xlink:show': 'embed' }),
        ...this.objects.about(item),
      ]),
    ];
  }

  private shape(item: Of<'shape'>, origin: Matrix): Xml {
    const storyId = this.storyOf.get(item.id);
    const story = storyId === undefined ? undefined : this.folio.stories[storyId];
    const held = story ? this.texts.blocks(story, story.order) : [];
    return this.objects.outline(item, item.path, origin, this.objects.common(item), [...this.objects.about(item), ...held]);
  }

  private media(item: Of<'media'>, origin: Matrix): Xml[] {
    const played = this.sources.played(item);
    const picture = this.sources.picture(item);
    if (!played && !picture) return this.objects.anchored ? this.objects.ground(item, origin) : [];
    const style = picture ? this.objects.look(item, { x: 0, y: 0, ...item.size }) : undefined;
    const place = this.objects.place(multiply(origin, item.transform), item.size);
    // What can be shown best stands first, then what stands for it (10.4.2).
    return [
      el('draw:frame', { ...this.objects.common(item), 'draw:style-name': style, ...place }, [
        played && el('draw:plugin', { 'xlink:type': 'simple', 'xlink:href': played.href, 'draw:mime-type': played.mediaType }),
        picture && el('draw:image', { 'xlink:type': 'simple', 'xlink:href': picture.href, 'xlink:show': 'embed' }),
        ...this.objects.about(item),
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
      this.objects.notHeld.add('Places for signatures');
      return [];
    }
    this.controls.push({ id, node });
    return [
      el(
        'draw:control',
        { ...this.objects.common(item), 'draw:control': id, ...this.objects.place(multiply(origin, item.transform), item.size) },
        this.objects.about(item),
      ),
    ];
  }
}

/** What draws items of a document into one file of it. */
export function shapesOf(
  folio: Folio,
  made: {
    texts: Texts;
    looks: Looks;
    automatic: AutomaticStyles;
    notHeld: NotHeld;
    pageName: (page: string) => string;
    storyOf: ReadonlyMap<string, string>;
    sources: ShapeSources;
  },
): Shapes {
  const { texts, looks, automatic, notHeld, pageName, storyOf, sources } = made;
  const objects = new DrawingObjects(folio, looks, automatic, notHeld, pageName, sources, () => texts.page);
  return new Shapes(folio, texts, objects, new TextFrames(folio, texts, objects, storyOf, sources), storyOf, sources);
}
