import { FontFace } from '../compose/fontFace.ts';
import type { MediaFile } from '../folio/head.ts';
import type { Folio } from '../folio/folio.ts';
import type { DerivedStore, EncodedPicture, PictureOptions, PicturePort } from './ports.ts';
import { decodesOnce } from './decodesOnce.ts';
import { shippedFontSource } from './shippedFonts.ts';

/** How large a stand-in is at most, and where nothing is known of the picture, in pixels. */
const MOST = 1200;
const UNKNOWN = { width: 900, height: 600 };
const WORDS = 'This picture is damaged';
const FAMILY = 'Work Sans';

interface Reading {
  media: (id: string) => Promise<Uint8Array>;
  pictures: PicturePort;
  derived: DerivedStore;
}

const isPicture = (file: MediaFile): boolean => file.mediaType.startsWith('image/');

/**
 * A document with stand-ins for its damaged pictures, so that no output fails for one of them: each says that it is one, and is as
 * large. `damaged` has the names of their files. Whether a file can be decoded is known from bringing it in, or looked up once.
 */
export async function withStandIns(
  folio: Folio,
  reading: Reading,
): Promise<{ folio: Folio; media: Reading['media']; damaged: ReadonlySet<string> }> {
  const damaged = new Set<string>();
  for (const file of Object.values(folio.head.media))
    if (isPicture(file) && (file.damaged || !(await decodes(file, reading)))) damaged.add(file.id);
  if (!damaged.size) return { folio, media: reading.media, damaged };
  const made = new Map<string, Promise<Uint8Array>>();
  const media = { ...folio.head.media };
  for (const id of damaged) {
    const file = media[id]!;
    media[id] = { ...file, ...sizeOf(file), colours: 'rgb', damaged: true };
  }
  return {
    folio: { ...folio, head: { ...folio.head, media } },
    damaged,
    media(id) {
      if (!damaged.has(id)) return reading.media(id);
      let bytes = made.get(id);
      if (!bytes) made.set(id, (bytes = standIn(media[id]!, reading.pictures)));
      return bytes;
    },
  };
}

/** A file that is not there cannot be decoded either, but that is not kept: it may be back the next time. */
const decodes = ({ id, sha256 }: MediaFile, reading: Reading): Promise<boolean> =>
  decodesOnce(sha256, () => reading.media(id), reading).catch(() => false);

function sizeOf({ width, height }: MediaFile): { width: number; height: number } {
  if (!width || !height) return UNKNOWN;
  const scale = Math.min(1, MOST / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

/** A picture no wider than asked, or its stand-in where it is damaged. */
export async function encodedOrStandIn(
  file: MediaFile,
  bytes: Uint8Array,
  pictures: PicturePort,
  options: PictureOptions,
): Promise<EncodedPicture> {
  try {
    return await pictures.encode(bytes, options);
  } catch {
    return pictures.encode(await standIn(file, pictures), options);
  }
}

/** A grey field with a line across and the words in it, in the format of the picture for which it stands. */
async function standIn(file: MediaFile, pictures: PicturePort): Promise<Uint8Array> {
  const { width, height } = sizeOf(file);
  const stroke = Math.max(1, Math.round(Math.min(width, height) / 150));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#e6e6e6"/><path d="M0 0L${width} ${height}M0 ${height}L${width} 0" stroke="#bbb" stroke-width="${stroke}"/>${await words(width, height)}</svg>`;
  const format = file.mediaType === 'image/jpeg' ? 'jpeg' : file.mediaType === 'image/webp' ? 'webp' : 'png';
  return (await pictures.encode(await pictures.drawSvg(svg, 'picture'), { maxWidth: width, quality: 90, format })).bytes;
}

/** The words as outlines: a machine without fonts draws them all the same. */
async function words(width: number, height: number): Promise<string> {
  const source = await shippedFontSource();
  const entry = source.list().find((f) => f.family === FAMILY && f.style === 'normal');
  if (!entry) return '';
  const face = new FontFace(entry.key, entry.family, entry.weight, entry.style, await source.bytes(entry.key));
  let [x, glyphs] = [0, ''];
  for (const letter of WORDS) {
    const gid = face.glyphFor(letter.codePointAt(0)!);
    glyphs += `<path transform="translate(${x} 0)" d="${face.outline(gid)}"/>`;
    x += face.advanceOf(gid);
  }
  const scale = Math.min((width * 0.8) / x, (height * 0.2) / face.unitsPerEm);
  const [left, base] = [(width - x * scale) / 2, height / 2 + (face.capHeight * scale) / 2];
  const [ground, tall] = [face.unitsPerEm * 0.4 * scale, face.capHeight * scale];
  return `<rect x="${left - ground}" y="${base - tall - ground}" width="${x * scale + 2 * ground}" height="${tall + 2 * ground}" fill="#e6e6e6"/><g fill="#444" transform="translate(${left} ${base}) scale(${scale} ${-scale})">${glyphs}</g>`;
}
