import type { Folio } from '@elastic-folio/core';
import type { OutputState, Run } from '@elastic-folio/core/api';
import type { DocumentState, DocumentStore } from '../documents/documentStore.ts';
import { inputHash, isOfEditions } from './inputHash.ts';
import type { RunStore } from './runStore.ts';

/** How an output stands, and whether what is being made of it now is made of the document as it is. */
export type Standing = OutputState & { upToDateSoon: boolean };

/** A document's recipes, and the hashes of what outputs are made from, without its editions and with them. */
type Made = Pick<DocumentState, 'content' | 'withEditions'> & Pick<Folio, 'recipes'>;

/** How each recipe of a document stands: never run, going, fresh or stale. */
export async function outputStates(documents: DocumentStore, store: RunStore, id: string): Promise<Standing[]> {
  const { folio, content, withEditions } = await documents.state(id);
  return standingsOf({ recipes: folio.recipes, content, withEditions }, await store.newestOf([id]));
}

/** The same by what is known: `runs` has the newest of the document, the newest first. */
export function standingsOf({ recipes, content, withEditions }: Made, runs: readonly Run[]): Standing[] {
  return Object.values(recipes).map((recipe) => {
    const now = inputHash(isOfEditions(recipe) ? withEditions : content, recipe);
    const mine = runs.filter((r) => r.recipe === recipe.id);
    const lastDone = mine.find((r) => r.state === 'done') ?? null;
    const run = mine[0] ?? null;
    const fresh = lastDone?.inputHash === now;
    return {
      recipe: recipe.id,
      name: recipe.name,
      output: recipe.output,
      state: stateOf(run, lastDone, fresh),
      run,
      lastDone,
      // One that has just been taken reads the document after it has been taken.
      upToDateSoon: mine.some((r) => r.state === 'waiting' || (r.state === 'running' && (r.inputHash === '' || r.inputHash === now))),
    };
  });
}

function stateOf(run: Run | null, lastDone: Run | null, fresh: boolean): OutputState['state'] {
  if (!run) return 'never';
  if (run.state === 'waiting' || run.state === 'running') return run.state;
  if (lastDone || run.state === 'done') return fresh ? 'fresh' : 'stale';
  return run.state;
}
