import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pagesOf, union } from '@elastic-folio/core';
import type { PagePlace, Rect } from '@elastic-folio/core';
import { newerVersion } from '@elastic-folio/core/newer';
import { findingsOf } from '@elastic-folio/core/check';
import { Composer, loadFace } from '@elastic-folio/core/compose';
import type { Composition } from '@elastic-folio/core/compose';
import {
  Cancelled,
  encodedOrStandIn,
  FileBlobs,
  FileDerived,
  FolioError,
  fontsFor,
  fontSourcesFor,
  mediaReader,
  othersFor,
  sharpPictures,
} from '@elastic-folio/core/node';
import { spreadPicture } from '@elastic-folio/core/paint';
import {
  DEFAULT_LIMITS,
  originOf,
  readCorrections,
  readExchange,
  readFolio,
  readFontFile,
  readMemory,
  readTerms,
  takeFile,
} from '@elastic-folio/core/read';
import type { LoadedFolio } from '@elastic-folio/core/read';
import { convert, ledgerFile, plannedLedger, writerById } from '@elastic-folio/core/write';
import type { LedgerEntry } from '@elastic-folio/core/ledger';
import type { ConversionPorts, WriteJob, Writer } from '@elastic-folio/core/write';
import {
  analyse,
  comingBack,
  fitFindings,
  goesOut,
  inEdition,
  lettersReport,
  Memory,
  memoryOfEdition,
  newEdition,
  translatedByService,
  unitsOf,
  wholeEdition,
} from '@elastic-folio/core/language';
import type { FaceAtHand, LettersReport } from '@elastic-folio/core/language';
import { KeptCompositions, settingKey } from './keptCompositions.ts';
import { workInBackground } from './inBackground.ts';
import type { BackHome, CountedTexts, Foreign, ForeignRead, Newer, Outcome, Pictures, ReadOutcome, Survey, Task } from './tasks.ts';
import type { Conversion } from './tasks.ts';

/** How wide covers on the shelf are, in px. */
const COVER_WIDTH = 412;

/** Whatever a task makes. */
type Made =
  | ForeignRead[keyof ForeignRead]
  | ReadOutcome
  | Survey
  | Newer
  | Pictures
  | CountedTexts
  | BackHome
  | LettersReport
  | Conversion
  | LedgerEntry[]
  | string;

workInBackground();
const compositions = new KeptCompositions();

/** Runs one task in a worker thread. What a person can mend comes back as a value, not as an exception. */
export default async function run(task: Task): Promise<Outcome<Made>> {
  try {
    return { ok: await perform(task) };
  } catch (error) {
    if (error instanceof Cancelled) return { cancelled: true };
    if (error instanceof FolioError) return { failure: { code: error.code, message: error.message, advice: error.advice } };
    // A library has broken off inside its memory, which all that this thread works on shares: it ends, and the next task gets another.
    if (error instanceof WebAssembly.RuntimeError) {
      console.error(error);
      process.exit(1);
    }
    throw error;
  }
}

async function perform(task: Task): Promise<Made> {
  switch (task.kind) {
    case 'read':
      return read(task);
    case 'survey':
      return survey(task);
    case 'foreign':
      return readForeign(task.asked);
    case 'newer':
      return newerVersion({ ...task, chosen: new Map(task.pairs), keep: new Set(task.keep) });
    case 'pictures':
      return pictures(task);
    case 'count':
      return count(task);
    case 'letters':
      return letters(task);
    case 'serve':
      return serve(task);
    case 'return':
      return bringBack(task);
    case 'plan':
      return plan(task);
    case 'convert':
      return write(task);
  }
}

async function readForeign(asked: Foreign): Promise<ForeignRead[keyof ForeignRead]> {
  switch (asked.what) {
    case 'exchange':
      return readExchange(asked.file, asked.name, DEFAULT_LIMITS);
    case 'terms':
      return readTerms(await readFile(asked.file, 'utf8'), asked.source, asked.target);
    case 'memory':
      return readMemory(await readFile(asked.file, 'utf8'), asked.source, asked.target);
    case 'corrections':
      return readCorrections(asked.folio, asked.file, DEFAULT_LIMITS);
    case 'font':
      return readFontFile(new Uint8Array(await readFile(asked.file)));
    case 'media':
      return takeFile({ ...asked, blobs: new FileBlobs(asked.blobs), pictures: sharpPictures });
  }
}

/** What of a document goes out, against what was translated before. */
async function count(task: Extract<Task, { kind: 'count' }>): Promise<CountedTexts> {
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const composition = task.chosen.pages.trim()
    ? new Composer(await fontsFor(loaded, new FileBlobs(task.blobs))).compose(task.folio)
    : undefined;
  const { units, stays } = goesOut(task.folio, task.chosen, composition);
  const known = memoryOfEdition(units, wholeEdition(task.folio, task.language));
  const others = task.others ?? [];
  // Pages, strands and styles are those of the document that one is at.
  const whole = { ...task.chosen, pages: '', strands: '', styles: '' };
  const theirs = others.map((folio) => goesOut(folio, whole).units);
  const memory = new Memory([
    ...task.memory,
    ...known,
    ...others.flatMap((folio, i) => [...memoryOfEdition(theirs[i]!, wholeEdition(folio, task.language))]),
  ]);
  const [analysis, ...more] = analyse([units, ...theirs], memory);
  const reasons: Record<string, number> = {};
  for (const { because } of stays) reasons[because] = (reasons[because] ?? 0) + 1;
  return {
    analysis: analysis!,
    stays: reasons,
    units: units.map((u) => u.id),
    others: others.map(({ head }, i) => ({ title: head.metadata.title || head.id, analysis: more[i]! })),
  };
}

/** Which families of a document lack letters of a language, against every font at hand. */
async function letters(task: Extract<Task, { kind: 'letters' }>): Promise<LettersReport> {
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const blobs = new FileBlobs(task.blobs);
  // As the document would be in that language: what its scripts fall back to is loaded too.
  const { head } = task.folio;
  const edition = task.folio.editions[task.language];
  const spoken = edition
    ? inEdition(task.folio, task.language)
    : { ...task.folio, head: { ...head, metadata: { ...head.metadata, language: task.language } } };
  const fonts = await fontsFor({ ...loaded, folio: spoken }, blobs);
  new Composer(fonts).compose(spoken);
  const all: FaceAtHand[] = [];
  for (const source of await fontSourcesFor(loaded, blobs))
    for (const f of source.list())
      try {
        all.push({ face: await loadFace(f, source), origin: source.origin });
      } catch (error) {
        // A file that is broken proposes nothing.
        if (error instanceof WebAssembly.RuntimeError) throw error;
      }
  return lettersReport(task.language, fonts, all, head.fallbacks[task.language] ?? head.fallbacks['*'] ?? []);
}

/** What the simulated service sends: the texts of a job with its translations, as XLIFF 2.1. */
async function serve(task: Extract<Task, { kind: 'serve' }>): Promise<string> {
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const blobs = new FileBlobs(task.blobs);
  const fonts = await fontsFor(loaded, blobs);
  const composition = new Composer(fonts).compose(task.folio);
  const { units } = goesOut(task.folio, task.chosen, composition);
  const made = translatedByService(units, new Memory(task.memory), task.language, task);
  const edition = { ...newEdition(task.language), units: made };
  const writer = writerById('xliff-2.1')!;
  const job: WriteJob<unknown> = {
    folio: { ...task.folio, editions: { [task.language]: edition } },
    composition,
    settings: writer.settings.parse({ ...task.chosen, target: task.language, pagesToSee: false, pretranslation: 'none' }),
    fonts,
    media: mediaReader(loaded, blobs),
    pictures: sharpPictures,
    derived: { get: async () => undefined, put: async () => undefined },
    player: async () => new Uint8Array(),
    clock: () => new Date(),
    signal: new AbortController().signal,
    progress: () => undefined,
  };
  // The file of texts comes first; what goes along with it stays there.
  for await (const file of writer.write(job)) {
    const chunks: Uint8Array[] = [];
    for await (const chunk of file.body) chunks.push(chunk);
    return Buffer.concat(chunks).toString('utf8');
  }
  throw new FolioError('service.nothing', 'There is nothing to translate.', 'Let more of the texts go out.');
}

/** What a translator sent back, with what only setting the texts can tell of it. */
async function bringBack({ folio, files, library, blobs, inbound, language }: Extract<Task, { kind: 'return' }>): Promise<BackHome> {
  const units = unitsOf(folio);
  const storyOf = new Map(units.flatMap((u) => (u.story === undefined ? [] : [[u.id, u.story] as const])));
  const spoken = { ...folio, head: { ...folio.head, metadata: { ...folio.head.metadata, language } } };
  const fonts = await fontsFor({ folio: spoken, files: new Map(files), library }, new FileBlobs(blobs));
  const back = fitFindings(folio, comingBack(folio, inbound, language, units), fonts, storyOf);
  return { segments: back.segments, units: Object.fromEntries(back.units), passedOver: back.passedOver };
}

async function read(task: Extract<Task, { kind: 'read' }>): Promise<ReadOutcome> {
  const { look, signal, done } = stoppable(task.stop);
  try {
    const { folio, files } = await readFolio(task.name, {
      file: task.file,
      blobs: new FileBlobs(task.staging),
      pictures: sharpPictures,
      derived: new FileDerived(task.derived),
      limits: DEFAULT_LIMITS,
      signal,
      pageRead: (page, total) => {
        look();
        task.port.postMessage({ page, total });
      },
    });
    return { folio, files: [...files] };
  } finally {
    done();
    task.port.close();
  }
}

/** Sets a document once, for what a person should look at and for the picture on the shelf. */
async function survey(task: Extract<Task, { kind: 'survey' }>): Promise<Survey> {
  const blobs = new FileBlobs(task.blobs);
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const { folio } = loaded;
  const fonts = await fontsFor(loaded, blobs);
  const composition = new Composer(fonts).compose(folio);
  const openPoints = findingsOf(folio, composition, fonts)
    .filter((f) => f.code !== 'layer.hidden')
    .map((f) => (f.page ? `Page ${f.page}: ${f.says}` : f.says));
  return { openPoints, cover: await cover(loaded, composition, mediaReader(loaded, blobs)) };
}

/** The first spread as an SVG of its own; null where there is none. */
async function cover(loaded: LoadedFolio, composition: Composition, media: ReturnType<typeof mediaReader>): Promise<string | null> {
  const place = pagesOf(loaded.folio)[0];
  return place ? picture(loaded, composition, media, place, union(place.spread.pages.map((p) => p.box))) : null;
}

/** Some pages of a document, to be seen beside others. */
async function pictures(task: Extract<Task, { kind: 'pictures' }>): Promise<Pictures> {
  const blobs = new FileBlobs(task.blobs);
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const composition = new Composer(await fontsFor(loaded, blobs)).compose(loaded.folio);
  const out: Pictures = [];
  for (const place of pagesOf(loaded.folio))
    if (task.pages.includes(place.number))
      out.push([place.number, await picture(loaded, composition, mediaReader(loaded, blobs), place, place.page.box)]);
  return out;
}

/** What is seen in a part of a spread as an SVG of its own, with small pictures inside. */
async function picture(
  { folio }: LoadedFolio,
  composition: Composition,
  media: ReturnType<typeof mediaReader>,
  place: PagePlace,
  view: Rect,
): Promise<string> {
  const pictures = new Map<string, string>();
  for (const item of Object.values(place.spread.items)) {
    const id = item.kind === 'picture' ? item.media : null;
    if (!id || pictures.has(id)) continue;
    const small = await encodedOrStandIn(folio.head.media[id]!, await media(id), sharpPictures, {
      maxWidth: COVER_WIDTH,
      quality: 70,
      format: 'webp',
    });
    pictures.set(id, `data:${small.mediaType};base64,${Buffer.from(small.bytes).toString('base64')}`);
  }
  return spreadPicture(folio, composition, place.spread, view, COVER_WIDTH, {
    href: (id) => pictures.get(id),
    shown: (item) => folio.head.layers[item.layer]?.visible !== false,
  });
}

async function write(task: Extract<Task, { kind: 'convert' }>): Promise<Conversion> {
  const writer = writerOf(task);
  const { look, signal, done } = stoppable(task.stop);
  try {
    const result = await withPorts(task, (ports) =>
      convert(task.folio, writer, task.settings, task.folder, {
        ...ports,
        player: async () => new Uint8Array(await readFile(task.player)),
        clock: () => new Date(task.at),
        signal,
        progress: (pages, total) => {
          look();
          task.port.postMessage({ done: pages, total });
        },
      }),
    );
    await writeFile(
      join(task.folder, 'ledger.json'),
      ledgerFile({ output: writer.id, valid: result.valid, counts: result.counts, entries: result.ledger }),
    );
    return { ...result, ledger: [] };
  } finally {
    done();
    task.port.close();
  }
}

/** What an output will keep, as its ledger will say it. */
const plan = (task: Extract<Task, { kind: 'plan' }>): Promise<LedgerEntry[]> =>
  withPorts(task, (ports) =>
    plannedLedger(task.folio, writerOf(task), task.settings, {
      ...ports,
      player: async () => new Uint8Array(),
      clock: () => new Date(0),
      signal: new AbortController().signal,
      progress: () => undefined,
    }),
  );

function writerOf({ output }: Extract<Task, { kind: 'convert' | 'plan' }>): Writer {
  const writer = writerById(output);
  if (!writer) throw new FolioError('output.none', `There is no output "${output}" in this version.`, 'Choose another output.');
  return writer;
}

/** What converting and planning need alike; the composition is kept for whoever comes next with the same document. */
async function withPorts<T>(
  task: Extract<Task, { kind: 'convert' | 'plan' }>,
  work: (ports: Omit<ConversionPorts, 'player' | 'clock' | 'signal' | 'progress'>) => Promise<T>,
): Promise<T> {
  const blobs = new FileBlobs(task.blobs);
  const loaded = { folio: task.folio, files: new Map(task.files), library: task.library };
  const key = settingKey(task.folio, [task.files, task.library]);
  try {
    return await work({
      ...(await compositions.of(key, () => fontsFor(loaded, blobs))),
      media: mediaReader(loaded, blobs),
      others: othersFor(new Map(task.others.map(([id, o]) => [id, { ...o, files: new Map(o.files) }])), blobs),
      origin: await originOf(loaded, blobs),
      pictures: sharpPictures,
      derived: new FileDerived(task.derived),
      memory: async () => task.memory,
    });
  } finally {
    compositions.settle(key);
  }
}

/** A signal that follows a flag which another thread sets: looked at in between, and where `look` is called. */
function stoppable(stop: Int32Array): { look: () => void; signal: AbortSignal; done: () => void } {
  const controller = new AbortController();
  const look = (): void => {
    if (Atomics.load(stop, 0)) controller.abort();
  };
  const timer = setInterval(look, 50);
  return { look, signal: controller.signal, done: () => clearInterval(timer) };
}
