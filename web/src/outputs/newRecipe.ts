import type { Edit, Folio } from '@elastic-folio/core';
import type { OutputKind } from '@elastic-folio/core/api';

/** A new recipe of a kind of output, called like the output or like the recipe it comes from, with a name that no other has. */
export function newRecipe(
  folio: Folio,
  kind: OutputKind,
  settings: Record<string, unknown> = {},
  called = kind.label,
): Extract<Edit, { kind: 'recipe.set' }> {
  const isTaken = (name: string): boolean => Object.values(folio.recipes).some((r) => r.name === name);
  let name = called;
  for (let n = 2; isTaken(name); n++) name = `${called} ${n}`;
  const id = `${kind.id}-${Math.random().toString(36).slice(2, 8)}`;
  return {
    kind: 'recipe.set',
    args: { id, output: kind.id, version: kind.version, name, settings },
  };
}
