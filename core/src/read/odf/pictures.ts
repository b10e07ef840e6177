import type { Head } from '../../folio/head.ts';
import { FolioError } from '../../ports/ports.ts';
import type { ReadJob } from '../../intake/reader.ts';
import type { LoadedFolio } from '../../intake/reader.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import type { PictureInfo } from '../../ports/ports.ts';
import { KEPT, lookInto } from './pictureFile.ts';
import { recolouredSvg } from './recolour.ts';
import type { ColourChanges } from './recolour.ts';
import type { StoredFile } from './packageFiles.ts';
import { MOST_IN_MEMORY, lookIntoPlayed } from '../media/lookIntoPlayed.ts';
import { PLAYED } from '../media/played.ts';
import type { OdfPackage } from './odfPackage.ts';
import { childOf, textOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Drawings become pictures of this many pixels to the inch where they stand, and of no more than the most across. */
const VECTOR_PPI = 300;
const MOST_PIXELS = 4000;
/** What a picture without a resolution of its own is measured by (common practice of screens). */
const PLAIN_PPI = 96;

/** A picture as it stands in the document. */
export interface TakenPicture {
  media: string;
  /** Its own size in points, by its resolution. */
  natural: { width: number; height: number };
}

/** Takes pictures of a package over into the document, each once. */
export class Pictures {
  readonly media: Head['media'] = {};
  readonly files: LoadedFolio['files'] = new Map();
  private readonly known = new Map<string, Promise<TakenPicture | null>>();

  constructor(
    private readonly job: ReadJob,
    private readonly source: OdfPackage,
    private readonly names: Names,
    private readonly notTaken: NotTakenList,
  ) {}

  /** The picture of a `draw:image` or `draw:fill-image`; null where there is none that can be shown. */
  async take(element: XmlElement, width: number, height: number): Promise<TakenPicture | null> {
    const href = element.attributes['xlink:href'];
    const inline = childOf(element, 'office:binary-data');
    if (inline) {
      const bytes = new Uint8Array(Buffer.from(textOf(inline).replace(/\s+/g, ''), 'base64'));
      const { sha256 } = await this.job.blobs.put(bytes);
      return this.fromBlob({ sha256, bytes: bytes.length }, 'picture', width, height);
    }
    if (!href) return null;
    const path = decodeURIComponent(safe(href)).replace(/^\.\//, '');
    const file = await this.source.files.get(path);
    if (!file) {
      const outside = /^[a-z][a-z0-9+.-]*:|^\.\.?\/|^\//i.test(href);
      this.notTaken.add(
        'leftOut',
        outside ? 'Linked picture' : 'Missing picture',
        outside ? `it lies outside the file, at ${href.slice(0, 120)}, and nothing outside is asked for` : `${path} is not in the file`,
      );
      return null;
    }
    return this.fromBlob(file, path.split('/').pop() ?? path, width, height);
  }

  /** A picture that is drawn for a place: a pattern, say. One drawing is one picture, however often it is wanted. */
  draw(svg: string, name: string): Promise<TakenPicture | null> {
    let made = this.drawn.get(svg);
    if (!made) {
      const drawing = this.job.pictures.drawSvg(svg, 'picture').then((bytes) => this.put(name, bytes, { width: 1, height: 1 }));
      this.drawn.set(svg, (made = drawing.catch(() => null)));
    }
    return made;
  }
  private readonly drawn = new Map<string, Promise<TakenPicture | null>>();

  /** A picture that was taken, as an address that holds it whole. */
  async dataOf(id: string): Promise<string> {
    const media = this.media[id]!;
    return `data:${media.mediaType};base64,${Buffer.from(await this.job.blobs.read(media.sha256)).toString('base64')}`;
  }

  /** A sound or film of the package as a file of the document; null where there is none that can be played. */
  async takeMedia(plugin: XmlElement): Promise<string | null> {
    const href = plugin.attributes['xlink:href'] ?? '';
    const path = decodeURIComponent(safe(href)).replace(/^\.\//, '');
    const extension = /\.([A-Za-z0-9]+)$/.exec(path)?.[1]?.toLowerCase() ?? '';
    const mediaType = PLAYED[extension];
    const file = mediaType === undefined ? null : await this.source.files.get(path);
    if (!file || mediaType === undefined) return null;
    const name = path.split('/').pop() ?? path;
    const id = this.names.free('media', name.replace(/\.[A-Za-z0-9]+$/, ''));
    const kept = `media/${id}.${extension}`;
    const { sha256, bytes } = file;
    const looked = bytes > MOST_IN_MEMORY ? {} : await lookIntoPlayed(await this.job.blobs.read(sha256));
    this.media[id] = { id, name, file: kept, mediaType, sha256, bytes, ...looked };
    this.files.set(kept, { sha256, bytes });
    return id;
  }

  /** A picture in the colours that its frame shows it in, as a picture of its own. */
  async recoloured(taken: TakenPicture, changes: ColourChanges): Promise<TakenPicture> {
    const { width = 1, height = 1, name } = this.media[taken.media]!;
    const scale = Math.min(1, MOST_PIXELS / Math.max(width, height));
    const drawn = await this.draw(
      recolouredSvg(await this.dataOf(taken.media), { width: width * scale, height: height * scale }, changes),
      name,
    );
    return (drawn && { media: drawn.media, natural: taken.natural }) || taken;
  }

  private fromBlob(file: StoredFile, name: string, width: number, height: number): Promise<TakenPicture | null> {
    const known = this.known.get(file.sha256);
    if (known) return known;
    const making = this.make(file, name, width, height);
    this.known.set(file.sha256, making);
    return making;
  }

  private async make({ sha256, look }: StoredFile, name: string, width: number, height: number): Promise<TakenPicture | null> {
    const { pictures, blobs } = this.job;
    const looked = look ?? (await lookInto(await blobs.read(sha256), pictures));
    try {
      if ('error' in looked) throw looked.error;
      const { info } = looked;
      const ppi = info.density ?? PLAIN_PPI;
      const natural = { width: (info.width / ppi) * 72, height: (info.height / ppi) * 72 };
      const kept = KEPT[info.format];
      if (kept) return this.keep(name, kept, { sha256, bytes: looked.size }, info, natural);
      const bytes = await blobs.read(sha256);
      if (info.format === 'svg') {
        this.notTaken.add('changed', 'Drawn picture (SVG)', `it is kept as a picture of ${VECTOR_PPI} pixels to the inch`);
        const drawn = await pictures.drawSvg(wrapped(bytes, width, height), 'picture');
        return await this.put(name, drawn, natural);
      }
      const encoded = await pictures.encode(bytes, { maxWidth: info.width, quality: 90 });
      return await this.put(name, encoded.bytes, natural);
    } catch (error) {
      const kind = DAMAGED_AS[/\.(\w+)$/.exec(name)?.[1]?.toLowerCase() ?? ''];
      if (error instanceof FolioError && error.code === 'picture.unreadable' && kind !== undefined) {
        // It has its place, and outputs say that it is damaged.
        const file = { sha256, bytes: (await blobs.read(sha256)).length };
        return this.keep(name, KEPT[kind]!, file, null, { width, height });
      }
      if (error instanceof FolioError || error instanceof Error) {
        const why = error instanceof FolioError ? error.message : 'it is of a kind that cannot be shown';
        this.notTaken.add('leftOut', `Picture ${name}`, why);
        return null;
      }
      throw error;
    }
  }

  private async put(name: string, bytes: Uint8Array, natural: TakenPicture['natural']): Promise<TakenPicture | null> {
    const info = await this.job.pictures.info(bytes);
    const kept = KEPT[info.format];
    return kept ? this.keep(name, kept, await this.job.blobs.put(bytes), info, natural) : null;
  }

  private keep(
    name: string,
    kind: { extension: string; mediaType: string },
    file: { sha256: string; bytes: number },
    info: Pick<PictureInfo, 'width' | 'height' | 'colours'> | null,
    natural: TakenPicture['natural'],
  ): TakenPicture {
    const id = this.names.free('picture', name.replace(/\.[A-Za-z0-9]+$/, ''));
    const path = `media/${id}.${kind.extension}`;
    this.media[id] = {
      id,
      name,
      file: path,
      mediaType: kind.mediaType,
      ...file,
      ...(info ? { width: info.width, height: info.height } : { damaged: true }),
      ...(info && info.colours !== 'rgb' && { colours: info.colours }),
    };
    this.files.set(path, file);
    return { media: id, natural };
  }
}

/** What pictures that nobody can read are taken for, by their names; their stand-ins are of that kind. */
const DAMAGED_AS: Record<string, string> = {
  jpg: 'jpeg',
  jpeg: 'jpeg',
  webp: 'webp',
  png: 'png',
  gif: 'png',
  tif: 'png',
  tiff: 'png',
  bmp: 'png',
};

/** A reference with percent signs that are none is taken as it stands. */
const safe = (href: string): string => (/%(?![0-9a-fA-F]{2})/.test(href) ? href.replace(/%/g, '%25') : href);

/** A drawing inside one of the size in which it is wanted; what it refers to outside is not fetched by the drawing port. */
function wrapped(bytes: Uint8Array, width: number, height: number): string {
  const scale = Math.min(VECTOR_PPI / 72, MOST_PIXELS / Math.max(width, height, 1));
  const [w, h] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const data = Buffer.from(bytes).toString('base64');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><image width="${w}" height="${h}" preserveAspectRatio="none" href="data:image/svg+xml;base64,${data}"/></svg>`;
}
