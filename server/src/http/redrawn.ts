import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Run } from '@elastic-folio/core/api';
import type { FontFace } from '@elastic-folio/core/compose';
import { sharpPictures } from '@elastic-folio/core/node';
import { writerById } from '@elastic-folio/core/write';

/** Drawings that were asked for last. */
const MOST_KEPT = 3;
const kept = new Map<string, Promise<string>>();

/** A finished result drawn as a page, where its output can only be shown so; null where it cannot. */
export async function redrawn(
  folder: string,
  { id, output, files }: Run,
  page: number,
  faces: () => Promise<readonly FontFace[]>,
): Promise<string | null> {
  const redraw = writerById(output)?.redraw;
  if (!redraw || !files) return null;
  const key = `${id} ${page}`;
  let drawing = kept.get(key);
  if (!drawing) {
    if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
    const written = files.map((f) => ({ ...f, bytes: async () => new Uint8Array(await readFile(join(folder, f.path))) }));
    drawing = faces().then(async (installed) => shownByBrowsers(await redraw(written, page, installed, sharpPictures)));
    drawing.catch(() => kept.delete(key));
    kept.set(key, drawing);
  }
  return drawing;
}

/** Pictures of a drawing that browsers cannot show, as ones that they can. */
async function shownByBrowsers(html: string): Promise<string> {
  const shown = new Map<string, string>();
  for (const [address, data] of html.matchAll(/data:image\/tiff;base64,([\w+/=]+)/g)) {
    if (shown.has(address)) continue;
    const picture = await sharpPictures.encode(new Uint8Array(Buffer.from(data!, 'base64')), { maxWidth: 1600, quality: 85 });
    shown.set(address, `data:${picture.mediaType};base64,${Buffer.from(picture.bytes).toString('base64')}`);
  }
  return html.replace(/data:image\/tiff;base64,[\w+/=]+/g, (address) => shown.get(address) ?? '');
}
