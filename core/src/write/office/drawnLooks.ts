import type { Effects } from '../../folio/appearance.ts';
import { overlap } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Group, Item } from '../../folio/items.ts';
import type { Spread } from '../../folio/spread.ts';
import { itemBounds, paintOrder } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { PT_PER_INCH } from '../../folio/units.ts';
import { effectReach, reachedBy } from '../../paint/effects.ts';
import { GlyphOutlines } from '../../paint/svg/glyphs.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import { paintItem, paintItems, paintPaper } from '../../paint/svg/paintSpread.ts';
import { Cancelled } from '../../ports/ports.ts';
import type { WriteJob } from '../writer.ts';
import { drawnSources } from '../assets/drawnSources.ts';
import { EffectDrawer } from '../assets/effectImages.ts';
import type { EffectImage } from '../assets/effectImages.ts';
import { PictureEncoder } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import type { FlowImage } from '../reflow/flowPictures.ts';
import { itemsOfPage } from '../pages/paintedPage.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { PlacedFormat } from './placedFormat.ts';

/** What a recipe says of looks that a format may not have. */
export interface LookSettings {
  pictures: 'inside' | 'beside' | 'none';
  effects: 'native' | 'drawn' | 'none';
  blends: 'plain' | 'drawn';
}

/** A picture of its own, and where it lies, in spread coordinates; `opacity`: its own, where it is another than that of the item. */
export interface DrawnBox {
  image: FlowImage;
  box: Rect;
  opacity?: number;
}

/** What is drawn of an item's look: under it and over it, from back to front, or instead of it. */
interface DrawnLook {
  under: readonly DrawnBox[];
  over: readonly DrawnBox[];
  instead: DrawnBox | null;
}
const NOTHING: DrawnLook = { under: [], over: [], instead: null };

/** Larger drawings than this get fewer pixels. */
const MOST_PIXELS = 12_000_000;

const only = (effects: Effects, keep: (effect: keyof Effects) => boolean): Effects =>
  Object.fromEntries(Object.entries(effects).filter(([name]) => keep(name as keyof Effects))) as Effects;

/** Whether all there is of an item can be a picture. */
const isPlain = (kind: Item['kind']): boolean => kind === 'shape' || kind === 'picture';

/** The effects that a format is told of an item, and those that are drawn for it. */
export function shareEffects(
  { effects, kind }: Pick<Item, 'effects' | 'kind'>,
  settings: LookSettings,
  { has }: PlacedFormat,
): { told: Effects; drawn: Effects } {
  if (settings.effects === 'none') return { told: {}, drawn: {} };
  const isDrawn = settings.effects === 'drawn' && settings.pictures !== 'none';
  // A soft edge is drawn with all that it is the edge of: what holds words keeps its own.
  const isTold = (effect: keyof Effects): boolean => has(effect, effects) && (!isDrawn || (effect === 'feather' && !isPlain(kind)));
  return { told: only(effects, isTold), drawn: settings.pictures === 'none' ? {} : only(effects, (e) => !isTold(e)) };
}

/** Whether an item is drawn as one picture: how its colours mix with those below, or how its edges fade, is told in no other way. */
export function isDrawnWhole(item: Item, settings: LookSettings, format: PlacedFormat): boolean {
  if (settings.pictures === 'none' || !isPlain(item.kind)) return false;
  if (settings.blends === 'drawn' && item.blend !== 'normal') return true;
  return (shareEffects(item, settings, format).drawn.feather?.width ?? 0) > 0;
}

/** How far what is drawn whole covers what is below it: what shows through a blended item is in it as it was. */
export const opacityOfWhole = ({ blend, opacity: own }: Pick<Item, 'blend' | 'opacity'>, opacity: number): number =>
  blend === 'normal' ? opacity / (own || 1) : 1;

/** Groups of a spread whose effects are drawn, inner ones first, with the items in them that are shown, from back to front. */
function groupsWithEffects(
  folio: Folio,
  spread: Spread,
  scope: Scope,
  settings: LookSettings,
): { group: Group; opacity: number; leaves: string[] }[] {
  const out: { group: Group; opacity: number; leaves: string[] }[] = [];
  if (settings.effects === 'none' || settings.pictures === 'none') return out;
  const visit = (item: Item, opacity: number, depth: number): string[] => {
    if (!scope.shown(item) || depth > 32) return [];
    if (item.kind !== 'group') return item.kind === 'veil' ? [] : [item.id];
    const own = opacity * item.opacity;
    const leaves = item.members.flatMap((id) => (spread.items[id] && id !== item.id ? visit(spread.items[id], own, depth + 1) : []));
    if (leaves.length && Object.keys(item.effects).length) out.push({ group: item, opacity: own, leaves });
    return leaves;
  };
  for (const item of paintOrder(folio, spread)) visit(item, 1, 0);
  return out;
}

/** What formats have no words for, drawn: blended items together with what shows through them, shadows and glows as pictures. */
export class DrawnLooks {
  private constructor(
    private readonly made: ReadonlyMap<string, DrawnLook>,
    private readonly settings: LookSettings,
    private readonly format: PlacedFormat,
  ) {}

  static async of(job: WriteJob<PictureSettings & LookSettings>, scope: Scope, format: PlacedFormat): Promise<DrawnLooks> {
    const { folio, settings, signal } = job;
    const made = new Map<string, DrawnLook>();
    const encoder = new PictureEncoder(job).forDrawings();
    const effects = new EffectDrawer(job, encoder);
    const drawer = new WholeDrawer(job, scope, encoder);
    for (const place of scope.pages)
      for (const { item, own } of itemsOfPage(folio, place, scope, () => true)) {
        if (!own || made.has(item.id)) continue;
        if (signal.aborted) throw new Cancelled();
        if (isDrawnWhole(item, settings, format)) {
          const instead = await drawer.draw(place, item, settings.effects === 'none' ? {} : item.effects);
          made.set(item.id, { ...NOTHING, instead });
          continue;
        }
        const { drawn } = shareEffects(item, settings, format);
        if (!Object.keys(drawn).length) continue;
        const { under, over } = await effects.of(place.spread, { ...item, effects: drawn });
        made.set(item.id, { under: under ? [boxOf(under)] : [], over: over ? [boxOf(over)] : [], instead: null });
      }
    for (const { spread } of scope.pages)
      for (const { group, opacity, leaves } of groupsWithEffects(folio, spread, scope, settings)) {
        if (signal.aborted) throw new Cancelled();
        const { under, over } = await effects.of(spread, group);
        const [first, last] = [leaves[0]!, leaves[leaves.length - 1]!];
        const add = (id: string, more: Partial<DrawnLook>): void => void made.set(id, { ...(made.get(id) ?? NOTHING), ...more });
        // Groups stand from the inside out: the outer lies under all of the inner, and over it.
        if (under) add(first, { under: [{ ...boxOf(under), opacity }, ...(made.get(first)?.under ?? [])] });
        if (over) add(last, { over: [...(made.get(last)?.over ?? []), { ...boxOf(over), opacity }] });
      }
    return new DrawnLooks(made, settings, format);
  }

  of({ id }: Pick<Item, 'id'>): DrawnLook {
    return this.made.get(id) ?? NOTHING;
  }

  /** Whether what an item shows is so on its page alone: what shows through it is there and nowhere else. */
  isOfPage(id: string): boolean {
    return this.of({ id }).instead !== null;
  }

  /** An item with those effects alone that the format is told. */
  told<I extends Item>(item: I): I {
    return { ...item, effects: shareEffects(item, this.settings, this.format).told };
  }
}

/** Effects are drawn with some pixels for each point; how many, their own files say. */
const boxOf = ({ bytes, box }: EffectImage): DrawnBox => {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // The header of a PNG has its size (W3C PNG, 11.2.2).
  return { image: { bytes, mediaType: 'image/png', width: view.getUint32(16), height: view.getUint32(20) }, box };
};

/** Draws items as pages show them, with what lies below where it shows through. */
class WholeDrawer {
  constructor(
    private readonly job: WriteJob<PictureSettings>,
    private readonly scope: Scope,
    private readonly encoder: PictureEncoder,
  ) {}

  async draw(place: PagePlace, item: PaintedLeaf, effects: Effects): Promise<DrawnBox> {
    const { folio, composition, settings, pictures } = this.job;
    const { spread } = place;
    const edge = item.stroke ? item.stroke.weight / 2 : 0;
    const box = reachedBy(itemBounds(spread.items, item), edge + (Object.keys(effects).length ? effectReach(effects) : 0));
    const below = item.blend === 'normal' ? [] : this.below(place, item, box);
    const hrefs = await drawnSources(this.job, this.encoder, [...below, item]);
    const outlines = new GlyphOutlines();
    const allowed = new Set(below.map((i) => i.id));
    const options = { outlines, href: (m: string) => hrefs.get(m), forReaders: true };
    const own = { ...item, effects };
    const one = (as: Item): string => paintItem(folio, composition, spread, as, { ...options, shown: () => true });
    const ground = paintItems(folio, composition, spread, {
      ...options,
      shown: (i) => i.kind === 'group' || i.kind === 'switcher' || allowed.has(i.id),
    });
    const paper = spread.pages.map((page) => paintPaper(folio, page)).join('');
    // Wherever there is a trace of it, the picture shows all that is seen there; elsewhere nothing.
    const body =
      item.blend === 'normal'
        ? one(own)
        : `<filter id="trace"${attrs({ filterUnits: 'userSpaceOnUse', ...box })}><feComponentTransfer><feFuncA type="linear" slope="255"/></feComponentTransfer></filter>` +
          `<mask id="where"${attrs({ maskUnits: 'userSpaceOnUse', ...box })} style="mask-type:alpha"><g filter="url(#trace)">${one({ ...own, blend: 'normal', opacity: 1 })}</g></mask>` +
          `<g mask="url(#where)"><g style="isolation:isolate">${paper}${ground.map((g) => g.svg).join('')}${one(own)}</g></g>`;
    const width = Math.max(1, box.width);
    const height = Math.max(1, box.height);
    const scale = Math.min(settings.resolution / PT_PER_INCH, Math.sqrt(MOST_PIXELS / (width * height)));
    const size = { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
    const viewBox = [box.x, box.y, width, height].map((n) => num(n, 3)).join(' ');
    const svg = `<svg xmlns="http://www.w3.org/2000/svg"${attrs({ ...size, viewBox, preserveAspectRatio: 'none' })}><defs>${outlines.take()}</defs>${body}</svg>`;
    return { image: { bytes: await pictures.drawSvg(svg, 'picture'), mediaType: 'image/png', ...size }, box };
  }

  /** What lies under an item where it stands. */
  private below(place: PagePlace, item: PaintedLeaf, box: Rect): PaintedLeaf[] {
    const all = itemsOfPage(this.job.folio, place, this.scope, () => true).filter((i) => !i.unseen);
    const at = all.findIndex((i) => i.item.id === item.id);
    return all
      .slice(0, Math.max(0, at))
      .map((i) => i.item)
      .filter((i) => overlap(itemBounds(place.spread.items, i), box) > 0);
  }
}
