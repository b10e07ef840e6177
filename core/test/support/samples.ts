import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Sample } from '@elastic-folio/demo';
import type { Folio } from '../../src/index.ts';
import { Composer, loadFonts } from '../../src/compose/index.ts';
import type { Composition, FontSet } from '../../src/compose/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { sharpPictures, shippedFontSource } from '../../src/ports/node.ts';
import type { DerivedStore } from '../../src/ports/node.ts';
import { keptSamples } from './keptSamples.ts';
import { convert, readSettings, writerById, WRITERS } from '../../src/write/index.ts';
import type { Conversion, ConversionPorts, WriteJob, Writer, WrittenFile } from '../../src/write/index.ts';

/** Outputs that readers get, as against files of texts for translators. */
export const PUBLICATIONS = WRITERS.filter((w) => w.view !== 'texts');

let made: Promise<Sample[]> | undefined;
export const SAMPLES = ['marrowby-almanac', 'open-dome-night', 'observers-handbook', 'five-worlds'] as const;
export type SampleId = (typeof SAMPLES)[number];

/** One of the samples. */
export const sample = async (id: SampleId): Promise<Sample> => (await (made ??= keptSamples())).find((s) => s.folio.head.id === id)!;

const derivedMap = new Map<string, Uint8Array>();
const derived: DerivedStore = {
  get: async (key) => derivedMap.get(key),
  put: async (key, bytes) => void derivedMap.set(key, bytes),
};

export async function bytesOf(s: Sample, media: string): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  for await (const c of s.blobs.stream(s.folio.head.media[media]!.sha256) as AsyncIterable<Uint8Array>) chunks.push(c);
  return new Uint8Array(Buffer.concat(chunks));
}

/** The fonts of a document; loaded once for each. */
export function fontsOf(folio: Folio): Promise<FontSet> {
  let fonts = loadedFonts.get(folio);
  if (!fonts) loadedFonts.set(folio, (fonts = shippedFontSource().then((source) => loadFonts(folio.head, [source]))));
  return fonts;
}
const loadedFonts = new WeakMap<Folio, Promise<FontSet>>();

/** A document that is converted several times in one test file is set once: a composition does not change. */
function composed(fonts: FontSet, folio: Folio): Composition {
  let compositions = composedWith.get(fonts);
  if (!compositions) composedWith.set(fonts, (compositions = new WeakMap()));
  let composition = compositions.get(folio);
  if (!composition) compositions.set(folio, (composition = new Composer(fonts).compose(folio)));
  return composition;
}
const composedWith = new WeakMap<FontSet, WeakMap<Folio, Composition>>();

/** Ports for a conversion in a test: a fixed clock, pictures from the sample, no player. */
export const portsFor = (s: Sample, fonts: FontSet, more: Partial<ConversionPorts> = {}): ConversionPorts => ({
  fonts,
  compose: (folio) => composed(fonts, folio),
  media: (id) => bytesOf(s, id),
  pictures: sharpPictures,
  derived,
  player: async () => new TextEncoder().encode('/* player */'),
  clock: () => new Date(Date.UTC(2026, 2, 6)),
  signal: new AbortController().signal,
  progress: () => undefined,
  ...more,
});

const defaults = (writer: Writer, settings: Record<string, unknown> = {}): unknown =>
  readSettings(writer, { version: writer.version, name: writer.label, settings });

export interface Made extends Conversion {
  files: Conversion['files'];
  read(path: string): Promise<Uint8Array>;
  paths: string[];
}

/** Converts a document into a temporary folder and hands the files over. */
export async function make(
  s: Sample,
  output: string,
  settings: Record<string, unknown> = {},
  folio: Folio = s.folio,
  more: Partial<ConversionPorts> = {},
): Promise<Made> {
  const writer = writerById(output)!;
  const folder = await mkdtemp(join(tmpdir(), 'folio-test-'));
  const result = await convert(
    folio,
    writer,
    defaults(writer, settings),
    join(folder, 'out'),
    portsFor(s, more.fonts ?? (await fontsOf(folio)), more),
  );
  const contents = new Map<string, Uint8Array>();
  for (const f of result.files) contents.set(f.path, new Uint8Array(await readFile(join(folder, 'out', f.path))));
  await rm(folder, { recursive: true, force: true });
  return { ...result, paths: [...contents.keys()], read: async (path) => contents.get(path)! };
}

/** What reading a result back contradicts, and what was found instead. */
export const against = ({ ledger }: Pick<Made, 'ledger'>): [string, string | undefined][] =>
  ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence]);

/** Only writes a document's files, without reading them back. */
export async function writeOnly(
  s: Sample,
  output: string,
  settings: Record<string, unknown>,
  folio: Folio,
): Promise<Map<string, Uint8Array>> {
  const writer = writerById(output)!;
  const fonts = await fontsOf(folio);
  const job: WriteJob<unknown> = {
    folio,
    composition: composed(fonts, folio),
    settings: defaults(writer, settings),
    ...portsFor(s, fonts),
  };
  const files = new Map<string, Uint8Array>();
  for await (const file of writer.write(job)) {
    const chunks: Uint8Array[] = [];
    for await (const chunk of file.body) chunks.push(chunk);
    files.set(file.path, new Uint8Array(Buffer.concat(chunks)));
  }
  return files;
}

/** Reads files back against what a document asks for, as a run does after writing. */
export async function readBack(
  s: Sample,
  output: string,
  files: Map<string, Uint8Array>,
  settings: Record<string, unknown> = {},
  more: Partial<ConversionPorts> = {},
) {
  const writer = writerById(output)!;
  const fonts = await fontsOf(s.folio);
  const job: WriteJob<unknown> = {
    folio: s.folio,
    composition: composed(fonts, s.folio),
    settings: defaults(writer, settings),
    ...portsFor(s, fonts, more),
  };
  const written: WrittenFile[] = [...files].map(([path, bytes]) => ({ path, mediaType: '', bytes: async () => bytes }));
  const evidence = [];
  for await (const e of writer.readBack(written, job)) evidence.push(e);
  return evidence;
}

/** A document without media as a sample, for conversions. */
export const asSample = (folio: Folio): Sample => ({
  folio,
  files: new Map(),
  blobs: {
    stream: () => {
      throw new Error('none');
    },
  },
});

export const listFolder = (folder: string): Promise<string[]> => readdir(folder).catch(() => []);
