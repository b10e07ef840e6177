import type { Ledger } from '@elastic-folio/core/api';
import { countLedger } from '@elastic-folio/core/ledger';
import { FolioError } from '@elastic-folio/core/node';
import type { z } from 'zod';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { TranslationMemory } from '../languages/translationMemory.ts';
import { recipeOf, runInput } from './runInput.ts';
import type { RunnerPaths } from './runner.ts';

/** What outputs will keep, told before they are made. */
export class Plans {
  constructor(
    private readonly documents: DocumentStore,
    private readonly memory: TranslationMemory,
    private readonly pool: ConversionPool,
    private readonly paths: RunnerPaths,
  ) {}

  /** The plan of a recipe for the document as it is now. */
  async of(folio: string, recipe: string): Promise<z.infer<typeof Ledger>> {
    const asked = await recipeOf(this.documents, folio, recipe);
    const input = await runInput(this.documents, this.memory, folio, asked);
    const outcome = await this.pool.plan({ ...input, blobs: this.paths.blobs, derived: this.paths.derived });
    if ('failure' in outcome) throw new FolioError(outcome.failure.code, outcome.failure.message, outcome.failure.advice);
    if ('cancelled' in outcome) throw new FolioError('plan.stopped', 'The program is ending.', 'Ask again when it has been started.');
    return { output: asked.writer.id, valid: true, counts: { ...countLedger(outcome.ok) }, entries: outcome.ok };
  }
}
