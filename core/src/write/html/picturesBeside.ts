import type { PagePlace } from '../../folio/traverse.ts';
import { drawingEncoder } from '../assets/drawnSources.ts';
import { PICTURE_EXTENSIONS, shortHash } from '../assets/encodePictures.ts';
import type { PictureEncoder } from '../assets/encodePictures.ts';
import { pagePicture } from '../pages/pagePicture.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';
import type { Site } from './siteFiles.ts';

/** Pixels across of a picture for previews (common practice: at least 1200), and of a page drawn small, for screens of two pixels to a px. */
const CARD_WIDTH = 1200;
const SMALL_WIDTH = 220;

/** A picture that an edition has beside those on its pages. */
export interface PictureBeside {
  path: string;
  mediaType: string;
  bytes: Uint8Array;
  width: number;
  height: number;
}

/** The picture behind the pages, as it is in the document. */
export async function groundPicture({ folio, settings, media }: WriteJob<HtmlSettings>): Promise<PictureBeside | undefined> {
  const file = folio.head.media[settings.groundPicture];
  if (!file?.mediaType.startsWith('image/')) return undefined;
  const bytes = await media(file.id);
  const path = `pictures/${file.id}-${shortHash(bytes)}.${file.file.split('.').pop()}`;
  return { path, mediaType: file.mediaType, bytes, width: file.width ?? 0, height: file.height ?? 0 };
}

/** Pages drawn as pictures: for previews of links, and for the list of all pages. */
export class PagePictures {
  readonly encoder: PictureEncoder;
  private readonly cache = new Map<string, Promise<PictureBeside>>();

  constructor(
    private readonly job: WriteJob<HtmlSettings>,
    private readonly scope: Scope,
  ) {
    this.encoder = drawingEncoder(job);
  }

  /** The pages that stand for the edition's files where a link to one is shown; the recipe says which stands for the first. */
  async cards(site: Site): Promise<Map<string, PictureBeside>> {
    const { address, cardPage, sharePicture } = this.job.settings;
    const out = new Map<string, PictureBeside>();
    const chosen = this.scope.pages.find((p) => p.number === cardPage);
    // Previews ask for a whole address; the share button for none.
    if (!chosen || (address === '' && !sharePicture)) return out;
    for (const file of site.files) {
      const place = file.name === 'index.html' ? chosen : file.slots[0]?.[0];
      if (place && (file.name === 'index.html' || address !== '')) out.set(file.name, await this.draw(place, 'card', CARD_WIDTH));
    }
    return out;
  }

  /** Every page drawn small, by its id. */
  async small(): Promise<Map<string, PictureBeside>> {
    const out = new Map<string, PictureBeside>();
    if (!this.job.settings.bar.includes('overview')) return out;
    for (const place of this.scope.pages) out.set(place.page.id, await this.draw(place, 'page', SMALL_WIDTH));
    return out;
  }

  private draw(place: PagePlace, called: string, width: number): Promise<PictureBeside> {
    const key = `${called}-${place.number}`;
    let drawn = this.cache.get(key);
    if (!drawn) {
      // The hairline of its edge that shows through would make it a PNG, many times as large.
      drawn = pagePicture(this.job, this.encoder, place, this.scope, width, 'jpeg').then((p) => ({
        path: `pictures/${key}-${shortHash(p.bytes)}.${PICTURE_EXTENSIONS[p.mediaType]}`,
        mediaType: p.mediaType,
        bytes: p.bytes,
        width: p.width,
        height: p.height,
      }));
      this.cache.set(key, drawn);
    }
    return drawn;
  }
}
