import { inflateSync } from 'node:zlib';
import { PDFArray, PDFRawStream } from '@cantoo/pdf-lib';
import type { PDFDict, PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import type { PicturePort } from '../../ports/ports.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import { at, nameOf, numberAt } from './pdfFile.ts';

/** Pictures larger than this are left to pdf.js, which has limits of its own. */
const MOST_PIXELS = 1 << 26;

/**
 * The pictures of a file, read from it as they are: pdf.js would decode each at its full size in JavaScript, and those that are
 * seen on several pages again, only for its colours to be averaged. `bytes` is the file with two pixels in place of each
 * picture that is read here, which say the number of its object: by that it is found where a page shows it.
 */
export interface FilePictures {
  bytes: Uint8Array;
  /** Average colours by the number of a picture's object; null where there is no picture of that number. */
  signature(object: number): Promise<Uint8Array> | null;
}

export function filePictures(bytes: Uint8Array, file: PDFDocument, port: PicturePort): FilePictures {
  const marked = Buffer.from(bytes);
  const readers = new Map<number, () => Promise<Uint8Array>>();
  const known = new Map<number, Promise<Uint8Array>>();
  for (const [{ objectNumber, generationNumber }, object] of file.context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFRawStream) || generationNumber !== 0) continue;
    const read = readerOf(object, port);
    if (read && mark(marked, objectNumber, object.contents.length)) readers.set(objectNumber, read);
  }
  return {
    bytes: new Uint8Array(marked.buffer, marked.byteOffset, marked.length),
    signature(object) {
      const read = readers.get(object);
      if (!read) return null;
      let signature = known.get(object);
      if (!signature) known.set(object, (signature = read().catch(() => new Uint8Array())));
      return signature;
    },
  };
}

/** An object's number as two pixels: it, and what is left of white. A picture of its own is hardly ever like that. */
function pixelsOf(object: number): Uint8Array {
  const number = [object >> 16, (object >> 8) & 255, object & 255];
  return Uint8Array.from([...number, ...number.map((byte) => 255 - byte)]);
}

/** The number that two pixels stand for; null where they are none of ours. */
export function objectOfPixels(pixels: Uint8Array | Uint8ClampedArray): number | null {
  const [red = 0, green = 0, blue = 0] = pixels;
  const object = (red << 16) | (green << 8) | blue;
  return pixels.length === 6 && pixelsOf(object).every((byte, i) => byte === pixels[i]) ? object : null;
}

/** What reads a picture of one of the kinds that are common; null for all else, which pdf.js reads. */
function readerOf({ dict, contents }: PDFRawStream, port: PicturePort): (() => Promise<Uint8Array>) | null {
  if (nameOf(at(dict, 'Subtype')) !== 'Image' || ['ImageMask', 'Mask', 'Decode', 'DecodeParms'].some((key) => at(dict, key))) return null;
  const colours = nameOf(at(dict, 'ColorSpace'));
  const [width, height] = [numberAt(dict, 'Width'), numberAt(dict, 'Height')];
  if ((colours !== 'DeviceRGB' && colours !== 'DeviceGray') || numberAt(dict, 'BitsPerComponent') !== 8) return null;
  if (!width || !height || width * height > MOST_PIXELS) return null;
  const cover = at(dict, 'SMask');
  const filter = filterOf(at(dict, 'Filter'));
  if (filter === 'DCTDecode' && !cover) return () => port.signature(contents, SIGNATURE_CELLS);
  if (filter !== 'FlateDecode' || colours !== 'DeviceRGB') return null;
  if (cover === undefined)
    return async () => port.signatureOfPixels(inflated(contents, width * height * 3), width, height, 3, SIGNATURE_CELLS);
  if (!(cover instanceof PDFRawStream) || !isCover(cover.dict, width, height)) return null;
  return async () => {
    const [pixels, opacity] = [inflated(contents, width * height * 3), inflated(cover.contents, width * height)];
    const both = new Uint8Array(width * height * 4);
    for (let i = 0, from = 0, to = 0; i < width * height; i++) {
      both[to++] = pixels[from++]!;
      both[to++] = pixels[from++]!;
      both[to++] = pixels[from++]!;
      both[to++] = opacity[i]!;
    }
    return port.signatureOfPixels(both, width, height, 4, SIGNATURE_CELLS);
  };
}

/** Whether a picture is the opacity of another of this size, one byte each (ISO 32000-1, 11.6.5.3). */
const isCover = (dict: PDFDict, width: number, height: number): boolean =>
  nameOf(at(dict, 'ColorSpace')) === 'DeviceGray' &&
  numberAt(dict, 'BitsPerComponent') === 8 &&
  numberAt(dict, 'Width') === width &&
  numberAt(dict, 'Height') === height &&
  filterOf(at(dict, 'Filter')) === 'FlateDecode' &&
  at(dict, 'DecodeParms') === undefined &&
  isPlain(at(dict, 'Decode'));

/** Whether values are meant as they are: it is said by many files, and is so where nothing is said. */
const isPlain = (decode: PDFObject | undefined): boolean =>
  decode === undefined || (decode instanceof PDFArray && decode.toString().replace(/\s+/g, ' ') === '[ 0 1 ]');

function filterOf(filter: PDFObject | undefined): string | undefined {
  return filter instanceof PDFArray && filter.size() === 1 ? nameOf(filter.lookup(0)) : nameOf(filter);
}

function inflated(contents: Uint8Array, length: number): Uint8Array {
  const bytes = inflateSync(contents, { maxOutputLength: length + 1 });
  if (bytes.length !== length) throw new Error('A picture has not the bytes for its pixels.');
  return bytes;
}

/** Puts two pixels in place of a picture, where it can be told for certain where that stands in the file. */
function mark(file: Buffer, object: number, length: number): boolean {
  const begin = `\n${object} 0 obj`;
  const start = file.indexOf(begin, 0, 'latin1');
  if (start < 0 || file.indexOf(begin, start + 1, 'latin1') >= 0) return false;
  const from = start + begin.length;
  const to = file.indexOf('stream', from, 'latin1');
  const pixels = pixelsOf(object);
  const dictionary = `<</Type/XObject/Subtype/Image/Width 2/Height 1/BitsPerComponent 8/ColorSpace/DeviceRGB/Length ${length}>>`;
  if (length < pixels.length || to - from < dictionary.length || !file.toString('latin1', from, to).includes('/Image')) return false;
  const data = to + 'stream'.length + (file[to + 'stream'.length] === 13 ? 2 : 1);
  file.fill(32, from, to);
  file.write(dictionary, from, 'latin1');
  file.set(pixels, data);
  return true;
}
