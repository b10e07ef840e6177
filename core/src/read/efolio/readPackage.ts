import { cleaned, mayBeUnclean } from '../../folio/cleanText.ts';
import { firstFault } from '../../folio/plainErrors.ts';
import type { z } from 'zod';
import type { Folio } from '../../folio/folio.ts';
import { Recipe } from '../../folio/folio.ts';
import { Edition } from '../../folio/edition.ts';
import { editionsOfBefore } from '../../language/fromParagraphs.ts';
import { FORMAT_VERSION, Head } from '../../folio/head.ts';
import { Spread } from '../../folio/spread.ts';
import { Story } from '../../folio/story.ts';
import { incoherences } from '../../folio/coherence.ts';
import { Cancelled, FolioError } from '../../ports/ports.ts';
import { collect, readArchive } from '../../packages/archive.ts';
import type { LoadedFolio, ReadJob, Reader } from '../../intake/reader.ts';

export const PACKAGE_TYPE = 'application/vnd.elastic-folio+zip';

const KEPT = /^(media|fonts|origin)\//;

/** Reads a `.efolio` package: JSON parts into memory, everything else straight into blobs. */
async function read(job: ReadJob): Promise<LoadedFolio> {
  const parts = new Map<string, unknown>();
  const files: LoadedFolio['files'] = new Map();
  let done = 0;
  for await (const entry of readArchive(job.file, job.limits)) {
    if (job.signal?.aborted) throw new Cancelled();
    job.progress?.(++done, 0, entry.path);
    if (entry.path === 'mimetype') {
      const type = (await collect(await entry.open(), 1024, entry.path)).toString('utf8');
      if (type.trim() !== PACKAGE_TYPE) throw notAPackage();
    } else if (entry.path.endsWith('.json') && !KEPT.test(entry.path)) {
      parts.set(entry.path, parse(await collect(await entry.open(), job.limits.partBytes, entry.path), entry.path));
    } else if (KEPT.test(entry.path)) files.set(entry.path, await job.blobs.put(await entry.open()));
  }
  if (!parts.has('folio.json')) throw notAPackage();
  const folio = assemble(parts);
  const wrong = incoherences(folio)[0];
  if (wrong)
    throw new FolioError('folio.incoherent', `${wrong.where}: ${wrong.says}.`, 'Make the package again with the program it came from.');
  await checkFiles(folio, files, job);
  return { folio, files };
}

const notAPackage = (): FolioError =>
  new FolioError(
    'package.unlike',
    'This archive is not a document package.',
    'Choose a file ending in .efolio that was saved by this program.',
  );

function parse(bytes: Buffer, path: string): unknown {
  try {
    const text = bytes.toString('utf8');
    const value: unknown = JSON.parse(text);
    return mayBeUnclean(text) ? cleaned(value) : value;
  } catch {
    throw new FolioError('package.json', `${path} is not valid JSON.`, 'Make the package again with the program it came from.');
  }
}

function check<S extends z.ZodType>(schema: S, value: unknown, path: string): z.output<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  throw new FolioError('package.schema', `${path}: ${firstFault(result.error)}.`, 'Make the package again with the program it came from.');
}

/** Puts the parts together as their schemas; the file's name must be the part's id. */
function assemble(parts: Map<string, unknown>): Folio {
  const rawHead = parts.get('folio.json');
  const version = (rawHead as { formatVersion?: unknown } | null)?.formatVersion;
  if (typeof version === 'number' && version > FORMAT_VERSION)
    throw new FolioError(
      'package.newer',
      `The package is of format ${version}; this program knows up to ${FORMAT_VERSION}.`,
      'Update the program, then bring it in again.',
    );
  const folio: Folio = { head: check(Head, rawHead, 'folio.json'), spreads: {}, stories: {}, editions: {}, recipes: {} };
  const kinds: [RegExp, z.ZodType, (value: never, key: string) => string][] = [
    [/^spreads\/([^/]+)\.json$/, Spread, (v: Spread) => ((folio.spreads[v.id] = v), v.id)],
    [/^stories\/([^/]+)\.json$/, Story, (v: Story) => ((folio.stories[v.id] = v), v.id)],
    [/^editions\/([^/]+)\.json$/, Edition, (v: Edition) => ((folio.editions[v.language] = v), v.language)],
    [/^recipes\/([^/]+)\.json$/, Recipe, (v: Recipe) => ((folio.recipes[v.id] = v), v.id)],
  ];
  const before: Record<string, unknown> = {};
  for (const [path, value] of parts)
    for (const [pattern, schema, take] of kinds) {
      const name = pattern.exec(path)?.[1];
      if (name === undefined) continue;
      const id = take(check(schema, value, path) as never, name);
      if (id !== name)
        throw new FolioError(
          'package.name',
          `${path} holds a part called "${id}".`,
          'Make the package again with the program it came from.',
        );
      if (pattern.source.startsWith('^editions')) before[id] = value;
    }
  Object.assign(folio.editions, editionsOfBefore(folio, before));
  return folio;
}

/** Every file the head names must be there, be what it says, and be safe to decode. */
async function checkFiles(folio: Folio, files: LoadedFolio['files'], job: ReadJob): Promise<void> {
  const named = [
    ...Object.values(folio.head.media).map((m) => ({ ...m, what: 'picture or media file' })),
    ...Object.values(folio.head.fonts).flatMap((f) =>
      f.file ? [{ file: f.file, sha256: f.sha256, mediaType: 'font', name: f.family, what: 'font' }] : [],
    ),
  ];
  for (const entry of named) {
    const file = files.get(entry.file);
    if (!file)
      throw new FolioError(
        'package.missing',
        `The ${entry.what} ${entry.file} is named in the document but missing from the package.`,
        'Pack it again where the file is still there.',
      );
    if (entry.sha256 !== undefined && entry.sha256 !== file.sha256)
      throw new FolioError(
        'package.changed',
        `${entry.file} is not the file it was when the package was made.`,
        'Pack it again from the original.',
      );
    if (!entry.mediaType.startsWith('image/') || entry.mediaType === 'image/svg+xml') continue;
    try {
      await job.pictures.info(await job.blobs.read(file.sha256));
    } catch (error) {
      // One that is damaged has its place all the same.
      if (error instanceof FolioError && error.code !== 'picture.unreadable')
        throw new FolioError(error.code, `The picture ${entry.name} cannot be used: ${error.message}.`, error.advice);
      if (!(error instanceof FolioError)) throw error;
    }
  }
}

export const efolioReader: Reader = { id: 'efolio', label: 'Elastic Folio package', extensions: ['.efolio'], read };
