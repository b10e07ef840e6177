import type { PagePlace } from '../../folio/traverse.ts';
import { blipFill } from '../ooxml/drawing/blip.ts';
import { rectangle } from '../ooxml/drawing/geometry.ts';
import { transformXml } from '../ooxml/drawing/placement.ts';
import type { Part } from '../ooxml/officePackage.ts';
import type { DrawnBox, DrawnLooks } from '../office/drawnLooks.ts';
import type { PictureParts } from '../office/pictureParts.ts';
import type { PlacedPicture, PlacedPictures } from '../office/placedPictures.ts';
import type { Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import { anchorXml } from './wordAnchors.ts';
import type { DrawingFacts } from './wordAnchors.ts';
import { PICTURE } from './wordPictures.ts';

/** How far apart things of a page lie from back to front: what is drawn of their looks lies between. */
export const DEPTHS = 100;

/** Pictures of pages, anchored in their places. */
export class LaidPictures {
  constructor(
    private readonly placed: PlacedPictures,
    private readonly files: PictureParts,
    readonly looks: DrawnLooks,
  ) {}

  /** What is drawn of an item’s look, anchored where it lies. */
  drawn({ image, box }: DrawnBox, { page }: PagePlace, z: number, facts: DrawingFacts, part: Part, opacity: number): Xml {
    const at = { ...box, x: box.x - page.box.x, y: box.y - page.box.y, rotation: 0, flipV: false };
    return this.xml({ image, fallback: null, crop: null, at, opacity, around: [rectangle()] }, z, facts, part);
  }

  /** The picture of an item in its place; null where it has none. */
  anchored(item: PageItem, place: PagePlace, z: number, facts: DrawingFacts, part: Part): Xml | null {
    const picture = this.placed.at(item, place);
    return picture && this.xml(picture, z * DEPTHS, facts, part);
  }

  private xml(picture: PlacedPicture, z: number, facts: DrawingFacts, part: Part): Xml {
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
    return el('w:r', {}, anchorXml({ ...at, z }, facts, graphic));
  }
}
