import { Recipe } from '../folio/folio.ts';
import { FolioError } from '../ports/ports.ts';
import { readSettings } from './convert.ts';
import type { Writer } from './writer.ts';

/** A recipe as it goes from document to document, and as a file: without the name by which one document knows it. */
export const RecipeFile = Recipe.omit({ id: true });
export type RecipeFile = Omit<Recipe, 'id'>;

/**
 * Reads a recipe from a file's text: of an output that is known here, with settings that it can use, brought up to the version of
 * today. Throws a FolioError in words for a person; `called` is what the file is called.
 */
export function readRecipe(text: string, called: string, writerById: (id: string) => Writer | undefined): RecipeFile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    value = undefined;
  }
  const parsed = RecipeFile.safeParse(value);
  if (!parsed.success)
    throw new FolioError('recipe.form', `${called} is no recipe.`, 'A recipe is a JSON file with output, version, name and settings.');
  const recipe = parsed.data;
  const writer = writerById(recipe.output);
  if (!writer)
    throw new FolioError(
      'recipe.output',
      `${called} is a recipe for an output that is not known here: “${recipe.output}”.`,
      'Update the program, or make the recipe again.',
    );
  return { ...recipe, version: writer.version, settings: readSettings(writer, recipe) as RecipeFile['settings'] };
}
