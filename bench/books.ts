import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { unzipSync } from 'fflate';
import type { Sample } from '@elastic-folio/demo';
import type { Folio } from '@elastic-folio/core';
import { pagesOf, pathOf, suggestRoles } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { FontSet } from '@elastic-folio/core/compose';
import { sharpPictures } from '@elastic-folio/core/node';
import { readSettings, webFont, writerById } from '@elastic-folio/core/write';
import { median } from './median.ts';

/** Writing a book against what its pictures, fonts and packing take alone, in milliseconds by the median; `ratio` is the median of the rounds. */
export interface BookTimes {
  writeMs: number;
  aloneMs: number;
  ratio: number;
  kiB: number;
}

/** Writes a book of a sample, and does alone what no book can be had without: its pictures, its fonts, its packing. By turns. */
export async function bookTimes(sample: Sample, fonts: FontSet, output: string, rounds: number): Promise<BookTimes> {
  const composition = new Composer(fonts).compose(sample.folio);
  const media = new Map<string, Uint8Array>();
  for (const { id, sha256 } of Object.values(sample.folio.head.media)) {
    const chunks: Uint8Array[] = [];
    for await (const c of sample.blobs.stream(sha256) as AsyncIterable<Uint8Array>) chunks.push(c);
    media.set(id, new Uint8Array(Buffer.concat(chunks)));
  }
  const writer = writerById(output)!;
  const settings = readSettings(writer, { version: writer.version, name: writer.label, settings: {} });
  /** What was asked of pictures and fonts, to be done again alone. */
  let asked: (() => Promise<unknown>)[] = [];
  const write = async (): Promise<Uint8Array> => {
    asked = [];
    const kept = new Map<string, Uint8Array>();
    const job = {
      folio: sample.folio,
      composition,
      fonts,
      settings,
      media: async (id: string) => media.get(id)!,
      pictures: {
        ...sharpPictures,
        encode: (...args: Parameters<typeof sharpPictures.encode>) => (
          asked.push(() => sharpPictures.encode(...args)),
          sharpPictures.encode(...args)
        ),
        drawSvg: (...args: Parameters<typeof sharpPictures.drawSvg>) => (
          asked.push(() => sharpPictures.drawSvg(...args)),
          sharpPictures.drawSvg(...args)
        ),
      },
      derived: { get: async (key: string) => kept.get(key), put: async (key: string, bytes: Uint8Array) => void kept.set(key, bytes) },
      player: async () => new Uint8Array(),
      clock: () => new Date(0),
      signal: new AbortController().signal,
      progress: () => undefined,
    };
    const chunks: Uint8Array[] = [];
    for await (const file of writer.write(job)) for await (const chunk of file.body) chunks.push(chunk);
    for (const key of kept.keys()) {
      const [, hash, characters] = /^woff2\/1\/([^/]+)\/([\d,]+)$/.exec(key) ?? [];
      const face = fonts.faces.find((f) => createHash('sha256').update(f.bytes).digest('hex') === hash);
      const nothing = { get: async () => undefined, put: async () => undefined };
      if (face && characters) asked.push(() => webFont(face, new Set(characters.split(',').map(Number)), nothing));
    }
    return new Uint8Array(Buffer.concat(chunks));
  };
  const packed = await write();
  const texts = Object.entries(unzipSync(packed)).filter(([path]) => !/\.(jpg|png|woff2|mp[34]|m4a|mov|ogg|webm)$/.test(path));
  const alone = async (): Promise<void> => {
    for (const again of asked) await again();
    for (const [, bytes] of texts) deflateRawSync(bytes);
  };
  await alone();
  const measured: [number, number][] = [];
  for (let i = 0; i < rounds; i++) {
    const began = performance.now();
    await write();
    const written = performance.now();
    await alone();
    measured.push([written - began, performance.now() - written]);
  }
  return {
    writeMs: median(measured.map(([w]) => w)),
    aloneMs: median(measured.map(([, a]) => a)),
    ratio: median(measured.map(([w, a]) => w / a)),
    kiB: packed.length / 1024,
  };
}

/** The path and the roles of a document against setting it, by turns; each time a document that nothing is known of yet. */
export function structureTimes(folio: Folio, fonts: FontSet, rounds: number): { pathAndRolesMs: number; composeMs: number; share: number } {
  const measured: [number, number][] = [];
  for (let i = 0; i <= rounds; i++) {
    const fresh = structuredClone(folio);
    const began = performance.now();
    suggestRoles(fresh);
    for (const spread of new Set(pagesOf(fresh).map((p) => p.spread))) pathOf(fresh, spread);
    const worked = performance.now();
    new Composer(fonts).compose(fresh);
    if (i) measured.push([worked - began, performance.now() - worked]);
  }
  return {
    pathAndRolesMs: median(measured.map(([p]) => p)),
    composeMs: median(measured.map(([, c]) => c)),
    share: median(measured.map(([p, c]) => p / c)),
  };
}
