import type { Head } from '../folio/head.ts';

/**
 * Fixes the order in which a spread is read: its entries stand in the strand in which the first of them stood; where none did,
 * in the strand of the spread before it, or in one of its own.
 */
export function orderSpread(head: Pick<Head, 'structure' | 'spreadOrder'>, spread: string, order: readonly string[]): void {
  const { strands } = head.structure;
  const entries = order.map((item) => ({ spread, item }));
  const rank = new Map(head.spreadOrder.map((id, i) => [id, i]));
  const here = rank.get(spread) ?? 0;
  let home = strands.find((s) => s.entries.some((e) => e.spread === spread));
  home ??= [...strands].reverse().find((s) => s.entries.some((e) => (rank.get(e.spread) ?? 0) < here)) ?? strands[0];
  if (!home) {
    home = { id: 'strand', name: 'Order of reading', entries: [] };
    strands.push(home);
  }
  const first = home.entries.findIndex((e) => e.spread === spread);
  const later = home.entries.findIndex((e) => (rank.get(e.spread) ?? 0) > here);
  const at = first >= 0 ? first : later >= 0 ? later : home.entries.length;
  for (const strand of strands) if (strand !== home) strand.entries = strand.entries.filter((e) => e.spread !== spread);
  const before = home.entries.slice(0, at).filter((e) => e.spread !== spread);
  const after = home.entries.slice(at).filter((e) => e.spread !== spread);
  home.entries = [...before, ...entries, ...after];
}
