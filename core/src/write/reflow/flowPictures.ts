import type { Folio } from '../../folio/folio.ts';
import { isUpright } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import { PT_PER_INCH } from '../../folio/units.ts';
import { itemBounds, leavesOf } from '../../folio/traverse.ts';
import { hasEffects } from '../../paint/effects.ts';
import { GlyphOutlines } from '../../paint/svg/glyphs.ts';
import { paintItem } from '../../paint/svg/paintSpread.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import type { EncodedPicture } from '../../ports/ports.ts';
import type { PictureEncoder } from '../assets/encodePictures.ts';
import { drawnSources } from '../assets/drawnSources.ts';
import { encodingOf, pictureOf } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import type { WriteJob } from '../writer.ts';

/** Larger drawings than this get fewer pixels. */
const MOST_PIXELS = 12_000_000;

/** A picture of running text, drawn of lines or of pixels. */
export type FlowImage = Omit<EncodedPicture, 'mediaType'> & { mediaType: EncodedPicture['mediaType'] | 'image/svg+xml' };

/** Makes the pictures of running text: whole ones as they are, cropped, turned and cut-out ones drawn as the page shows them. */
export class FlowPictures {
  private readonly drawing: PictureEncoder;

  constructor(
    private readonly job: WriteJob<PictureSettings>,
    private readonly encoder: PictureEncoder,
    /** What of a group is drawn: not what hidden layers hold, nor its captions. */
    private readonly shown: (item: Item) => boolean,
  ) {
    this.drawing = encoder.forDrawings();
  }

  /** What an item looks like; null where it is none that a still picture can show. */
  async of(items: Record<string, Item>, item: Item): Promise<FlowImage | null> {
    if (!isDrawable(this.job.folio, item)) return null;
    const media = item.kind === 'group' ? null : pictureOf(item as PaintedLeaf);
    if (media && isWhole(item)) return this.encoder.get(media);
    return this.draw(items, item);
  }

  private async draw(items: Record<string, Item>, item: Item): Promise<FlowImage> {
    const { folio, composition, settings, pictures } = this.job;
    const box = itemBounds(items, item);
    const edge = item.stroke ? item.stroke.weight / 2 : 0;
    const view = { x: box.x - edge, y: box.y - edge, width: Math.max(1, box.width + 2 * edge), height: Math.max(1, box.height + 2 * edge) };
    const scale = Math.min(settings.resolution / PT_PER_INCH, Math.sqrt(MOST_PIXELS / (view.width * view.height)));
    const sources = await drawnSources(
      this.job,
      this.drawing,
      drawnIn(items, item).filter((leaf) => this.shown(leaf)),
    );
    const outlines = new GlyphOutlines();
    const body = paintItem(
      folio,
      composition,
      { items },
      { ...item, effects: {} },
      { outlines, href: (m) => sources.get(m), shown: this.shown },
    );
    const size = { width: Math.max(1, Math.round(view.width * scale)), height: Math.max(1, Math.round(view.height * scale)) };
    const viewBox = [view.x, view.y, view.width, view.height].map((n) => num(n)).join(' ');
    const svg = `<svg xmlns="http://www.w3.org/2000/svg"${attrs({ ...size, viewBox, preserveAspectRatio: 'none' })}><defs>${outlines.take()}</defs>${body}</svg>`;
    // What is drawn of lines alone stays so, whatever its size on a screen.
    if (item.kind === 'shape' || (item.kind === 'group' && !sources.size))
      return { bytes: new TextEncoder().encode(svg.replace(/ data-item="[^"]*"/g, '')), mediaType: 'image/svg+xml', ...size };
    const drawn = await pictures.drawSvg(svg, 'picture');
    return pictures.encode(drawn, { maxWidth: size.width, ...encodingOf({ ...settings, whiteGround: 'keep' }) });
  }
}

/** What is drawn of an item: itself, or what a group holds. */
export const drawnIn = (items: Record<string, Item>, item: Item): PaintedLeaf[] =>
  item.kind === 'group' ? [...leavesOf(items, item)].flatMap((id) => (items[id] ? [items[id] as PaintedLeaf] : [])) : [item as PaintedLeaf];

/** Whether a still picture can stand for an item. */
export const isDrawable = (folio: Folio, item: Item): boolean =>
  item.kind === 'shape' ||
  (item.kind === 'group' && folio.head.structure.figures.includes(item.id)) ||
  (item.kind !== 'group' && !!pictureOf(item as PaintedLeaf) && !!folio.head.media[pictureOf(item as PaintedLeaf)!]);

/** Whether an item shows its picture whole and upright, without anything around it. */
function isWhole(item: Item): boolean {
  if (item.kind === 'media' || item.kind === 'embed') return true;
  if (item.kind !== 'picture' || item.clip || item.stroke || hasEffects(item.effects) || item.corner) return false;
  const [a, b, c, d, e, f] = item.placement;
  const near = (x: number, y: number): boolean => Math.abs(x - y) < 0.5;
  return (
    isUpright(item.transform) &&
    near(a, item.size.width) &&
    near(b, 0) &&
    near(c, 0) &&
    near(d, item.size.height) &&
    near(e, 0) &&
    near(f, 0)
  );
}
