import type { Folio } from '../folio/folio.ts';
import type { Field } from '../folio/items.ts';

const cache = new WeakMap<object, Map<string, string>>();

/**
 * The name of each field in a form, by its item: the one it was given, counted on where two would have the same, so that no
 * answer is given twice. Buttons of a group of radio buttons share the group's. A dot would nest fields (ISO 32000-1, 12.7.3.2).
 */
export function fieldNames(folio: Pick<Folio, 'head' | 'spreads'>): Map<string, string> {
  const kept = cache.get(folio.spreads);
  if (kept) return kept;
  const names = new Map<string, string>();
  const fields = folio.head.spreadOrder
    .flatMap((id) => Object.values(folio.spreads[id]?.items ?? {}))
    .filter((i): i is Field => i.kind === 'field');
  const taken = new Set(fields.flatMap((f) => (f.control.type === 'radio' ? [plain(f.control.group)] : [])));
  for (const field of fields) {
    if (field.control.type === 'radio') {
      names.set(field.id, plain(field.control.group));
      continue;
    }
    const wanted = plain(field.fieldName);
    let name = wanted;
    for (let n = 2; taken.has(name); n++) name = `${wanted}-${n}`;
    taken.add(name);
    names.set(field.id, name);
  }
  cache.set(folio.spreads, names);
  return names;
}

const plain = (name: string): string => name.trim().replaceAll('.', '_') || 'field';
