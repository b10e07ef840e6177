import type { Folio } from '../../folio/folio.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { pagesOf } from '../../folio/traverse.ts';

const known = new WeakMap<Folio, Map<string, string[]>>();

/** The items of master pages as they stand on pages, by their own ids. */
export function masterInstances(folio: Folio): Map<string, string[]> {
  let instances = known.get(folio);
  if (!instances) {
    known.set(folio, (instances = new Map()));
    for (const spread of new Set(pagesOf(folio).map((p) => p.spread)))
      for (const id of Object.keys(spread.items)) {
        if (!isMasterInstance(id)) continue;
        const own = id.slice(id.indexOf('/') + 1);
        instances.set(own, [...(instances.get(own) ?? []), id]);
      }
  }
  return instances;
}
