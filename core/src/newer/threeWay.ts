import { same } from '../folio/same.ts';

/** What changed on both sides, in a field of a thing. */
export interface Clash {
  field: string;
  here: unknown;
  there: unknown;
}

/**
 * A thing as it was, as it is here and as it is in the newer file, put together field by field: a change on one side holds;
 * where both changed, `prefer` decides and the clash is told.
 */
export function mergeFields<T extends object>(
  was: T,
  here: T,
  there: T,
  prefer: (field: string) => 'here' | 'there',
): { merged: T; clashes: Clash[] } {
  const [w, h, t] = [was, here, there] as [Record<string, unknown>, Record<string, unknown>, Record<string, unknown>];
  const merged: Record<string, unknown> = {};
  const clashes: Clash[] = [];
  for (const field of new Set([...Object.keys(t), ...Object.keys(h)])) {
    let value: unknown;
    if (same(w[field], t[field])) value = h[field];
    else if (same(w[field], h[field]) || same(h[field], t[field])) value = t[field];
    else {
      clashes.push({ field, here: h[field], there: t[field] });
      value = prefer(field) === 'here' ? h[field] : t[field];
    }
    if (value !== undefined) merged[field] = value;
  }
  return { merged: merged as T, clashes };
}

/** Lists of ids: the newer file's order, without what was taken out here, with what was put in here after the one before it. */
export function mergeOrder(was: readonly string[], here: readonly string[], there: readonly string[]): string[] {
  if (same(was, there)) return [...here];
  if (same(was, here)) return [...there];
  const [before, mine] = [new Set(was), new Set(here)];
  const out = there.filter((id) => !before.has(id) || mine.has(id));
  here.forEach((id, i) => {
    if (before.has(id) || out.includes(id)) return;
    const above = [...here.slice(0, i)].reverse().find((other) => out.includes(other));
    out.splice(above === undefined ? 0 : out.indexOf(above) + 1, 0, id);
  });
  return out;
}

/** Keyed things: each merged, those of one side only as that side has them. `gone` are those that the newer file has no more. */
export function mergeKeyed<T extends object>(
  was: Record<string, T>,
  here: Record<string, T>,
  there: Record<string, T>,
  merge: (id: string, was: T, here: T, there: T) => T,
): { merged: Record<string, T>; gone: string[] } {
  const merged: Record<string, T> = {};
  const gone: string[] = [];
  for (const [id, new_] of Object.entries(there)) {
    const [old, mine] = [was[id], here[id]];
    // Taken out here and unchanged there: it stays out.
    if (old && !mine && same(old, new_)) continue;
    merged[id] = old && mine ? merge(id, old, mine, new_) : new_;
  }
  for (const [id, mine] of Object.entries(here)) {
    if (there[id]) continue;
    if (was[id]) gone.push(id);
    else merged[id] = mine;
  }
  return { merged, gone };
}
