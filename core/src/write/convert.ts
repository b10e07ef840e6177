import { firstFault } from '../folio/plainErrors.ts';
import { createWriteStream } from 'node:fs';
import { mkdir, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join, normalize, sep } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Composer } from '../compose/compose.ts';
import type { Folio, Recipe } from '../folio/folio.ts';
import { buildLedger, isValid } from '../ledger/build.ts';
import { countLedger } from '../ledger/entry.ts';
import type { Evidence, Treatment, LedgerCounts, LedgerEntry } from '../ledger/entry.ts';
import type { SubjectInFolio } from '../ledger/subjects.ts';
import { withStandIns } from '../ports/damagedPictures.ts';
import { Cancelled, FolioError } from '../ports/ports.ts';
import type { ConversionPorts, WriteJob, Writer, WrittenFile } from './writer.ts';

const DAMAGED_PICTURE = 'picture.damaged';
/** Sentences for the codes that outputs of every kind may use. */
export const COMMON_SENTENCES: Record<string, string> = {
  [DAMAGED_PICTURE]: 'The file of this picture is damaged; a stand-in that says so is in its place.',
};

export interface Conversion {
  files: { path: string; mediaType: string; bytes: number }[];
  ledger: LedgerEntry[];
  counts: LedgerCounts;
  valid: boolean;
}

/** A recipe's settings for a writer: migrated, defaults filled in, checked. A FolioError says what is wrong. */
export function readSettings(writer: Writer, recipe: Pick<Recipe, 'version' | 'settings' | 'name'>): unknown {
  if (recipe.version > writer.version)
    throw new FolioError(
      'recipe.newer',
      `The recipe “${recipe.name}” is of version ${recipe.version}; this program knows up to ${writer.version}.`,
      'Update the program, or make the recipe again.',
    );
  const raw = recipe.version < writer.version ? writer.migrate(recipe.settings, recipe.version) : recipe.settings;
  const result = writer.settings.safeParse(raw);
  if (result.success) return result.data;
  throw new FolioError(
    'recipe.settings',
    `The recipe “${recipe.name}” has a setting that cannot be used: ${firstFault(result.error)}.`,
    'Correct it, or take the recipe’s default.',
  );
}

/**
 * Runs one output: writes its files into `folder` (which appears only when all is done), reads them
 * back and makes the ledger. Cancelled by the signal until the last moment; then nothing remains.
 */
export async function convert(
  document: Folio,
  writer: Writer,
  settings: unknown,
  folder: string,
  ports: ConversionPorts,
): Promise<Conversion> {
  const staging = `${folder}.part`;
  await rm(staging, { recursive: true, force: true });
  await mkdir(staging, { recursive: true });
  try {
    const { job, damaged } = await jobOf(document, settings, ports);
    const files: Conversion['files'] = [];
    const written: WrittenFile[] = [];
    for await (const output of writer.write(job)) {
      stopIfCancelled(ports.signal);
      const file = inside(staging, output.path);
      await mkdir(dirname(file), { recursive: true });
      const out = createWriteStream(file);
      await pipeline(Readable.from(output.body), out, { signal: ports.signal });
      files.push({ path: output.path, mediaType: output.mediaType, bytes: out.bytesWritten });
      written.push({ path: output.path, mediaType: output.mediaType, bytes: async () => new Uint8Array(await readFile(file)) });
    }
    const evidence: Evidence[] = [];
    for await (const e of writer.readBack(written, job)) evidence.push(e);
    stopIfCancelled(ports.signal);
    const ledger = await ledgerOf(writer, job, damaged, evidence);
    await mkdir(dirname(folder), { recursive: true });
    await putInPlace(staging, folder);
    return { files: files.sort((a, b) => (a.path < b.path ? -1 : 1)), ledger, counts: countLedger(ledger), valid: isValid(ledger) };
  } catch (error) {
    await rm(staging, { recursive: true, force: true });
    if (ports.signal.aborted) throw new Cancelled();
    throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? diskFull() : error;
  }
}

/** What an output will do with every subject of a document, before anything is written: entries as a ledger has them, none checked yet. */
export async function plannedLedger(document: Folio, writer: Writer, settings: unknown, ports: ConversionPorts): Promise<LedgerEntry[]> {
  const { job, damaged } = await jobOf(document, settings, ports);
  return ledgerOf(writer, job, damaged, null);
}

async function jobOf(
  document: Folio,
  settings: unknown,
  ports: ConversionPorts,
): Promise<{ job: WriteJob<unknown>; damaged: ReadonlySet<string> }> {
  const { folio, media, damaged } = await withStandIns(document, ports);
  const composition = ports.compose?.(folio) ?? new Composer(ports.fonts).compose(folio);
  return { job: { folio, composition, settings, ...ports, media }, damaged };
}

async function ledgerOf(
  writer: Writer,
  job: WriteJob<unknown>,
  damaged: ReadonlySet<string>,
  evidence: readonly Evidence[] | null,
): Promise<LedgerEntry[]> {
  const plan = await writer.plan(job);
  return buildLedger(job.folio, job.composition, (about) => lost(about, plan(about), damaged), evidence);
}

/** A damaged picture is dropped, whatever an output does with its stand-in; one that is left out stays so. */
function lost({ subject, item }: SubjectInFolio, treatment: Treatment, damaged: ReadonlySet<string>): Treatment {
  const isLost = subject.aspect === 'picture' && item?.kind === 'picture' && item.media !== null && damaged.has(item.media);
  return isLost && treatment.outcome !== 'excluded' ? { outcome: 'dropped', code: DAMAGED_PICTURE } : treatment;
}

/** What a former run left goes with it, as a whole; where the new one cannot take its place, the old one stays. */
async function putInPlace(made: string, folder: string): Promise<void> {
  const former = `${folder}.former`;
  await rm(former, { recursive: true, force: true });
  const had = await rename(folder, former).then(
    () => true,
    () => false,
  );
  try {
    await rename(made, folder);
  } catch (error) {
    if (had) await rename(former, folder);
    throw error;
  }
  await rm(former, { recursive: true, force: true });
}

const diskFull = (): FolioError =>
  new FolioError(
    'disk.full',
    'The disk became full while the files were written. The last result is still there.',
    'Make room and run it again.',
  );

function stopIfCancelled(signal: AbortSignal): void {
  if (signal.aborted) throw new Cancelled();
}

/** A writer's path must stay inside the result's folder. */
function inside(folder: string, path: string): string {
  const file = normalize(join(folder, path));
  if (!file.startsWith(folder + sep)) throw new Error(`a writer named a file outside its result: ${path}`);
  return file;
}
