import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { basename, extname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Folio } from '@elastic-folio/core';
import { comingBack, fitFindings, inEdition, isGood, isTakeable, taken, unitsOf } from '@elastic-folio/core/language';
import { DEFAULT_LIMITS, readExchange } from '@elastic-folio/core/read';
import { packFolio, translatedOriginal } from '@elastic-folio/core/write';
import { FolioError } from '@elastic-folio/core/node';
import { withDocument } from './openDocument.ts';
import type { EditionResult } from './results.ts';

export interface EditionOptions {
  from: string;
  target: string;
  out: string;
  /** Only what needs no person’s look. */
  goodOnly: boolean;
  flatten: boolean;
  original: boolean;
}

/** Takes what a translator sent back into an edition, and writes the package with it, or a package of its own in that language. */
export function editionFrom(file: string, options: EditionOptions): Promise<EditionResult> {
  return withDocument(file, async ({ folio, files, blobs, fontsOf, origin }) => {
    const units = unitsOf(folio);
    const inbound = await readExchange(options.from, basename(options.from), DEFAULT_LIMITS);
    const brought = comingBack(folio, inbound, options.target, units);
    const storyOf = new Map(units.flatMap((u) => (u.story === undefined ? [] : [[u.id, u.story] as const])));
    const { head } = folio;
    const spoken = { ...folio, head: { ...head, metadata: { ...head.metadata, language: options.target } } };
    const back = fitFindings(folio, brought, await fontsOf(spoken), storyOf);
    const chosen = new Set(back.segments.filter(options.goodOnly ? isGood : isTakeable).map((s) => s.id));
    const now = new Date(process.env['SOURCE_DATE_EPOCH'] ? Number(process.env['SOURCE_DATE_EPOCH']) * 1000 : Date.now());
    const edition = taken(folio.editions[options.target], back, chosen, basename(options.from), now.toISOString());
    const translated: Folio = { ...folio, editions: { ...folio.editions, [options.target]: edition } };
    const out = resolve(options.out);
    await mkdir(out, { recursive: true });
    const name = basename(file, extname(file));
    const written: string[] = [];
    const pack = async (made: Folio, path: string): Promise<void> => {
      await pipeline(packFolio(made, files, blobs), createWriteStream(path));
      written.push(path);
    };
    if (options.flatten)
      await pack({ ...inEdition(translated, options.target), editions: {} }, join(out, `${name}.${options.target}.efolio`));
    else await pack(translated, join(out, `${name}.efolio`));
    if (options.original) {
      if (!origin)
        throw new FolioError('original.none', 'The document did not come in from an OpenDocument file.', 'Leave --original out.');
      const path = join(out, `${name}.${options.target}${origin.ending}`);
      await pipeline(await translatedOriginal(translated, origin, options.target), createWriteStream(path));
      written.push(path);
    }
    return {
      files: written,
      taken: chosen.size,
      segments: back.segments.map(({ id, kind, findings, belongs, pages }) => ({
        id,
        kind,
        pages: [...pages],
        findings,
        taken: chosen.has(id),
        ...(belongs !== undefined && { belongs }),
      })),
      passedOver: back.passedOver,
    };
  });
}
