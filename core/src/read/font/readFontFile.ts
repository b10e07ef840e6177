import wawoff from 'wawoff2';
import { FontFace } from '../../compose/fontFace.ts';
import { FontError, tableOf } from '../../compose/fontTables.ts';
import { nameOf } from './fontNames.ts';
import { unpackWoff } from './woff.ts';
import { FolioError } from '../../ports/ports.ts';

/** What a font file says of itself, with its bytes as TrueType or OpenType. */
export interface FontFacts {
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  fullName: string;
  mayEmbed: boolean;
  bytes: Uint8Array;
}

/** Fonts are smaller than this, also those for Chinese and Japanese (common practice); unpacked ones too. */
const MOST_BYTES = 64 * 2 ** 20;
const ADVICE = 'Choose a TTF, OTF, WOFF or WOFF2 file.';

/** Reads a font file of any of the four kinds; throws a FolioError with a sentence for a person on anything else. */
export async function readFontFile(file: Uint8Array): Promise<FontFacts> {
  if (file.length > MOST_BYTES) throw new FolioError('font.tooLarge', 'The file is larger than 64 MiB.', ADVICE);
  let bytes: Uint8Array;
  try {
    bytes = await unpacked(file);
    // Opening it checks its tables; family, weight and style are then read from them.
    const face = new FontFace('new', 'new', 400, 'normal', bytes);
    const table = (tag: string) => tableOf(bytes, tag);
    const family = nameOf(table('name'), [16, 1]) ?? '';
    if (!family) throw new FontError('The font has no name.');
    const os2 = table('OS/2');
    const head = table('head');
    const weight = os2 && os2.length >= 6 ? (os2[4]! << 8) | os2[5]! : 400;
    const selection = os2 && os2.length >= 64 ? os2[63]! & 1 : 0;
    const italic = selection || (head && head.length >= 46 ? head[45]! & 2 : 0);
    return {
      family,
      weight: weight >= 1 && weight <= 1000 ? weight : 400,
      style: italic ? 'italic' : 'normal',
      fullName: face.fullName === 'new' ? family : face.fullName,
      mayEmbed: face.mayEmbed,
      bytes,
    };
  } catch (error) {
    if (error instanceof FolioError || error instanceof WebAssembly.RuntimeError) throw error;
    throw new FolioError('font.unreadable', error instanceof FontError ? error.message : 'The font cannot be read.', ADVICE);
  }
}

async function unpacked(file: Uint8Array): Promise<Uint8Array> {
  const kind = String.fromCharCode(...file.subarray(0, 4));
  if (kind === 'wOFF') return unpackWoff(file, MOST_BYTES);
  if (kind === 'ttcf') throw new FontError('The file holds several fonts in one; Elastic Folio takes one font a file.');
  if (kind !== 'wOF2') return file;
  // WOFF2 (W3C), section 4.1: totalSfntSize.
  const size = file.length > 20 ? new DataView(file.buffer, file.byteOffset).getUint32(16) : 0;
  if (size > MOST_BYTES) throw new FontError('The font is larger than 64 MiB when it is unpacked.');
  return Uint8Array.from(await wawoff.decompress(Buffer.from(file)));
}
