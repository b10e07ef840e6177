import { z } from 'zod';
import { Recipe } from '@elastic-folio/core';
import { readRecipe, RecipeFile, writerById } from '@elastic-folio/core/write';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const Name = z.string().trim().min(1).max(120);
const Kept = RecipeFile.extend({ name: Name });

/** Recipes that a user keeps for all documents, and those that come as files. */
export function keptRecipeRoutes(api: Api, s: Services): void {
  api.route({ method: 'get', path: '/recipes', says: 'The recipes that are kept', answer: z.array(Recipe) }, () => s.keptRecipes.list());

  api.route(
    { method: 'post', path: '/recipes', says: 'Keep a recipe; one of the same output and name gives way', body: Kept, answer: Recipe },
    ({ body }) => s.keptRecipes.keep(body),
  );

  api.route(
    {
      method: 'post',
      path: '/recipes/read',
      says: 'Read a recipe from a file: its settings, brought up to date',
      body: z.object({ called: z.string().max(300), text: z.string().max(1_000_000) }),
      answer: RecipeFile,
    },
    ({ body }) => readRecipe(body.text, `“${body.called}”`, writerById),
  );

  api.route(
    {
      method: 'post',
      path: '/recipes/:recipe/name',
      says: 'Call a kept recipe otherwise',
      params: z.object({ recipe: z.string() }),
      body: z.object({ name: Name }),
      answer: z.object({}),
    },
    async ({ params: p, body }) => {
      await s.keptRecipes.rename(p.recipe, body.name);
      return {};
    },
  );

  api.route(
    {
      method: 'delete',
      path: '/recipes/:recipe',
      says: 'Take a kept recipe away',
      params: z.object({ recipe: z.string() }),
      answer: z.object({}),
    },
    async ({ params: p }) => {
      await s.keptRecipes.remove(p.recipe);
      return {};
    },
  );
}
