import type { Recipe } from '@elastic-folio/core';
import { inEdition } from '@elastic-folio/core/language';
import { FolioError } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import { readSettings, writerById } from '@elastic-folio/core/write';
import type { Writer } from '@elastic-folio/core/write';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { TranslationMemory } from '../languages/translationMemory.ts';

/** What an output is made from, as far as it does not depend on where it goes. */
export type RunInput = Pick<
  Parameters<ConversionPool['convert']>[0],
  'folio' | 'files' | 'library' | 'others' | 'output' | 'settings' | 'memory'
>;

/** A recipe of a document and its writer; a FolioError where it has been removed. */
export async function recipeOf(documents: DocumentStore, folio: string, id: string): Promise<{ recipe: Recipe; writer: Writer }> {
  const recipe = (await documents.get(folio)).folio.recipes[id];
  const writer = recipe && writerById(recipe.output);
  if (!recipe || !writer) throw new FolioError('recipe.none', 'The recipe of this output has been removed.', 'Add the output again.');
  return { recipe, writer };
}

/** The document in the recipe's language, its files and settings, and what was translated before where texts go out. */
export async function runInput(
  documents: DocumentStore,
  memory: TranslationMemory,
  id: string,
  { recipe, writer }: { recipe: Recipe; writer: Writer },
): Promise<RunInput> {
  const { folio: document, files, library = [], others = new Map<string, LoadedFolio>() } = await documents.loaded(id);
  const settings = readSettings(writer, recipe);
  const folio = recipe.edition === undefined ? document : inEdition(document, recipe.edition);
  const units =
    writer.view === 'texts' ? await memory.of(folio.head.metadata.language, settings as { source: string; target: string }) : [];
  return { folio, files: [...files], library, others: sent(others), output: writer.id, settings, memory: units };
}

/** Other documents as they are sent to a thread. */
export const sent = (others: ReadonlyMap<string, LoadedFolio>): RunInput['others'] =>
  [...others].map(([id, { folio, files, library = [] }]) => [id, { folio, files: [...files], library }] as const);
