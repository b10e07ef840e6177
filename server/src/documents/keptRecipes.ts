import { randomUUID } from 'node:crypto';
import { Recipe } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { readRecipe, writerById } from '@elastic-folio/core/write';
import type { RecipeFile } from '@elastic-folio/core/write';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';

/** Recipes that a user keeps for all documents. */
export class KeptRecipes {
  constructor(private readonly db: Db) {}

  /** In the order of their names. What cannot be used any more (an output that is gone) is passed over. */
  async list(): Promise<Recipe[]> {
    const rows = await this.db.query<Row>('SELECT id, name, recipe FROM kept_recipes WHERE owner = $1 ORDER BY lower(name), kept_at', [
      OWNER,
    ]);
    return rows.flatMap(({ id, name, recipe }) => {
      try {
        const file = readRecipe(typeof recipe === 'string' ? recipe : JSON.stringify(recipe), name, writerById);
        return [Recipe.parse({ ...file, id, name })];
      } catch (error) {
        if (error instanceof FolioError) return [];
        throw error;
      }
    });
  }

  /** Keeps a recipe; one of the same output and name gives way to it. */
  async keep(file: RecipeFile): Promise<Recipe> {
    const recipe: Recipe = { ...readRecipe(JSON.stringify(file), `“${file.name}”`, writerById), id: `recipe-${randomUUID()}` };
    await this.db.transaction(async (query) => {
      await query('DELETE FROM kept_recipes WHERE owner = $1 AND output = $2 AND lower(name) = lower($3)', [
        OWNER,
        recipe.output,
        recipe.name,
      ]);
      await query('INSERT INTO kept_recipes (id, owner, name, output, recipe) VALUES ($1, $2, $3, $4, $5)', [
        recipe.id,
        OWNER,
        recipe.name,
        recipe.output,
        JSON.stringify(file),
      ]);
    });
    return recipe;
  }

  async rename(id: string, name: string): Promise<void> {
    const [found] = await this.db.query('UPDATE kept_recipes SET name = $3 WHERE owner = $1 AND id = $2 RETURNING id', [OWNER, id, name]);
    if (!found) throw gone();
  }

  async remove(id: string): Promise<void> {
    const [found] = await this.db.query('DELETE FROM kept_recipes WHERE owner = $1 AND id = $2 RETURNING id', [OWNER, id]);
    if (!found) throw gone();
  }
}

interface Row {
  id: string;
  name: string;
  recipe: string | object;
}

const gone = (): FolioError => new FolioError('recipe.none', 'This recipe is not kept any more.', 'Reload the page.');
