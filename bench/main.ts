import { chromium } from '@playwright/test';
import { CHROMIUM } from '../e2e/chromium.ts';
import { availableParallelism, cpus, tmpdir } from 'node:os';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { largePresentation, samples, writeSamples } from '@elastic-folio/demo';
import type { Sample } from '@elastic-folio/demo';
import { longFolio, proseOf, typeInLongChain } from './longChain.ts';
import { bookTimes, structureTimes } from './books.ts';
import { intakeTimes } from './intake.ts';
import { workOfBoth } from './againstBrowser.ts';
import { answering } from './answering.ts';
import { analysisTimes, importTimes, manyTexts } from './languages.ts';
import { motionTimes } from './motion.ts';
import { onScreen } from './onScreen.ts';
import { printMemory } from './printing.ts';
import { applyEdit } from '@elastic-folio/core';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import type { FontFace, FontSet } from '@elastic-folio/core/compose';
import { GlyphOutlines, paintItems } from '@elastic-folio/core/paint';
import { FileDerived, sharpPictures, shippedFontSource } from '@elastic-folio/core/node';
import { convert, readSettings, WRITERS } from '@elastic-folio/core/write';
import { bytesOf } from '../core/test/support/samples.ts';
import { median } from './median.ts';
import { typingTimes } from './typing.ts';
import { webReadingTimes } from './webReading.ts';
import type { WebReadingTimes } from './webReading.ts';

const ROUNDS = 5;
/** Outputs that office programs open, and what writing 300 pages of one may take above the loaded document, in MiB. */
const OFFICE = ['docx', 'pptx'];
/** As many slides as its speed is told for. */
const SLIDES = 300;
const OFFICE_MEMORY_LIMIT = 150;
/** Milliseconds of shaping and of composing before they are timed. */
const WARM_UP = 3000;
/** Composing the Handbook may take this many times shaping it with HarfBuzz alone. */
const COMPOSE_LIMIT = 3;
/** Milliseconds of work from a keystroke to the painted page, however long the chain. */
const KEYSTROKE_LIMIT = 50;
/** CPU milliseconds of a key in the window and in the server, whatever the length of the document. */
const KEY_LIMITS = { window: 50, server: 10 };
const TYPED_PAGES = [16, 81, 300, 3000];
/** Writing a PDF may take this much memory above the loaded document. */
const PDF_MEMORY_LIMIT = 200;
/** All our work on the Handbook's PDF may take this many times a browser's on the same pages. */
const PRINT_LIMIT = 1;
/** MiB that the web edition of 3,000 pages may take altogether. */
const WEB_MEMORY_LIMIT = 1024;
/** Milliseconds in which 99 of 100 answers come while twenty conversions run. */
const ANSWER_LIMIT = 100;
/** Reading a presentation may take this many times unzipping it and parsing its XML. */
const INTAKE_LIMIT = 4;
/** MiB that reading it may take. */
const INTAKE_MEMORY = 600;
/** A book of the samples takes seconds: most of them those that it is measured against. */
const BOOK_ROUNDS = 3;
/** Writing a book may take this many times its pictures, fonts and packing alone, and so many MiB above the loaded document. */
const BOOK_LIMIT = 1.5;
const BOOK_MEMORY_LIMIT = 150;
/** Path and roles may take this part of the time of setting the pages. */
const STRUCTURE_LIMIT = 0.2;
/** The part of its frames that a page keeps while 400 flakes lift off it at a quarter of the speed. */
const FRAMES_LIMIT = 0.85;
/** kB that may come before the first page of a web edition is painted; ms that a task may take while its pages turn. */
const FIRST_PAGE_LIMIT = 200;
const TURN_TASK_LIMIT = 100;
/** Turning a page of 300 may take this many times what turning one of 16 takes. */
const LONG_TURN_LIMIT = 3;
/** Counting texts against a memory of 100,000 units may take this many times counting them against none. */
const MEMORY_RATIO = 3;
/** Bringing texts back may take this many times composing them alone. */
const IMPORT_RATIO = 1.2;
/** MiB that a document of 3,000 pages may take altogether. */
const MEMORY_LIMIT = 1500;
const round = (v: number, d = 2): number => +v.toFixed(d);

/** Median milliseconds of five goes after one that is not counted. */
async function time(work: () => unknown): Promise<number> {
  await work();
  const values: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const began = performance.now();
    await work();
    values.push(performance.now() - began);
  }
  return median(values);
}

/**
 * Two works by turns, after both have been warmed up: their medians, and the median of their ratios. A machine that is
 * slower for some seconds is slower for both.
 */
async function timeByTurns(work: () => unknown, other: () => unknown): Promise<{ ms: number; otherMs: number; ratio: number }> {
  const until = performance.now() + 2 * WARM_UP;
  do {
    await work();
    await other();
  } while (performance.now() < until);
  const pairs: [number, number][] = [];
  for (let i = 0; i < 3 * ROUNDS; i++) {
    const began = performance.now();
    await work();
    const between = performance.now();
    await other();
    pairs.push([between - began, performance.now() - between]);
  }
  return { ms: median(pairs.map((p) => p[0])), otherMs: median(pairs.map((p) => p[1])), ratio: median(pairs.map((p) => p[0] / p[1])) };
}

/** What the bench reports, and what of it `-- --check` does not accept. */
const report: Record<string, unknown> = {};
const missed: string[] = [];

/** Composition from cold caches, against shaping the same spans with HarfBuzz alone, glyphs read out. */
async function composition(sample: Sample, fonts: FontSet): Promise<void> {
  const { folio } = sample;
  const set = new Composer(fonts).compose(folio);
  // One shaping call for each stretch of one paragraph in one font, as the typesetter makes them.
  const byParagraph = new Map<string, { font: FontFace; text: string; features: Record<string, number>; language: string }>();
  for (const frame of set.frames.values())
    for (const line of frame.lines)
      for (const r of line.runs) {
        const key = `${line.paragraph}|${r.font.key}|${r.size}`;
        const kept = byParagraph.get(key);
        byParagraph.set(key, { font: r.font, text: kept ? `${kept.text} ${r.text}` : r.text, features: r.features, language: r.language });
      }
  const shape = (): number => {
    let glyphs = 0;
    for (const s of byParagraph.values())
      glyphs += s.font.shape(s.text, 0, s.text.length, {
        features: s.features,
        language: s.language,
        script: 'Latn',
        direction: 'ltr',
      }).count;
    return glyphs;
  };
  const { ms: composing, otherMs: shaping, ratio } = await timeByTurns(() => new Composer(fonts).compose(folio), shape);
  if (folio.head.id === 'observers-handbook' && ratio > COMPOSE_LIMIT)
    missed.push(`composing ${folio.head.id} takes ${round(ratio)} times shaping it; at most ${COMPOSE_LIMIT}`);
  report[`composition of ${folio.head.id}`] = { composeMs: round(composing), shapeMs: round(shaping), ratio: round(ratio) };

  // One letter typed at the beginning of the longest text, to the painted spread.
  const story = Object.values(folio.stories).sort((a, b) => b.order.length - a.order.length)[0]!;
  const spread = folio.spreads[story.frames[0]!.spread]!;
  const composer = new Composer(fonts);
  const outlines = new GlyphOutlines();
  let now = folio;
  composer.compose(now);
  const keystroke = await time(() => {
    const place = { paragraphId: story.order[0]!, offset: 0 };
    now = applyEdit(now, {
      kind: 'text.replace',
      args: { story: story.id, from: place, to: place, content: [[{ type: 'span', text: 'x' }]], newIds: [] },
    }).folio;
    paintItems(now, composer.compose(now), spread, { outlines, href: () => '', shown: () => true });
  });
  report[`a letter typed in ${folio.head.id}`] = { editToPaintedMs: round(keystroke), ratioToComposition: round(keystroke / composing) };
}

async function conversions(sample: Sample, fonts: FontSet): Promise<void> {
  const media = (id: string): Promise<Uint8Array> => bytesOf(sample, id);
  const player = new Uint8Array(await readFile('dist/player.js'));
  for (const writer of WRITERS) {
    const folder = await mkdtemp(join(tmpdir(), 'folio-bench-'));
    const settings = readSettings(writer, { version: writer.version, name: writer.label, settings: {} });
    const go = (derived: string) =>
      convert(sample.folio, writer, settings, join(folder, 'out'), {
        fonts,
        media,
        pictures: sharpPictures,
        derived: new FileDerived(derived),
        player: async () => player,
        clock: () => new Date(0),
        signal: new AbortController().signal,
        progress: () => undefined,
      });
    globalThis.gc?.();
    const before = process.memoryUsage.rss();
    let peak = before;
    const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 5);
    const began = performance.now();
    const first = await go(join(folder, 'derived'));
    const cold = performance.now() - began;
    const warm = await time(() => go(join(folder, 'derived')));
    clearInterval(watch);
    report[`${sample.folio.head.id} → ${writer.id}`] = {
      coldMs: round(cold),
      warmMs: round(warm),
      peakMemoryAboveStartMiB: round((peak - before) / 2 ** 20, 1),
      kiB: round(first.files.reduce((n, f) => n + f.bytes, 0) / 1024, 0),
      valid: first.valid,
    };
    if (!first.valid) missed.push(`${sample.folio.head.id} → ${writer.id} is not valid`);
    await rm(folder, { recursive: true, force: true });
  }
}

/** Typing on page 1 of chains of 30, 300 and 3,000 pages: the work until the visible pages are painted. */
function longChains(sample: Sample, fonts: FontSet): void {
  const paragraphs = proseOf(sample.folio);
  for (const pages of [30, 300, 3000]) {
    const t = typeInLongChain(longFolio(sample.folio, paragraphs, pages), fonts);
    report[`a chain of ${pages} pages`] = {
      composeMs: round(t.composeMs),
      letterWhereNoLineMovesMs: round(t.stillMs),
      wordsWhereAllLinesMoveMs: round(t.movingMs),
      compositionKiBPerPage: round(t.kibPerPage, 1),
    };
    for (const ms of [t.stillMs, t.movingMs])
      if (ms > KEYSTROKE_LIMIT) missed.push(`typing in a chain of ${pages} pages takes ${round(ms)} ms; at most ${KEYSTROKE_LIMIT}`);
  }
}

/** PDFs of 30, 300 and 3,000 pages: time, size and memory; 300 pages also by a browser that prints them. */
async function printing(sample: Sample): Promise<void> {
  for (const pages of [30, 300, 3000]) {
    const m = await printMemory(longFolio(sample.folio, proseOf(sample.folio), pages), 'pdf');
    report[`PDF of ${pages} pages, by itself`] = {
      composeMs: round(m.composeMs),
      writeMs: round(m.writeMs),
      kiB: round(m.kiB, 0),
      readMiB: round(m.read, 0),
      setMiB: round(m.loaded, 0),
      writingCpuMsPerPage: round(m.writeCpuMs / pages),
      readingBackCpuMsPerPage: round(m.readBackCpuMs / pages),
      writingAboveThatMiB: round(m.aboveLoaded, 0),
      readingBackAboveThatMiB: round(m.readBackAbove, 0),
      highestMiB: round(m.highest, 0),
    };
    if (m.aboveLoaded > PDF_MEMORY_LIMIT)
      missed.push(`the PDF of ${pages} pages takes ${round(m.aboveLoaded)} MiB; at most ${PDF_MEMORY_LIMIT}`);
    if (m.highest > MEMORY_LIMIT) missed.push(`${pages} pages take ${round(m.highest)} MiB; at most ${MEMORY_LIMIT}`);
  }
  const web = await printMemory(longFolio(sample.folio, proseOf(sample.folio), 3000), 'html');
  report['web edition of 3000 pages, by itself'] = {
    writingCpuMsPerPage: round(web.writeCpuMs / 3000),
    readingBackCpuMsPerPage: round(web.readBackCpuMs / 3000),
    highestMiB: round(web.highest, 0),
  };
  if (web.highest > WEB_MEMORY_LIMIT)
    missed.push(`the web edition of 3,000 pages takes ${round(web.highest)} MiB; at most ${WEB_MEMORY_LIMIT}`);
}

/** How long people wait for the application while it converts. */
async function answers(): Promise<void> {
  const { idle, busy, seconds } = await answering();
  for (const [when, told] of [
    ['by itself', idle],
    ['while twenty conversions run', busy],
  ] as const)
    report[`answers of the application ${when}`] = Object.fromEntries(Object.entries(told).map(([k, v]) => [k, round(v as number)]));
  report['twenty conversions'] = { seconds: round(seconds, 0) };
  if (busy.slowestOfHundred > ANSWER_LIMIT)
    missed.push(`an answer in a hundred takes ${round(busy.slowestOfHundred)} ms while twenty conversions run; at most ${ANSWER_LIMIT}`);
}

/** The Handbook's PDF, all our work against all of a browser's. */
async function againstBrowser(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  try {
    await writeSamples(folder, ['efolio']);
    const work = await workOfBoth(join(folder, 'observers-handbook.efolio'));
    report['PDF of the Handbook against a browser, in CPU time'] = Object.fromEntries(
      Object.entries(work).map(([k, v]) => [k, round(v as number)]),
    );
    if (work.timesBrowser > PRINT_LIMIT)
      missed.push(`the Handbook's PDF takes ${round(work.timesBrowser)} times the work of a browser; at most ${PRINT_LIMIT}`);
    if (work.kiB > work.browserKiB) missed.push('the PDF of the Handbook is larger than a browser’s');
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Books of the samples against what they cannot do without; books of 30, 300 and 3,000 pages: time and memory; path and roles. */
async function books(sample: Sample, fonts: FontSet): Promise<void> {
  for (const output of ['epub', 'epub-fixed']) {
    const t = await bookTimes(sample, fonts, output, BOOK_ROUNDS);
    report[`${sample.folio.head.id} → ${output}, against its pictures, fonts and packing`] = Object.fromEntries(
      Object.entries(t).map(([k, v]) => [k, round(v as number)]),
    );
    if (t.ratio > BOOK_LIMIT)
      missed.push(
        `${sample.folio.head.id} → ${output} takes ${round(t.ratio)} times its pictures, fonts and packing; at most ${BOOK_LIMIT}`,
      );
  }
  if (!sample.folio.stories['dome-feature']) return;
  for (const output of ['epub', 'epub-fixed'])
    for (const pages of [30, 300, 3000]) {
      const m = await printMemory(longFolio(sample.folio, proseOf(sample.folio), pages), output);
      report[`${output} of ${pages} pages, by itself`] = {
        writeMs: round(m.writeMs),
        msPerPage: round(m.writeMs / pages, 3),
        kiB: round(m.kiB, 0),
        writingAboveLoadedMiB: round(m.aboveLoaded, 0),
      };
      if (m.aboveLoaded > BOOK_MEMORY_LIMIT)
        missed.push(`${output} of ${pages} pages takes ${round(m.aboveLoaded)} MiB; at most ${BOOK_MEMORY_LIMIT}`);
    }
  const s = structureTimes(longFolio(sample.folio, proseOf(sample.folio), 300), fonts, ROUNDS);
  report['path and roles of 300 pages'] = Object.fromEntries(Object.entries(s).map(([k, v]) => [k, round(v, 3)]));
  if (s.share > STRUCTURE_LIMIT)
    missed.push(`path and roles take ${round(s.share)} of the time of setting the pages; at most ${STRUCTURE_LIMIT}`);
}

/** Office files of the samples against packing the same bytes and encoding the same pictures; what one of 300 pages takes of memory. */
async function office(sample: Sample, fonts: FontSet): Promise<void> {
  for (const output of OFFICE) {
    const t = await bookTimes(sample, fonts, output, BOOK_ROUNDS);
    report[`${sample.folio.head.id} → ${output}, against its pictures and packing`] = Object.fromEntries(
      Object.entries(t).map(([k, v]) => [k, round(v as number)]),
    );
    if (t.ratio > BOOK_LIMIT)
      missed.push(`${sample.folio.head.id} → ${output} takes ${round(t.ratio)} times its pictures and packing; at most ${BOOK_LIMIT}`);
    if (!sample.folio.stories['dome-feature']) continue;
    const m = await printMemory(longFolio(sample.folio, proseOf(sample.folio), 300), output);
    report[`${output} of 300 pages, by itself`] = {
      writeMs: round(m.writeMs),
      kiB: round(m.kiB, 0),
      writingAboveLoadedMiB: round(m.aboveLoaded, 0),
    };
    if (m.aboveLoaded > OFFICE_MEMORY_LIMIT)
      missed.push(`${output} of 300 pages takes ${round(m.aboveLoaded)} MiB; at most ${OFFICE_MEMORY_LIMIT}`);
  }
}

/** Counting ten Handbooks against a memory; bringing back 20,000 segments against composing their texts. */
async function languages(): Promise<void> {
  const all = await samples();
  const handbook = all.find((s) => s.folio.head.id === 'observers-handbook')!.folio;
  const a = analysisTimes(handbook, ROUNDS);
  report['ten Handbooks against a memory of 100,000 units'] = Object.fromEntries(Object.entries(a).map(([k, v]) => [k, round(v)]));
  if (a.ratio > MEMORY_RATIO)
    missed.push(`a memory of 100,000 units makes counting ${round(a.ratio)} times as long; at most ${MEMORY_RATIO}`);
  const almanac = all.find((s) => s.folio.stories['dome-feature'])!.folio;
  const i = importTimes(manyTexts(almanac), await loadFonts(almanac.head, [await shippedFontSource()]), 3);
  report['20,000 segments brought back, against composing their texts'] = Object.fromEntries(
    Object.entries(i).map(([k, v]) => [k, round(v)]),
  );
  if (i.ratio > IMPORT_RATIO) missed.push(`bringing back takes ${round(i.ratio)} times composing alone; at most ${IMPORT_RATIO}`);
}

/** A deck of many slides against packing the same bytes and encoding the same pictures. */
async function slides(): Promise<void> {
  const sample = await largePresentation(SLIDES);
  const fonts = await loadFonts(sample.folio.head, [await shippedFontSource()]);
  const t = await bookTimes(sample, fonts, 'pptx', 1);
  report[`${SLIDES} slides → pptx, against their pictures and packing`] = Object.fromEntries(
    Object.entries(t).map(([k, v]) => [k, round(v as number)]),
  );
  if (t.ratio > BOOK_LIMIT) missed.push(`${SLIDES} slides take ${round(t.ratio)} times their pictures and packing; at most ${BOOK_LIMIT}`);
}

/** The web edition on a slow phone: how soon its first page is seen, how its pages turn; 300 pages against 16. */
async function webReading(sample: Sample, fonts: FontSet): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  const prose = proseOf(sample.folio);
  const measure = async (called: string, settings: Record<string, unknown>, pages?: number): Promise<WebReadingTimes> => {
    const folio = pages === undefined ? sample.folio : longFolio(sample.folio, prose, pages);
    const t = await webReadingTimes(browser, { sample, folio, fonts, settings });
    report[`web edition, ${called}, at a quarter of the speed and 1.6 Mbit/s`] = Object.fromEntries(
      Object.entries(t).map(([k, v]) => [k, round(v as number)]),
    );
    if (t.longestTurnTaskMs > TURN_TASK_LIMIT)
      missed.push(`${called}: a task of ${round(t.longestTurnTaskMs)} ms while pages turn; at most ${TURN_TASK_LIMIT}`);
    return t;
  };
  try {
    for (const form of ['stacked', 'slides', 'spreads']) {
      const t = await measure(`the Almanac, ${form}`, { form, fit: 'page', bar: ['contents', 'arrows', 'number'] });
      if (t.kBToFirstPage > FIRST_PAGE_LIMIT)
        missed.push(`${form}: ${round(t.kBToFirstPage)} kB come before the first page is seen; at most ${FIRST_PAGE_LIMIT}`);
    }
    const bar = { fit: 'width', bar: ['contents', 'arrows', 'number'] };
    for (const form of ['stacked', 'slides']) {
      const [short, long] = [
        await measure(`16 pages of prose, ${form}`, { form, ...bar }, 16),
        await measure(`300 pages, ${form}`, { form, ...bar }, 300),
      ];
      const ratio = long.turnMs / short.turnMs;
      report[`turning a page of 300 against one of 16, ${form}`] = { ratio: round(ratio) };
      if (ratio > LONG_TURN_LIMIT)
        missed.push(`${form}: a page of 300 turns in ${round(ratio)} times the time; at most ${LONG_TURN_LIMIT}`);
    }
  } finally {
    await browser.close();
  }
}

/** Letters typed into the text beside the page, in a browser and with a server, at several lengths. */
async function typing(sample: Sample): Promise<void> {
  const prose = proseOf(sample.folio);
  for (const t of await typingTimes(TYPED_PAGES.map((pages) => longFolio(sample.folio, prose, pages)))) {
    const { pages, windowMs, mostWindowMs, typesetterMs, serverMs, edits, kB } = t;
    report[`a key in a text of ${pages} pages`] = Object.fromEntries(
      Object.entries({ windowMs, mostWindowMs, typesetterMs, serverMs, edits, kB }).map(([k, v]) => [k, round(v)]),
    );
    if (windowMs > KEY_LIMITS.window)
      missed.push(`a key in a text of ${pages} pages takes ${round(windowMs)} ms in the window; at most ${KEY_LIMITS.window}`);
    if (serverMs > KEY_LIMITS.server)
      missed.push(`a key in a text of ${pages} pages takes ${round(serverMs)} ms in the server; at most ${KEY_LIMITS.server}`);
    if (edits !== 1) missed.push(`a key in a text of ${pages} pages is ${round(edits)} edits; it should be one`);
  }
}

/** The Almanac and a document of 3,000 pages in a browser: how soon they are seen, and the memory they take. */
async function screen(sample: Sample): Promise<void> {
  const { almanac, long } = await onScreen(longFolio(sample.folio, proseOf(sample.folio), 3000), (work) => time(work));
  report['on screen (warm browser)'] = {
    almanacFirstPageMs: round(almanac.firstPageMs),
    keystrokeToRepaintMs: round(median(almanac.strokesMs)),
  };
  report['3000 pages on screen'] = {
    firstPageMs: round(long.firstPageMs, 0),
    lastPageMs: round(long.lastPageMs, 0),
    wholeRunMs: round(long.scrolledMs, 0),
    browserMiB: round(long.browserMiB, 0),
    serverMiB: round(long.serverMiB, 0),
  };
  if (long.browserMiB > MEMORY_LIMIT)
    missed.push(`3,000 pages take ${round(long.browserMiB, 0)} MiB in the browser, more than ${MEMORY_LIMIT}`);
}

async function main(): Promise<void> {
  process.chdir(dirname(new URL(import.meta.url).pathname).replace(/\/node_modules\/.*$/, ''));
  const json = process.argv.includes('--json');
  // `-- chains` and the like measure one part alone.
  const parts = [
    'compositions',
    'conversions',
    'chains',
    'printing',
    'browser',
    'answering',
    'screen',
    'typing',
    'books',
    'office',
    'languages',
    'intake',
    'motion',
    'web',
  ].filter((p) => process.argv.includes(p));
  const only = (part: string): boolean => !parts.length || parts.includes(part);
  report['machine'] = { processor: cpus()[0]?.model, cores: availableParallelism(), node: process.version, rounds: ROUNDS };
  for (const sample of await samples()) {
    const fonts = await loadFonts(sample.folio.head, [await shippedFontSource()]);
    if (only('compositions')) await composition(sample, fonts);
    if (only('conversions')) await conversions(sample, fonts);
    if (only('printing') && sample.folio.stories['dome-feature']) await printing(sample);
    if (only('books') && /almanac|handbook/.test(sample.folio.head.id)) await books(sample, fonts);
    if (only('office') && /almanac|handbook/.test(sample.folio.head.id)) await office(sample, fonts);
    if (only('screen') && sample.folio.stories['dome-feature']) await screen(sample);
    if (only('typing') && sample.folio.stories['dome-feature']) await typing(sample);
    if (only('web') && sample.folio.stories['dome-feature']) await webReading(sample, fonts);
    if (only('chains') && sample.folio.stories['dome-feature']) longChains(sample, fonts);
  }
  if (only('browser')) await againstBrowser();
  if (only('answering')) await answers();
  if (only('office')) await slides();
  if (only('languages')) await languages();

  if (only('intake')) {
    const t = await intakeTimes(ROUNDS);
    report['reading a presentation of 100 pages'] = Object.fromEntries(Object.entries(t).map(([k, v]) => [k, round(v as number)]));
    if (t.ratio > INTAKE_LIMIT)
      missed.push(`a presentation is read in ${round(t.ratio)} times the time of unzipping and parsing it; at most ${INTAKE_LIMIT}`);
    if (t.peakMiB > INTAKE_MEMORY) missed.push(`reading it takes ${round(t.peakMiB)} MiB; at most ${INTAKE_MEMORY}`);
  }
  if (only('motion')) {
    const browser = await chromium.launch(CHROMIUM);
    const t = await motionTimes(browser, await readFile(join('dist', 'player.js'), 'utf8')).finally(() => browser.close());
    report['a veil of 400 flakes at a quarter of the speed'] = Object.fromEntries(
      Object.entries(t).map(([k, v]) => [k, round(v as number)]),
    );
    if (t.ratio < FRAMES_LIMIT)
      missed.push(`a veil of 400 flakes moves at ${round(t.ratio)} of the frames that the page has without it; at least ${FRAMES_LIMIT}`);
  }
  if (json) console.log(JSON.stringify(report, null, 1));
  else
    for (const [name, values] of Object.entries(report))
      console.log(
        `${name}: ${Object.entries(values as object)
          .map(([k, v]) => `${k} ${String(v)}`)
          .join(', ')}`,
      );
  if (process.argv.includes('--check') && missed.length) {
    console.error(missed.join('\n'));
    process.exitCode = 1;
  }
}

await main();
