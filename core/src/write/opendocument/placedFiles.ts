import type { Item } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { WriteJob } from '../writer.ts';
import type { FlowImage } from '../reflow/flowPictures.ts';
import { DrawnLooks } from '../office/drawnLooks.ts';
import type { DrawnBox } from '../office/drawnLooks.ts';
import { pictureFileName } from '../office/pictureParts.ts';
import { OPEN_DOCUMENT } from '../office/placedFormat.ts';
import { PlacedPictures } from '../office/placedPictures.ts';
import type { PlacedPictureSettings } from '../office/placedPictures.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { OdfFile } from './odfPackage.ts';
import type { OdfDrawing, OdfDrawn, OdfPicture } from './odfSources.ts';

/** Files of a package, and those that lie in a folder beside it. */
export class OdfFiles {
  readonly inside = new Map<string, OdfFile>();
  readonly beside = new Map<string, OdfFile>();

  constructor(private readonly place: 'inside' | 'beside' | 'none') {}

  /** Puts a picture among them, and gives its address. */
  picture({ bytes, mediaType }: Pick<FlowImage, 'bytes' | 'mediaType'>): string {
    const isBeside = this.place === 'beside';
    const path = `${isBeside ? 'pictures' : 'Pictures'}/${pictureFileName({ bytes, mediaType })}`;
    (isBeside ? this.beside : this.inside).set(path, { path, mediaType, content: bytes });
    // Seen from inside the package (part 2, 3.7).
    return isBeside ? `../${path}` : path;
  }
}

/** Pictures of pages, and what is drawn of looks that the format has no words for, as files. */
export class PlacedFiles {
  private constructor(
    private readonly files: OdfFiles,
    private readonly pictures: PlacedPictures,
    readonly looks: DrawnLooks,
  ) {}

  static async of(job: WriteJob<PlacedPictureSettings>, scope: Scope, files: OdfFiles): Promise<PlacedFiles> {
    return new PlacedFiles(files, await PlacedPictures.of(job, scope, OPEN_DOCUMENT), await DrawnLooks.of(job, scope, OPEN_DOCUMENT));
  }

  /** The picture of an item in its place; null where it has none. */
  picture(at: PageItem, place: PagePlace): OdfPicture | null {
    const picture = this.pictures.at(at, place);
    if (!picture) return null;
    const { image, crop, at: box } = picture;
    return {
      href: this.files.picture(image),
      natural: { width: (image.width * 72) / 96, height: (image.height * 72) / 96 },
      crop,
      ...(!crop && { drawnAt: { x: box.x, y: box.y, width: box.width, height: box.height } }),
    };
  }

  drawn(item: Item): OdfDrawn {
    const { under, over, instead } = this.looks.of(item);
    const drawing = ({ image, ...box }: DrawnBox): OdfDrawing => ({ href: this.files.picture(image), ...box });
    const { effects: told } = this.looks.told(item);
    return { told, under: under.map(drawing), over: over.map(drawing), instead: instead && drawing(instead) };
  }
}
