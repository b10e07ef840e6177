import type { JpegOptions, Metadata, Sharp } from 'sharp';
import { FolioError } from './ports.ts';
import { isOnWhite, seenThrough } from './whiteGround.ts';
import type { RawPixels } from './whiteGround.ts';
import type { EncodedPicture, PictureInfo, PicturePort } from './ports.ts';

/** More pixels than this are refused: 268 megapixels, about 1 GiB decoded. */
const PIXEL_LIMIT = 268_402_689;

/** Pictures of no more pixels are held in memory as they are worked with: 64 MiB. */
const HELD_PIXELS = 16_777_216;

/** libvips is loaded with the first picture: much is done without any. */
const libvips = async (): Promise<(typeof import('sharp'))['default']> => (await import('sharp')).default;

const opened = async (bytes: Uint8Array): Promise<Sharp> => (await libvips())(bytes, { limitInputPixels: PIXEL_LIMIT, failOn: 'error' });

/** Without bytes it throws at once, not as it is asked. */
const headOf = async (bytes: Uint8Array): Promise<Metadata> => (await libvips())(bytes, { limitInputPixels: false }).metadata();

/** Pictures by libvips. */
export const sharpPictures: PicturePort = {
  async info(bytes): Promise<PictureInfo> {
    const meta = await headOf(bytes).catch(() => {
      throw new FolioError('picture.unreadable', 'it is not a picture that can be read', 'Save it again as PNG or JPEG.');
    });
    if (meta.width * meta.height > PIXEL_LIMIT)
      throw new FolioError(
        'picture.tooLarge',
        `it has ${meta.width} × ${meta.height} pixels, more than can be worked with`,
        'Scale it down and place it again.',
      );
    const colours = meta.space === 'cmyk' ? 'cmyk' : meta.space === 'b-w' || meta.space === 'grey16' ? 'grey' : 'rgb';
    return { width: meta.width, height: meta.height, format: meta.format, hasAlpha: meta.hasAlpha, colours, density: meta.density };
  },

  async decodes(bytes) {
    try {
      // Made small row by row: every byte is looked at, and next to nothing is kept.
      const sharp = await libvips();
      await sharp(bytes, { limitInputPixels: PIXEL_LIMIT, failOn: 'error', sequentialRead: true })
        .resize(16, 16, { fit: 'inside' })
        .raw()
        .toBuffer();
      return true;
    } catch {
      return false;
    }
  },

  async encode(
    bytes,
    { maxWidth, quality, format = 'auto', progressive = true, thorough = false, quick = false, throughWhite = false },
  ): Promise<EncodedPicture> {
    const meta = await this.info(bytes);
    const width = Math.max(1, Math.min(meta.width, Math.round(maxWidth)));
    const { image: whole, shownThrough } = await decodedOnce(bytes, meta);
    const ground = whole.resize({ width, withoutEnlargement: true }).toColourspace('srgb');
    const through = throughWhite ? await withoutGround(ground.clone()) : null;
    const resized = through ?? ground;
    const wanted = format !== 'auto' ? format : shownThrough ? 'png' : 'jpeg';
    const chosen = through && wanted === 'jpeg' ? 'png' : wanted;
    const image =
      chosen === 'png'
        ? resized.png(thorough ? { palette: true, quality, effort: 10 } : { compressionLevel: 9 })
        : chosen === 'webp'
          ? resized.webp({ quality, effort: thorough ? 6 : 4 })
          : chosen === 'avif'
            ? // Its scale is another one: 82 of a JPEG looks as 60 does here (common practice).
              resized.avif({ quality: Math.round(quality * 0.73), effort: thorough ? 6 : 3 })
            : chosen === 'tiff'
              ? resized.tiff({ compression: 'lzw', predictor: 'horizontal' })
              : resized.flatten({ background: '#fff' }).jpeg({ quality, ...jpegCoding(progressive, quick) });
    const out = await image.toBuffer({ resolveWithObject: true });
    return { bytes: new Uint8Array(out.data), mediaType: `image/${chosen}`, width: out.info.width, height: out.info.height };
  },

  async hasWhiteGround(bytes) {
    const pixels = await rawPixels(
      (await opened(bytes)).rotate().resize({ width: 400, height: 400, fit: 'inside', withoutEnlargement: true }),
    );
    return isOnWhite(pixels);
  },

  async drawSvg(svg, show) {
    const sharp = await libvips();
    const image = sharp(Buffer.from(svg), { limitInputPixels: PIXEL_LIMIT, unlimited: true });
    if (show === 'picture') return new Uint8Array(await image.png({ compressionLevel: 9 }).toBuffer());
    // As raw numbers in between: made a picture at once, the values would be bent as if they were light.
    const { data, info } = await image.ensureAlpha().extractChannel('alpha').raw().toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    const grey = sharp(data, { raw: { width, height, channels: 1 } }).toColourspace('b-w');
    return new Uint8Array(await grey.png({ compressionLevel: 9 }).toBuffer());
  },

  async signature(bytes, cells, region) {
    if (!region || (region.width > 0.999 && region.height > 0.999)) return grid(await opened(bytes), cells);
    const { width, height } = await this.info(bytes);
    const at = { left: Math.floor(region.x * width), top: Math.floor(region.y * height) };
    const size = { width: Math.round(region.width * width), height: Math.round(region.height * height) };
    const within = {
      width: Math.max(1, Math.min(size.width, width - at.left)),
      height: Math.max(1, Math.min(size.height, height - at.top)),
    };
    return grid((await opened(bytes)).extract({ ...at, ...within }), cells);
  },
  signatureOfPixels: async (pixels, width, height, channels, cells) => averages(pixels, width, height, channels, cells),
};

const rawPixels = async (image: Sharp): Promise<RawPixels> => {
  const { data, info } = await image.toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
};

/** How a JPEG is coded. Quantised and searched as MozJPEG does, whose table of quantisation (3) stays where there is no search. */
function jpegCoding(progressive: boolean, quick: boolean): JpegOptions {
  if (quick) return { progressive, quantisationTable: 3 };
  return progressive ? { mozjpeg: true } : { trellisQuantisation: true, overshootDeringing: true, quantisationTable: 3 };
}

/**
 * A picture the right way up, and whether anything shows through: most programs write every picture with its opacity. Where there is
 * one, the picture is decoded here, and goes on as its pixels; of a very large one the opacity alone is, and the rest row by row.
 */
async function decodedOnce(bytes: Uint8Array, { width, height, hasAlpha }: PictureInfo): Promise<{ image: Sharp; shownThrough: boolean }> {
  const upright = (await opened(bytes)).rotate();
  if (!hasAlpha) return { image: upright, shownThrough: false };
  if (width * height > HELD_PIXELS) {
    const opacity = await (await opened(bytes)).extractChannel('alpha').raw().toBuffer();
    return { image: upright, shownThrough: isSeenThrough(opacity, 0, 1) };
  }
  const pixels = await rawPixels(upright);
  const image = (await libvips())(pixels.data, { raw: { width: pixels.width, height: pixels.height, channels: 4 } });
  const shownThrough = isSeenThrough(pixels.data, 3, 4);
  return { image: shownThrough ? image : image.removeAlpha(), shownThrough };
}

/** Whether any opacity, every `step` bytes from `from`, is less than whole. */
function isSeenThrough(pixels: Uint8Array, from: number, step: number): boolean {
  for (let at = from; at < pixels.length; at += step) if (pixels[at]! < 255) return true;
  return false;
}

/** The picture without the white around what it shows; null where it stands on none. */
async function withoutGround(image: Sharp): Promise<Sharp | null> {
  const pixels = await rawPixels(image);
  if (!isOnWhite(pixels)) return null;
  const { width, height } = pixels;
  return (await libvips())(seenThrough(pixels), { raw: { width, height, channels: 4 } });
}

/** Pictures of more pixels are made smaller before the colours of their cells are averaged, to so many across. */
const AVERAGED_PIXELS = 1_000_000;
const AVERAGED = 1024;
/** A JPEG comes smaller as it is decoded, at next to no cost: its blocks are averages already. */
const AVERAGED_JPEG = 256;

async function grid(image: Sharp, cells: number): Promise<Uint8Array> {
  const { width, height, format } = await image.metadata();
  const coloured = image.toColourspace('srgb');
  const across = format === 'jpeg' ? AVERAGED_JPEG : width * height > AVERAGED_PIXELS ? AVERAGED : null;
  const small = across ? coloured.resize({ width: across, height: across, fit: 'inside', withoutEnlargement: true }) : coloured;
  const { data, info } = await small.raw().toBuffer({ resolveWithObject: true });
  return averages(data, info.width, info.height, info.channels, cells);
}

/** Averages over the cells of a grid, on white: of every pixel, so that thin lines do not fall through between those looked at. */
function averages(pixels: Uint8Array, width: number, height: number, channels: number, cells: number): Uint8Array {
  const out = new Uint8Array(cells * cells * 3);
  const edge = (cell: number, length: number): number => Math.ceil((cell * length) / cells);
  for (let row = 0; row < cells; row++)
    for (let column = 0; column < cells; column++) {
      const part = { left: edge(column, width), right: edge(column + 1, width), top: edge(row, height), bottom: edge(row + 1, height) };
      out.set(averageOf(pixels, width, channels, part), (row * cells + column) * 3);
    }
  return out;
}

/** The average colour of a part of a picture; none where it has no pixel, as in pictures of fewer than there are cells. */
function averageOf(
  pixels: Uint8Array,
  width: number,
  channels: number,
  { left, right, top, bottom }: { left: number; right: number; top: number; bottom: number },
): [number, number, number] {
  const count = (right - left) * (bottom - top);
  if (!count) return [0, 0, 0];
  const [second, third] = channels < 3 ? [0, 0] : [1, 2];
  const opacity = channels === 2 || channels === 4 ? channels - 1 : -1;
  let red = 0;
  let green = 0;
  let blue = 0;
  // Rows are summed on their own: their sums are small integers, which engines add fastest.
  for (let y = top; y < bottom; y++) {
    const end = (y * width + right) * channels;
    let r = 0;
    let g = 0;
    let b = 0;
    for (let at = (y * width + left) * channels; at < end; at += channels) {
      // On white, in parts of 255 × 255.
      const cover = opacity < 0 ? 255 : pixels[at + opacity]!;
      const ground = (255 - cover) * 255;
      r += pixels[at]! * cover + ground;
      g += pixels[at + second]! * cover + ground;
      b += pixels[at + third]! * cover + ground;
    }
    red += r;
    green += g;
    blue += b;
  }
  const whole = count * 255;
  return [Math.round(red / whole), Math.round(green / whole), Math.round(blue / whole)];
}
