import { createHash } from 'node:crypto';
import { partPath } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import { editionsOfBefore } from '@elastic-folio/core/language';

/** A document as the rows that hold it. */
export function partsOf(folio: Folio): Map<string, unknown> {
  const parts = new Map<string, unknown>([[partPath.head, folio.head]]);
  for (const [id, v] of Object.entries(folio.spreads)) parts.set(partPath.spread(id), v);
  for (const [id, v] of Object.entries(folio.stories)) parts.set(partPath.story(id), v);
  for (const [id, v] of Object.entries(folio.editions)) parts.set(partPath.edition(id), v);
  for (const [id, v] of Object.entries(folio.recipes)) parts.set(partPath.recipe(id), v);
  return parts;
}

/** Puts rows together again; they were checked when they were written. */
export function folioFrom(rows: readonly { path: string; body: unknown }[]): Folio {
  const folio = { head: undefined, spreads: {}, stories: {}, editions: {}, recipes: {} } as unknown as Folio;
  for (const { path, body } of rows) {
    if (path === partPath.head) folio.head = body as Folio['head'];
    const match = /^(spreads|stories|editions|recipes)\/(.+)\.json$/.exec(path);
    if (match) (folio[match[1] as 'spreads'] as Record<string, unknown>)[match[2]!] = body;
  }
  Object.assign(folio.editions, editionsOfBefore(folio, folio.editions));
  return folio;
}

/** A hash that is the same for equal JSON whatever order a database keeps its keys in. */
export const hashOf = (value: unknown): string => createHash('sha256').update(canonical(value)).digest('hex');

function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (value && typeof value === 'object')
    return `{${Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
      .join(',')}}`;
  return JSON.stringify(value) ?? 'null';
}

/** What a set of patches changed, as part paths; `null` for a part that went. */
export function changedParts(before: Folio, after: Folio): Map<string, unknown> {
  const changed = new Map<string, unknown>();
  if (before.head !== after.head) changed.set(partPath.head, after.head);
  const kinds = [
    ['spreads', partPath.spread],
    ['stories', partPath.story],
    ['editions', partPath.edition],
    ['recipes', partPath.recipe],
  ] as const;
  for (const [kind, path] of kinds) {
    const [a, b] = [before[kind] as Record<string, unknown>, after[kind] as Record<string, unknown>];
    if (a === b) continue;
    for (const id of new Set([...Object.keys(a), ...Object.keys(b)])) if (a[id] !== b[id]) changed.set(path(id), b[id] ?? null);
  }
  return changed;
}
