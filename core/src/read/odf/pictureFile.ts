import type { PictureInfo, PicturePort } from '../../ports/ports.ts';

/** Formats that every output can carry; others are turned into PNG or JPEG. */
export const KEPT: Record<string, { extension: string; mediaType: string }> = {
  png: { extension: 'png', mediaType: 'image/png' },
  jpeg: { extension: 'jpg', mediaType: 'image/jpeg' },
  webp: { extension: 'webp', mediaType: 'image/webp' },
};

/** What looking into a picture file showed. */
export type Looked = { info: PictureInfo; size: number } | { error: unknown };

/** What a picture is; one that is none is told when it is asked for. */
export async function lookInto(bytes: Uint8Array, pictures: PicturePort): Promise<Looked> {
  try {
    return { info: await pictures.info(bytes), size: bytes.length };
  } catch (error) {
    return { error };
  }
}
