import type { PagePlace } from '../../folio/traverse.ts';
import { blipFill } from '../shared/drawingml/blip.ts';
import { transformXml } from '../shared/drawingml/placement.ts';
import type { Part } from '../shared/office/officePackage.ts';
import type { PictureParts } from '../shared/office/pictureParts.ts';
import type { PlacedPictures } from '../shared/office/placedPictures.ts';
import type { Xml } from '../shared/office/xml.ts';
import { el } from '../shared/office/xml.ts';
import type { PageItem } from '../shared/paintedPage.ts';
import { anchorXml } from './wordAnchors.ts';
import type { DrawingFacts } from './wordAnchors.ts';
import { PICTURE } from './wordPictures.ts';

/** Pictures of pages, anchored in their places. */
export class LaidPictures {
  constructor(
    private readonly placed: PlacedPictures,
    private readonly files: PictureParts,
  ) {}

  /** The picture of an item in its place; null where it has none. */
  anchored(item: PageItem, place: PagePlace, z: number, facts: DrawingFacts, part: Part): Xml | null {
    const picture = this.placed.at(item, place);
    if (!picture) return null;
    const { at, crop, opacity, around } = picture;
    const graphic = el(
      'a:graphicData',
      { uri: PICTURE },
      el(
        'pic:pic',
        {},
        el('pic:nvPicPr', {}, el('pic:cNvPr', { id: facts.id, name: facts.name }), el('pic:cNvPicPr')),
        blipFill('pic', { ...this.files.blip(picture, part), crop: crop ?? undefined, opacity }),
        el('pic:spPr', {}, transformXml('a:xfrm', at, { x: 0, y: 0 }), around),
      ),
    );
    return el('w:r', {}, anchorXml({ ...at, z: z * 10 }, facts, graphic));
  }
}
