import { createHash } from 'node:crypto';
import type { Item } from '../../folio/items.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Spread } from '../../folio/spread.ts';
import { hasOver, hasUnder } from '../../paint/effects.ts';
import type { EffectPart } from '../../paint/effects.ts';
import { effectPicture } from '../../paint/svg/effectPicture.ts';
import type { WriteJob } from '../writer.ts';
import type { PictureEncoder } from './encodePictures.ts';
import { pictureOf } from './encodePictures.ts';

const VERSION = 1;
/** Pixels for a point: soft edges need few of them, crisp ones what print asks for. */
const SOFT = 2;
const CRISP = 300 / 72;
/** A blur of this many points or more is soft. */
const SOFT_FROM = 4;
/** Larger pictures than this get fewer pixels for each point. */
const MOST_PIXELS = 12_000_000;

export interface EffectImage {
  key: string;
  bytes: Uint8Array;
  /** Where it lies, in spread coordinates. */
  box: Rect;
}
export interface EffectImages {
  under: EffectImage | null;
  over: EffectImage | null;
  /** How far the item's edges are faded: white where it is whole. */
  cover: EffectImage | null;
}
const NONE: EffectImages = { under: null, over: null, cover: null };

/** Draws shadows, glows and faded edges as pictures, for an output that has no such effects; kept for the next run. */
export class EffectDrawer {
  constructor(
    private readonly job: WriteJob<{ resolution: number; quality: number }>,
    private readonly encoder: PictureEncoder,
  ) {}

  async of(spread: Spread, item: Item): Promise<EffectImages> {
    const { effects } = item;
    if (!Object.keys(effects).length) return NONE;
    const sources = await this.sources(spread, item);
    const draw = async (wanted: boolean, part: Exclude<EffectPart, 'all'>, blur: number): Promise<EffectImage | null> =>
      wanted ? this.draw(spread, item, part, blur, sources) : null;
    return {
      under: await draw(hasUnder(effects), 'under', Math.min(effects.outerShadow?.blur ?? Infinity, effects.glow?.blur ?? Infinity)),
      over: await draw(hasOver(effects), 'over', 0),
      cover: await draw(effects.feather !== undefined && effects.feather.width > 0, 'cover', effects.feather?.width ?? 0),
    };
  }

  private async draw(
    spread: Spread,
    item: Item,
    part: Exclude<EffectPart, 'all'>,
    blur: number,
    sources: ReadonlyMap<string, string>,
  ): Promise<EffectImage> {
    const { folio, composition, derived, pictures } = this.job;
    const options = { shown: () => true, href: (media: string) => sources.get(media) };
    const { box } = effectPicture(folio, composition, spread, item, part, { ...options, pxPerPt: 1 });
    const wanted = blur >= SOFT_FROM ? SOFT : CRISP;
    const pxPerPt = Math.min(wanted, Math.sqrt(MOST_PIXELS / Math.max(1, box.width * box.height)));
    const { svg } = effectPicture(folio, composition, spread, item, part, { ...options, pxPerPt });
    const key = `effect/${VERSION}/${part}/${createHash('sha256').update(svg).digest('hex')}`;
    let bytes = await derived.get(key);
    if (!bytes) await derived.put(key, (bytes = await pictures.drawSvg(svg, part === 'cover' ? 'cover' : 'picture')));
    return { key, bytes, box };
  }

  /** Pictures that the item and its members show, as addresses that hold the bytes: their own outlines count too. */
  private async sources(spread: Spread, item: Item, depth = 0): Promise<Map<string, string>> {
    const out = new Map<string, string>();
    if (item.kind === 'group') {
      for (const id of depth < 32 ? item.members : [])
        for (const [media, href] of spread.items[id] ? await this.sources(spread, spread.items[id], depth + 1) : []) out.set(media, href);
      return out;
    }
    const media = pictureOf(item);
    if (media) {
      const { bytes, mediaType } = await this.encoder.get(media);
      out.set(media, `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`);
    }
    return out;
  }
}
