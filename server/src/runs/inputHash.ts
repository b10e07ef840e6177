import type { Recipe } from '@elastic-folio/core';
import { writerById } from '@elastic-folio/core/write';
import { hashOf } from '../documents/parts.ts';

/** Changes whenever a result would: document, recipe and the writer's version. Equal means fresh. */
export const inputHash = (contentHash: string, recipe: Pick<Recipe, 'output' | 'settings' | 'edition'>): string =>
  hashOf([contentHash, recipe.output, recipe.settings, recipe.edition ?? null, writerById(recipe.output)?.version ?? 0]);

/** Whether a result depends on translations: it is one, or goes to translators. */
export const isOfEditions = (recipe: Pick<Recipe, 'output' | 'edition'>): boolean =>
  recipe.edition !== undefined || writerById(recipe.output)?.view === 'texts';
