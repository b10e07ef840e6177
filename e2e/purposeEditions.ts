// Writes every web edition that the start proposes, of every sample: node scripts/run.mjs e2e/purposeEditions.ts FOLDER.
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bytesOf } from '../core/test/support/samples.ts';
import { samples } from '@elastic-folio/demo';
import { pagesOf } from '@elastic-folio/core';
import { loadFonts } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures, shippedFontSource } from '@elastic-folio/core/node';
import { convert, readSettings, writerById } from '@elastic-folio/core/write';

const folder = process.argv[2]!;
const writer = writerById('html')!;
const reads = writer.start!.questions.find((q) => q.id === 'read')!.answers.map((a) => a.id);
const player = new Uint8Array(await readFile('dist/player.js'));
const derived = await mkdtemp(join(tmpdir(), 'folio-derived-'));
const made: string[] = [];
for (const sample of await samples())
  for (const read of reads) {
    const { folio } = sample;
    const settings = Object.fromEntries(
      writer.start!.settle({ read, layout: 'adapt', connection: 'no', length: 'short' }).map((s) => [s.setting, s.value]),
    );
    const name = `${folio.head.id}-${read}`;
    // Of long documents the first pages have everything that the others have.
    const pages = pagesOf(folio).length > 16 ? '1-16' : '';
    await convert(
      folio,
      writer,
      readSettings(writer, { version: writer.version, name, settings: { ...settings, pages } }),
      join(folder, name),
      {
        fonts: await loadFonts(folio.head, [await shippedFontSource()]),
        media: (id) => bytesOf(sample, id),
        pictures: sharpPictures,
        derived: new FileDerived(derived),
        player: async () => player,
        clock: () => new Date(0),
        signal: new AbortController().signal,
        progress: () => undefined,
      },
    );
    made.push(name);
  }
await rm(derived, { recursive: true, force: true });
await writeFile(join(folder, 'made.json'), JSON.stringify(made));
