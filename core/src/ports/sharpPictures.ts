import sharp from 'sharp';
import type { Sharp } from 'sharp';
import { FolioError } from './ports.ts';
import type { EncodedPicture, PictureInfo, PicturePort } from './ports.ts';

/** More pixels than this are refused: 268 megapixels, about 1 GiB decoded. */
const PIXEL_LIMIT = 268_402_689;

const opened = (bytes: Uint8Array): Sharp => sharp(bytes, { limitInputPixels: PIXEL_LIMIT, failOn: 'error' });

/** Pictures by libvips. */
export const sharpPictures: PicturePort = {
  async info(bytes): Promise<PictureInfo> {
    const meta = await sharp(bytes, { limitInputPixels: false })
      .metadata()
      .catch(() => {
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

  async encode(bytes, { maxWidth, quality }): Promise<EncodedPicture> {
    const meta = await this.info(bytes);
    const width = Math.max(1, Math.min(meta.width, Math.round(maxWidth)));
    const resized = opened(bytes).rotate().resize({ width, withoutEnlargement: true }).toColourspace('srgb');
    const alpha = meta.hasAlpha && !(await opened(bytes).stats()).isOpaque;
    const out = await (
      alpha ? resized.png({ compressionLevel: 9 }) : resized.flatten({ background: '#fff' }).jpeg({ quality, mozjpeg: true })
    ).toBuffer({ resolveWithObject: true });
    return {
      bytes: new Uint8Array(out.data),
      mediaType: alpha ? 'image/png' : 'image/jpeg',
      width: out.info.width,
      height: out.info.height,
    };
  },

  async drawSvg(svg, show) {
    const image = sharp(Buffer.from(svg), { limitInputPixels: PIXEL_LIMIT, unlimited: true });
    if (show === 'picture') return new Uint8Array(await image.png({ compressionLevel: 9 }).toBuffer());
    // As raw numbers in between: made a picture at once, the values would be bent as if they were light.
    const { data, info } = await image.ensureAlpha().extractChannel('alpha').raw().toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    const grey = sharp(data, { raw: { width, height, channels: 1 } }).toColourspace('b-w');
    return new Uint8Array(await grey.png({ compressionLevel: 9 }).toBuffer());
  },

  signature: (bytes, cells) => grid(opened(bytes), cells),
  signatureOfPixels: (pixels, width, height, channels, cells) => grid(sharp(pixels, { raw: { width, height, channels } }), cells),
};

async function grid(image: Sharp, cells: number): Promise<Uint8Array> {
  const raw = await image
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .resize(cells, cells, { fit: 'fill', kernel: 'linear' })
    .removeAlpha()
    .raw()
    .toBuffer();
  return new Uint8Array(raw);
}
