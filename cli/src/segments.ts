import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { slugOf } from '@elastic-folio/core';
import { analyse, goesOut, Memory, memoryOfEdition, sumOf, wholeEdition } from '@elastic-folio/core/language';
import type { CutUnit, MemoryUnit } from '@elastic-folio/core/language';
import { Composer } from '@elastic-folio/core/compose';
import { readMemory } from '@elastic-folio/core/read';
import { ExchangeSettings, writerById } from '@elastic-folio/core/write';
import { convertFile } from './convert.ts';
import { withDocument } from './openDocument.ts';
import type { SegmentsResult } from './results.ts';
import { UsageError } from './usage.ts';

export interface SegmentsOptions {
  to: string;
  out: string;
  target: string;
  source?: string | undefined;
  recipe?: string | undefined;
  pages?: string | undefined;
  memory?: string | undefined;
  sentences: boolean;
  copySource: boolean;
}

/** Writes the texts of one or several documents for translators, and counts them as one set. */
export async function segmentsOf(files: readonly string[], options: SegmentsOptions): Promise<SegmentsResult> {
  const writer = writerById(options.to);
  if (!writer || !('pretranslation' in (writer.settings as typeof ExchangeSettings).shape))
    throw new UsageError(`"${options.to}" is no format for translators.`);
  const settings = {
    target: options.target,
    ...(options.source !== undefined && { source: options.source }),
    ...(options.copySource && { targets: 'copies' }),
    ...(options.sentences && { cut: 'sentences' }),
  };
  const memory = options.memory === undefined ? undefined : await readFile(options.memory, 'utf8');
  const unitsOfMemory = async (source: string, target: string): Promise<MemoryUnit[]> =>
    memory === undefined ? [] : readMemory(memory, source, target).units;
  const documents: Omit<SegmentsResult['documents'][number], 'analysis'>[] = [];
  const sets: CutUnit[][] = [];
  const known: MemoryUnit[] = [];
  let source = options.source ?? '';
  for (const file of files) {
    const made = await withDocument(file, async ({ folio, fontsOf }) => {
      source ||= folio.head.metadata.language;
      const chosen = ExchangeSettings.parse({ ...settings, ...(options.pages !== undefined && { pages: options.pages }) });
      const { units, stays } = goesOut(folio, chosen, new Composer(await fontsOf(folio)).compose(folio));
      const known = [...memoryOfEdition(units, wholeEdition(folio, options.target))];
      return { id: folio.head.id, title: folio.head.metadata.title, units, stays, known };
    });
    const out = files.length > 1 ? join(resolve(options.out), slugOf(made.id, 60) || made.id) : resolve(options.out);
    const { outputs } = await convertFile(file, {
      to: options.to,
      out,
      recipe: options.recipe,
      pages: options.pages,
      settings,
      memory: unitsOfMemory,
    });
    const [output] = outputs;
    sets.push(made.units);
    known.push(...made.known);
    documents.push({
      id: made.id,
      title: made.title,
      files: output!.files.map((f) => ({ ...f, path: join(out, writer.id, f.path) })),
      stays: made.stays.map((s) => ({ id: s.unit.id, because: s.because })),
      valid: output!.valid,
    });
  }
  const analyses = analyse(sets, new Memory([...(await unitsOfMemory(source, options.target)), ...known]));
  return { documents: documents.map((d, i) => ({ ...d, analysis: analyses[i]! })), total: sumOf(analyses) };
}
