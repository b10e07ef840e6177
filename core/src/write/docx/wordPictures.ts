import { isAddressOfWeb } from '../../folio/address.ts';
import type { Item } from '../../folio/items.ts';
import { blipFill } from '../ooxml/drawing/blip.ts';
import { emu } from '../ooxml/lengths.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { Part } from '../ooxml/officePackage.ts';
import type { MadeImage, PictureParts } from '../office/pictureParts.ts';
import type { Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';

export const PICTURE = 'http://schemas.openxmlformats.org/drawingml/2006/picture';

/** A picture of running text as it was made for the file. */
export interface MadePicture extends MadeImage {
  /** In the layout, in points. */
  width: number;
}

/** Pictures in the lines of a text document. */
export class WordPictures {
  constructor(
    private readonly files: PictureParts,
    private readonly made: ReadonlyMap<string, MadePicture>,
    /** Numbers of drawings stand once in a document (20.4.2.5). */
    private readonly nextId: () => number,
  ) {}

  of(item: Item): MadePicture | null {
    return this.made.get(item.id) ?? null;
  }

  /** The picture of an item in a line, so many points wide; `part`: the one that shows it. Null where it has none. */
  inline(item: Item, part: Part, width: number): Xml | null {
    const made = this.made.get(item.id);
    if (!made) return null;
    const { image } = made;
    const height = (width * image.height) / image.width;
    const id = this.nextId();
    const name = item.name ?? `${item.kind} ${id}`;
    const size = { cx: Math.max(1, emu(width)), cy: Math.max(1, emu(height)) };
    const leads =
      item.kind === 'embed' && item.source.from === 'address' && isAddressOfWeb(item.source.href) ? item.source.href.trim() : null;
    const link = leads === null ? null : el('a:hlinkClick', { 'r:id': part.relateOutside(`${OFFICE}/hyperlink`, leads) });
    const blip = this.files.blip(made, part);
    return el(
      'w:drawing',
      {},
      el(
        'wp:inline',
        { distT: 0, distB: 0, distL: 0, distR: 0 },
        el('wp:extent', size),
        el('wp:docPr', { id, name, descr: item.alt ?? '' }, link),
        el('wp:cNvGraphicFramePr', {}, el('a:graphicFrameLocks', { noChangeAspect: 1 })),
        el(
          'a:graphic',
          {},
          el(
            'a:graphicData',
            { uri: PICTURE },
            el(
              'pic:pic',
              {},
              el('pic:nvPicPr', {}, el('pic:cNvPr', { id, name }), el('pic:cNvPicPr')),
              blipFill('pic', blip),
              el(
                'pic:spPr',
                {},
                el('a:xfrm', {}, el('a:off', { x: 0, y: 0 }), el('a:ext', size)),
                el('a:prstGeom', { prst: 'rect' }, el('a:avLst')),
              ),
            ),
          ),
        ),
      ),
    );
  }
}
