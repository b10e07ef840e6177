import type { Item } from '../../folio/items.ts';
import { multiply, translation } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { itemBounds } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { Cancelled } from '../../ports/ports.ts';
import type { WriteJob } from '../writer.ts';
import { effectsXml } from '../ooxml/drawing/effects.ts';
import { geometryXml, rectangle, roundRectangle } from '../ooxml/drawing/geometry.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { placementOf } from '../ooxml/drawing/placement.ts';
import type { Placement } from '../ooxml/drawing/placement.ts';
import { PictureEncoder, pictureOf } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import { FlowPictures } from '../reflow/flowPictures.ts';
import type { FlowImage } from '../reflow/flowPictures.ts';
import type { PageItem, PaintedLeaf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import { isDrawnWhole } from './drawnLooks.ts';
import type { LookSettings } from './drawnLooks.ts';
import type { MadeImage } from './pictureParts.ts';
import type { PlacedFormat } from './placedFormat.ts';
import type { Xml } from '../assets/xml.ts';

/** What a recipe says of pictures that stand in their places. */
export interface PlacedPictureSettings extends PictureSettings, LookSettings {
  crops: 'keep' | 'cut';
}

interface Made extends MadeImage {
  /** Null where the picture is drawn as the page shows it, in an upright box. */
  crop: Crop | null;
}
interface Crop {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What of its picture an item cuts away, where it shows it upright in its box; null where the format cannot say how it stands in it. */
function cropOf(item: PaintedLeaf, clips: boolean): Crop | null {
  if (!clips && (item.corner || (item.kind === 'picture' && item.clip))) return null;
  if (item.kind !== 'picture') return item.kind === 'media' || item.kind === 'embed' ? { left: 0, top: 0, right: 0, bottom: 0 } : null;
  const [a, b, c, d, e, f] = item.placement;
  if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6 || a <= 0 || d <= 0 || !placementOf(item.transform, { x: 0, y: 0, ...item.size }))
    return null;
  return { left: -e / a, top: -f / d, right: 1 - (item.size.width - e) / a, bottom: 1 - (item.size.height - f) / d };
}

/** Pictures that are drawn as the page shows them, or left out, are not found as they are; nor is what is drawn whole. */
export const isToldOtherwise = (
  item: PaintedLeaf,
  settings: Pick<PlacedPictureSettings, 'crops' | keyof LookSettings>,
  format: PlacedFormat,
): boolean => {
  const shows = item.kind === 'picture' || item.kind === 'media' || item.kind === 'embed';
  if (shows && (settings.pictures === 'none' || settings.crops === 'cut' || cropOf(item, format.clips) === null)) return true;
  return isDrawnWhole(item, settings, format);
};

/** A picture in its place, with what is drawn around it. */
export interface PlacedPicture extends Made {
  at: Placement;
  opacity: number;
  /** Its outline, its ground, its line and its effects, in the order in which the formats have them. */
  around: (Xml | null)[];
}

/** Pictures of pages in their places: cropped by the file where it can say how, drawn as the page shows them where it cannot. */
export class PlacedPictures {
  private constructor(
    private readonly job: WriteJob<PlacedPictureSettings>,
    private readonly made: ReadonlyMap<string, Made>,
  ) {}

  static async of(job: WriteJob<PlacedPictureSettings>, scope: Scope, format: PlacedFormat): Promise<PlacedPictures> {
    const made = new Map<string, Made>();
    if (job.settings.pictures === 'none') return new PlacedPictures(job, made);
    const encoder = new PictureEncoder(job);
    const maker = new FlowPictures(job, encoder, scope.shown);
    const items = scope.pages.flatMap(({ spread }) =>
      Object.values(spread.items).flatMap((item) => {
        const media = item.kind === 'group' ? null : pictureOf(item);
        const isWanted = scope.shown(item) && !isDrawnWhole(item, job.settings, format);
        return media && job.folio.head.media[media] && isWanted ? [{ item: item as PaintedLeaf, media, among: spread.items }] : [];
      }),
    );
    for (const { item } of items) encoder.want(item);
    for (const { item, media, among } of items) {
      if (made.has(item.id)) continue;
      if (job.signal.aborted) throw new Cancelled();
      const crop = job.settings.crops === 'keep' ? cropOf(item, format.clips) : null;
      const image: FlowImage | null = crop ? await encoder.get(media) : await maker.of(among, withoutEffects(item));
      if (image) made.set(item.id, { image, fallback: null, crop });
      job.progress(made.size, items.length);
    }
    return new PlacedPictures(job, made);
  }

  /** The picture of an item in its place; null where it has none. */
  at({ item, opacity }: PageItem, place: PagePlace): PlacedPicture | null {
    const made = this.made.get(item.id);
    if (!made || !('size' in item)) return null;
    const { swatches } = this.job.folio.head;
    const toPage = multiply(translation(-place.page.box.x, -place.page.box.y), item.transform);
    const own: Rect = { x: 0, y: 0, ...item.size };
    const placed = made.crop && placementOf(toPage, own);
    const ground = { swatches, opacity, box: own };
    const clip = item.kind === 'picture' ? item.clip : undefined;
    const geometry = !placed
      ? rectangle()
      : clip
        ? geometryXml(clip, own)
        : item.corner?.kind === 'round' && item.corner.radius > 0
          ? roundRectangle(own, item.corner.radius)
          : rectangle();
    return {
      ...made,
      at: placed ?? { ...this.drawnBox(item, place), rotation: 0, flipV: false },
      opacity: placed ? opacity : 1,
      around: [
        geometry,
        placed && item.fill.type !== 'none' ? fillXml(item.fill, ground) : null,
        placed && item.stroke && item.stroke.weight > 0 ? lineXml(item.stroke, ground) : null,
        effectsXml(item.effects, swatches),
      ],
    };
  }

  /** A drawn picture shows its stroke as well. */
  private drawnBox(item: Item, place: PagePlace): Rect {
    const bounds = itemBounds(place.spread.items, item);
    const box = { ...bounds, x: bounds.x - place.page.box.x, y: bounds.y - place.page.box.y };
    const edge = item.stroke && item.kind === 'picture' ? item.stroke.weight / 2 : 0;
    return { x: box.x - edge, y: box.y - edge, width: box.width + 2 * edge, height: box.height + 2 * edge };
  }
}

/** What is drawn leaves shadows to the file. */
const withoutEffects = (item: PaintedLeaf): PaintedLeaf => ({ ...item, effects: {} });
