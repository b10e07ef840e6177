import { readFile, writeFile } from 'node:fs/promises';
import { createWriteStream } from 'node:fs';
import { join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { FolioError, sharpPictures } from '@elastic-folio/core/node';
import { convert, ledgerFile, readRecipe, readSettings, writerById, WRITERS, zipFiles } from '@elastic-folio/core/write';
import type { ConversionPorts, Writer } from '@elastic-folio/core/write';
import { inEdition } from '@elastic-folio/core/language';
import { withDocument } from './openDocument.ts';
import { playerBytes } from './player.ts';
import type { ConvertResult } from './results.ts';
import { UsageError } from './usage.ts';

export interface ConvertOptions {
  to: string;
  out: string;
  recipe?: string | undefined;
  edition?: string | undefined;
  pages?: string | undefined;
  /** Settings that the command line gives, over those of the recipe. */
  settings?: Record<string, unknown>;
  /** What was translated before. */
  memory?: ConversionPorts['memory'];
  onProgress?: (output: string, done: number, total: number) => void;
}

/** Writes the outputs named, one after another, each into a folder of its own with its ledger. */
export async function convertFile(file: string, options: ConvertOptions): Promise<ConvertResult> {
  const writers = options.to.split(',').map((id) => {
    const writer = writerById(id.trim());
    if (!writer) throw new UsageError(`There is no output "${id.trim()}". There are: ${WRITERS.map((w) => w.id).join(', ')}.`);
    return writer;
  });
  const out = resolve(options.out);
  const stop = new AbortController();
  process.once('SIGINT', () => stop.abort());
  return withDocument(file, async ({ folio: document, fontsOf, media, others, origin, derived }) => {
    const folio = options.edition === undefined ? document : inEdition(document, options.edition);
    const fonts = await fontsOf(folio);
    const outputs: ConvertResult['outputs'] = [];
    for (const writer of writers) {
      const settings = await settingsFor(writer, options);
      const memory = watchMemory();
      const started = performance.now();
      const folder = join(out, writer.id);
      const result = await convert(folio, writer, settings, folder, {
        fonts,
        media,
        others,
        origin,
        ...(options.memory && { memory: options.memory }),
        pictures: sharpPictures,
        derived,
        player: playerBytes,
        clock: () => new Date(process.env['SOURCE_DATE_EPOCH'] ? Number(process.env['SOURCE_DATE_EPOCH']) * 1000 : Date.now()),
        signal: stop.signal,
        progress: (done, total) => options.onProgress?.(writer.id, done, total),
      });
      const ms = Math.round(performance.now() - started);
      await writeFile(
        join(folder, 'ledger.json'),
        ledgerFile({ output: writer.id, valid: result.valid, counts: result.counts, entries: result.ledger }),
      );
      if (result.files.length > 1)
        await pipeline(
          zipFiles(result.files.map((f) => ({ path: f.path, file: join(folder, f.path) }))),
          createWriteStream(join(out, `${writer.id}.zip`)),
        );
      outputs.push({ id: writer.id, files: result.files, ms, peakMemory: memory.stop(), ledger: result.counts, valid: result.valid });
    }
    return { outputs };
  });
}

/** The recipe's settings where one is given for this output, else the defaults; the command line's range comes last. */
async function settingsFor(writer: Writer, options: ConvertOptions): Promise<unknown> {
  let recipe: { version: number; name: string; settings: Record<string, unknown> } = {
    version: writer.version,
    name: writer.label,
    settings: {},
  };
  if (options.recipe) {
    const text = await readFile(options.recipe, 'utf8').catch(() => {
      throw new FolioError('recipe.none', `The recipe ${options.recipe} cannot be read.`, 'Check its path.');
    });
    const given = readRecipe(text, options.recipe, writerById);
    if (given.output === writer.id) recipe = given;
  }
  return readSettings(writer, {
    ...recipe,
    settings: { ...recipe.settings, ...options.settings, ...(options.pages !== undefined && { pages: options.pages }) },
  });
}

/** Samples the process's memory while work goes on. */
function watchMemory(): { stop(): number } {
  let peak = process.memoryUsage.rss();
  const timer = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 20).unref();
  return {
    stop() {
      clearInterval(timer);
      return Math.max(peak, process.memoryUsage.rss());
    },
  };
}
