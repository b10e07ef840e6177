import type { Request, Response } from 'express';
import type { z } from 'zod';
import type { FontEntry } from '@elastic-folio/core/api';
import { encodedOrStandIn, FolioError, mediaReader, sharpPictures } from '@elastic-folio/core/node';
import { packedFont } from '../packedFonts.ts';
import type { Services } from '../services.ts';

/** The fonts that a document is set with, in matching order. */
export async function fontEntries(s: Services, id: string): Promise<z.input<typeof FontEntry>[]> {
  return (await s.fontSources(id)).flatMap((source) =>
    source.list().map(({ key, family, weight, style }) => ({ key, family, weight, style, origin: source.origin })),
  );
}

/** Answers with a font file of a document. */
export async function sendFont(s: Services, id: string, key: string, req: Request, res: Response): Promise<void> {
  for (const source of await s.fontSources(id))
    if (source.list().some((f) => f.key === key)) {
      res.setHeader('Cache-Control', 'private, max-age=86400');
      const font = await source.bytes(key);
      const packed = req.acceptsEncodings('br') ? await packedFont(s.config.root, font) : null;
      res.vary('Accept-Encoding');
      if (packed) res.setHeader('Content-Encoding', 'br');
      res.type('font/ttf').send(packed ?? Buffer.from(font));
      return;
    }
  throw new FolioError('font.none', 'There is no such font.', 'Reload the page.');
}

/** Most rows of pixels that a WebP picture can have (RFC 9649, 2.6). */
const WEBP_MOST = 16_383;

/** Answers with a picture of a document, no wider than asked. */
export async function sendPicture(s: Services, id: string, name: string, width: number, res: Response): Promise<void> {
  const loaded = await s.loaded(id);
  const media = loaded.folio.head.media[name];
  if (!media?.mediaType.startsWith('image/')) throw new FolioError('media.none', 'There is no such picture.', 'Reload the page.');
  const key = `view/2/${media.sha256}/${width}`;
  let bytes = await s.derived.get(key);
  if (!bytes) {
    const isLow = (media.height ?? Infinity) * Math.min(1, width / (media.width ?? 1)) <= WEBP_MOST;
    const how = { maxWidth: width, quality: 82, format: isLow ? 'webp' : 'auto' } as const;
    bytes = (await encodedOrStandIn(media, await mediaReader(loaded, s.blobs)(name), sharpPictures, how)).bytes;
    await s.derived.put(key, bytes);
  }
  res.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
  res.type(bytes[0] === 0x89 ? 'png' : bytes[0] === 0x52 ? 'webp' : 'jpeg').send(Buffer.from(bytes));
}
