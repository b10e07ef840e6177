import type { Folio } from '../../folio/folio.ts';
import type { Item, Media } from '../../folio/items.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { Blip } from '../ooxml/drawing/blip.ts';
import { shortHash } from '../assets/encodePictures.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el } from '../assets/xml.ts';
import type { PagePlace } from '../../folio/traverse.ts';

/** By which programs of today know a film or sound that is in the file ([MS-PPTX] 2.2.8: `media`). */
const MEDIA = { uri: '{DAA4B4D4-6D71-4841-9C94-3DE7FCFB9230}', relation: 'http://schemas.microsoft.com/office/2007/relationships/media' };
const NAMESPACE = 'http://schemas.microsoft.com/office/powerpoint/2010/main';
const ENDINGS: Record<string, string> = {
  'video/mp4': 'mp4',
  'video/webm': 'webm',
  'video/quicktime': 'mov',
  'audio/mpeg': 'mp3',
  'audio/mp4': 'm4a',
  'audio/wav': 'wav',
  'audio/x-wav': 'wav',
  'audio/ogg': 'ogg',
};

/** One clear pixel, for sounds and films that nothing stands for. */
const CLEAR = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==', 'base64');

/** Films and sounds of a deck: each file once, whatever plays it. */
export class SlideMedia {
  private constructor(
    private readonly folio: Folio,
    private readonly pack: OfficePackage,
    private readonly parts: ReadonlyMap<string, Part>,
  ) {}

  /** Takes the files that these pages play. */
  static async of(
    { folio, media }: { folio: Folio; media(id: string): Promise<Uint8Array> },
    pack: OfficePackage,
    pages: readonly PagePlace[],
    shown: (item: Item) => boolean,
  ): Promise<SlideMedia> {
    const parts = new Map<string, Part>();
    for (const { spread } of pages)
      for (const item of Object.values(spread.items)) {
        const file = shown(item) ? playedFile(folio, item) : null;
        if (!file || parts.has(file.id)) continue;
        const bytes = await media(file.id);
        const path = `ppt/media/${shortHash(bytes)}.${ENDINGS[file.mediaType] ?? 'bin'}`;
        parts.set(file.id, pack.get(path) ?? pack.add(path, file.mediaType, bytes));
      }
    return new SlideMedia(folio, pack, parts);
  }

  /** None of them. */
  static none(folio: Folio, pack: OfficePackage): SlideMedia {
    return new SlideMedia(folio, pack, new Map());
  }

  /** Whether what plays is a film or a sound; null where nothing does. */
  kindOf(item: Item): 'video' | 'audio' | null {
    const file = playedFile(this.folio, item);
    return file && this.parts.has(file.id) ? (file.mediaType.startsWith('video/') ? 'video' : 'audio') : null;
  }

  /** What a picture says of the film or sound that it stands for (ISO/IEC 29500-1, 20.1.3); null where it plays none. */
  of(item: Media, part: Part): Xml | null {
    const file = playedFile(this.folio, item);
    const played = file && this.parts.get(file.id);
    const kind = this.kindOf(item);
    if (!played || !kind) return null;
    return all(
      el(kind === 'video' ? 'a:videoFile' : 'a:audioFile', { 'r:link': part.relate(`${OFFICE}/${kind}`, played) }),
      el(
        'p:extLst',
        {},
        el('p:ext', { uri: MEDIA.uri }, el('p14:media', { 'xmlns:p14': NAMESPACE, 'r:embed': part.relate(MEDIA.relation, played) })),
      ),
    );
  }

  empty(part: Part): Blip {
    const path = 'ppt/media/clear.png';
    return { embed: part.relate(`${OFFICE}/image`, this.pack.get(path) ?? this.pack.add(path, 'image/png', new Uint8Array(CLEAR))) };
  }
}
