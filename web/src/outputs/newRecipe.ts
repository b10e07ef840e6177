import type { Edit, Folio } from '@elastic-folio/core';
import type { OutputKind } from '@elastic-folio/core/api';

/** A new recipe of a kind of output, with a name that no other has. */
export function newRecipe(folio: Folio, kind: OutputKind, settings: Record<string, unknown> = {}): Extract<Edit, { kind: 'recipe.set' }> {
  const same = Object.values(folio.recipes).filter((r) => r.output === kind.id).length;
  const id = `${kind.id}-${Math.random().toString(36).slice(2, 8)}`;
  return {
    kind: 'recipe.set',
    args: { id, output: kind.id, version: kind.version, name: same ? `${kind.label} ${same + 1}` : kind.label, settings },
  };
}
