// Fingerprints of everything that is written: every sample as every output, and one page of one sample with every setting in turn at
// each of its choices. `npm run hashes -- FILE` keeps them; run again with the same FILE, it says what has become other bytes since.
import { createHash } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { samples } from '@elastic-folio/demo';
import type { Sample } from '@elastic-folio/demo';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures, shippedFontSource } from '@elastic-folio/core/node';
import { convert, readSettings, WRITERS } from '@elastic-folio/core/write';
import type { Writer } from '@elastic-folio/core/write';
import { bytesOf } from '../core/test/support/samples.ts';

interface Choice {
  const?: unknown;
}
interface Property {
  type?: string;
  enum?: unknown[];
  anyOf?: Choice[];
  oneOf?: Choice[];
  default?: unknown;
}

/** One setting at a time at each of its choices other than its default. */
function variants(writer: Writer): Record<string, unknown>[] {
  const schema = z.toJSONSchema(writer.settings, { io: 'input' }) as { properties?: Record<string, Property> };
  return Object.entries(schema.properties ?? {}).flatMap(([name, p]) => {
    const choices =
      p.enum ??
      (p.type === 'boolean' ? [true, false] : (p.anyOf ?? p.oneOf ?? []).flatMap((c) => (c.const === undefined ? [] : [c.const])));
    return choices.filter((value) => value !== p.default).map((value) => ({ [name]: value }));
  });
}

const folder = await mkdtemp(join(tmpdir(), 'folio-hashes-'));
const derived = new FileDerived(join(folder, 'derived'));
const [file] = process.argv.slice(2);
if (!file) throw new Error('npm run hashes -- FILE');

async function fingerprint(s: Sample, writer: Writer, settings: Record<string, unknown>): Promise<string> {
  const { fonts, compose } = await setOnce(s);
  const out = join(folder, 'out');
  const hash = createHash('sha256');
  try {
    const made = await convert(s.folio, writer, readSettings(writer, { version: writer.version, name: writer.label, settings }), out, {
      fonts,
      compose,
      media: (id) => bytesOf(s, id),
      pictures: sharpPictures,
      derived,
      player: async () => new TextEncoder().encode('/* player */'),
      clock: () => new Date(Date.UTC(2026, 2, 6)),
      signal: new AbortController().signal,
      progress: () => undefined,
    });
    for (const { path } of made.files) {
      hash.update(path);
      for await (const chunk of createReadStream(join(out, path)) as AsyncIterable<Buffer>) hash.update(chunk);
    }
    const ledger = createHash('sha256').update(JSON.stringify(made.ledger)).digest('hex').slice(0, 16);
    return `${hash.digest('hex').slice(0, 16)} ${ledger}`;
  } catch (error) {
    return `fails: ${error instanceof Error ? error.message : String(error)}`;
  }
}

const set = new Map<Sample, ReturnType<typeof setAnew>>();
const setOnce = (s: Sample): ReturnType<typeof setAnew> => set.get(s) ?? set.set(s, setAnew(s)).get(s)!;
async function setAnew(s: Sample) {
  const fonts = await loadFonts(s.folio.head, [await shippedFontSource()]);
  const composition = new Composer(fonts).compose(s.folio);
  return { fonts, compose: () => composition };
}

await mkdir(folder, { recursive: true });
const found: Record<string, string> = {};
const all = await samples();
const flyer = all.find((s) => s.folio.head.id === 'open-dome-night')!;
for (const writer of WRITERS) {
  for (const s of all) found[`${s.folio.head.id} ${writer.id}`] = await fingerprint(s, writer, {});
  for (const settings of variants(writer))
    found[`${flyer.folio.head.id} ${writer.id} ${JSON.stringify(settings)}`] = await fingerprint(flyer, writer, settings);
  console.log(`${writer.id}: ${Object.keys(found).length} fingerprints so far`);
}
await rm(folder, { recursive: true, force: true });
if (!existsSync(file)) await writeFile(file, `${JSON.stringify(found, null, 1)}\n`);
else {
  const before = JSON.parse(await readFile(file, 'utf8')) as Record<string, string>;
  const other = Object.keys({ ...before, ...found }).filter((key) => before[key] !== found[key]);
  for (const key of other) {
    const [bytes, ledger] = [before[key]?.split(' '), found[key]?.split(' ')].map((x) => x?.[0]);
    console.log(`${key}: ${bytes === ledger ? 'another ledger' : 'other bytes'} (${before[key] ?? 'new'} → ${found[key] ?? 'gone'})`);
  }
  console.log(`${Object.keys(found).length} fingerprints, ${other.length} of them others than before`);
  process.exitCode = other.length ? 1 : 0;
}
