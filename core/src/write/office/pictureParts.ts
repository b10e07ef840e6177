import type { Blip } from '../ooxml/drawing/blip.ts';
import { shortHash } from '../assets/encodePictures.ts';
import type { FlowImage } from '../reflow/flowPictures.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';

const ENDINGS: Record<string, string> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/tiff': 'tiff', 'image/svg+xml': 'svg' };

/** A picture as it was made for the file: `fallback` is the same in pixels, where it is made of lines. */
export interface MadeImage {
  image: FlowImage;
  fallback: FlowImage | null;
}

/** The files of pictures: each once, whatever shows it; in the package, or in a folder beside it. */
export class PictureParts {
  /** Files that lie beside the document, where pictures are not put into it. */
  readonly beside = new Map<string, FlowImage>();

  constructor(
    private readonly pack: OfficePackage,
    private readonly folder: string,
    private readonly place: 'inside' | 'beside',
  ) {}

  /** How a part speaks of a picture; of one made of lines, with the same in pixels. */
  blip({ image, fallback }: MadeImage, part: Part): Blip {
    if (fallback) return { ...this.named(fallback, part), svg: part.relate(`${OFFICE}/image`, this.file(image)) };
    return this.named(image, part);
  }

  private named(image: FlowImage, part: Part): Blip {
    if (this.place === 'inside') return { embed: part.relate(`${OFFICE}/image`, this.file(image)) };
    const path = `pictures/${pictureFileName(image)}`;
    this.beside.set(path, image);
    return { link: part.relateOutside(`${OFFICE}/image`, path) };
  }

  private file(image: FlowImage): Part {
    const path = `${this.folder}/${pictureFileName(image)}`;
    return this.pack.get(path) ?? this.pack.add(path, image.mediaType, image.bytes);
  }
}

/** The name of a picture’s file, by what is in it. */
export const pictureFileName = (image: Pick<FlowImage, 'bytes' | 'mediaType'>): string =>
  `${shortHash(image.bytes)}.${ENDINGS[image.mediaType] ?? 'bin'}`;
