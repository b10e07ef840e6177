import type { Edition, TextPart } from '../folio/edition.ts';
import { inOrder } from './analyse.ts';
import { pairCodes } from './codes.ts';
import type { Outbound } from './exchange.ts';
import type { Match, Memory, MemoryUnit } from './memory.ts';
import { codesIn, sameParts } from './parts.ts';
import { withCodesOf } from './standing.ts';
import type { CutUnit } from './unit.ts';

/** What of a memory goes into texts that have no translation yet: nothing, or what is the same in text and codes. */
export type Pretranslation = 'none' | 'inContext' | 'exact';

/** The translations that are there already, by the names of segments: those of the edition first, then those of the memory. */
export function outboundOf(
  units: readonly CutUnit[],
  edition: Edition | undefined,
  memory: Memory | null,
  from: Pretranslation,
): Map<string, Outbound> {
  const out = new Map<string, Outbound>();
  for (const { unit, segment, source, before, after } of inOrder(units)) {
    const known = edition?.units[unit.id];
    const pairs = known ? pairCodes(known.codes, unit.codes) : null;
    const same = known?.segments.find((s) => sameParts(withCodesOf(s.source, pairs!), source));
    if (known && same) {
      const target = same.target && withCodesOf(same.target, pairs!);
      out.set(segment.id, { target, state: same.state, comments: (same.comments ?? []).map((c) => c.text) });
      if (target) continue;
    }
    if (!memory || from === 'none') continue;
    const best = memory.find(source, { before, after }, 1)[0];
    if (best && (best.kind === 'inContext' || (best.kind === 'exact' && from === 'exact')))
      out.set(segment.id, { ...out.get(segment.id), target: fromMatch(best, source), state: 'translated', percent: 100 });
  }
  return out;
}

/** What an edition has of texts, as a memory that knows their places. */
export function* memoryOfEdition(units: readonly CutUnit[], edition: Edition | undefined): Generator<MemoryUnit> {
  const has = outboundOf(units, edition, null, 'none');
  for (const { segment, source, before, after } of inOrder(units)) {
    const target = has.get(segment.id)?.target;
    if (target) yield { source: [...source], target: [...target], before, after };
  }
}

/** The target of a match with the numbers that its codes have in this source: the first of one is the first of the other. */
export function fromMatch({ unit }: Match, source: readonly TextPart[]): Outbound['target'] {
  const [was, now] = [order(unit.source), order(source)];
  const pairs = new Map(was.map((n, i) => [n, now[i] ?? 0] as const).filter(([, n]) => n > 0));
  return withCodesOf(unit.target, pairs);
}

const order = (parts: readonly TextPart[]): number[] => [...new Set(codesIn(parts))];
