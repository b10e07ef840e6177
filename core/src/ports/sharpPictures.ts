import type { Metadata, Sharp } from 'sharp';
import { FolioError } from './ports.ts';
import { isOnWhite, seenThrough } from './whiteGround.ts';
import type { RawPixels } from './whiteGround.ts';
import type { EncodedPicture, PictureInfo, PicturePort } from './ports.ts';

/** More pixels than this are refused: 268 megapixels, about 1 GiB decoded. */
const PIXEL_LIMIT = 268_402_689;

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
    { maxWidth, quality, format = 'auto', progressive = true, thorough = false, throughWhite = false },
  ): Promise<EncodedPicture> {
    const meta = await this.info(bytes);
    const width = Math.max(1, Math.min(meta.width, Math.round(maxWidth)));
    const opaque = (await opened(bytes)).rotate().resize({ width, withoutEnlargement: true }).toColourspace('srgb');
    const through = throughWhite ? await withoutGround(opaque.clone()) : null;
    const resized = through ?? opaque;
    const wanted = format !== 'auto' ? format : meta.hasAlpha && !(await (await opened(bytes)).stats()).isOpaque ? 'png' : 'jpeg';
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
              : resized.flatten({ background: '#fff' }).jpeg({
                  quality,
                  ...(progressive ? { mozjpeg: true } : { trellisQuantisation: true, overshootDeringing: true, quantisationTable: 3 }),
                });
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
  signatureOfPixels: async (pixels, width, height, channels, cells) =>
    grid((await libvips())(pixels, { raw: { width, height, channels } }), cells),
};

const rawPixels = async (image: Sharp): Promise<RawPixels> => {
  const { data, info } = await image.toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
};

/** The picture without the white around what it shows; null where it stands on none. */
async function withoutGround(image: Sharp): Promise<Sharp | null> {
  const pixels = await rawPixels(image);
  if (!isOnWhite(pixels)) return null;
  const { width, height } = pixels;
  return (await libvips())(seenThrough(pixels), { raw: { width, height, channels: 4 } });
}

/** Pixels across to which a picture is made smaller before its cells are averaged: enough for every line of it to count. */
const AVERAGED = 512;

/** Averages over the cells of a grid. Made small in one go, thin lines would fall through between the points that are looked at. */
async function grid(image: Sharp, cells: number): Promise<Uint8Array> {
  const { data, info } = await image
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .removeAlpha()
    .resize({ width: AVERAGED, height: AVERAGED, fit: 'inside', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const sums = new Float64Array(cells * cells * 3);
  const counts = new Float64Array(cells * cells);
  const columns = Int32Array.from({ length: width }, (_, x) => Math.floor((x * cells) / width));
  const [second, third] = channels < 3 ? [0, 0] : [1, 2];
  let at = 0;
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y * cells) / height) * cells;
    for (let x = 0; x < width; x++, at += channels) {
      const cell = row + columns[x]!;
      counts[cell]!++;
      sums[cell * 3]! += data[at]!;
      sums[cell * 3 + 1]! += data[at + second]!;
      sums[cell * 3 + 2]! += data[at + third]!;
    }
  }
  // A picture of fewer pixels than cells leaves some empty.
  return Uint8Array.from(sums, (sum, i) => Math.round(sum / Math.max(1, counts[Math.floor(i / 3)]!)));
}
