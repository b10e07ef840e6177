import type { Recipe } from '@elastic-folio/core';
import { writerById } from '@elastic-folio/core/write';
import { hashOf } from '../documents/parts.ts';

/** Changes whenever a result would: document, recipe and the writer's version. Equal means fresh. */
export const inputHash = (contentHash: string, recipe: Pick<Recipe, 'output' | 'settings'>): string =>
  hashOf([contentHash, recipe.output, recipe.settings, writerById(recipe.output)?.version ?? 0]);
