import type { TextPart, TranslatedUnit } from '../folio/edition.ts';
import { inOrder } from './analyse.ts';
import { signaturesOf } from './codes.ts';
import type { Memory } from './memory.ts';
import { fromMatch } from './outbound.ts';
import { codesIn, joined } from './parts.ts';
import { pseudoTranslation } from './pseudo.ts';
import type { CutUnit } from './unit.ts';

/** Of segments with codes, every so many comes back with one lost, where the service was told to break some. */
const BROKEN_EVERY = 3;

/**
 * What the simulated service makes of the texts of a job: what the memory has in full, and a pseudo-translation of all else. Told to
 * break codes, it loses one in every third text that has any, so that what is found on return can be tried.
 */
export function translatedByService(
  units: readonly CutUnit[],
  memory: Memory,
  language: string,
  { breaksCodes }: { breaksCodes: boolean },
): Record<string, TranslatedUnit> {
  const targets = new Map<string, TextPart[]>();
  let withCodes = 0;
  for (const { segment, source, before, after } of inOrder(units)) {
    const [best] = memory.find(source, { before, after }, 1);
    const target = [...((best && best.percent === 100 && fromMatch(best, source)) || pseudoTranslation(source, language))];
    const broken = breaksCodes && codesIn(target).length > 0 && withCodes++ % BROKEN_EVERY === 0;
    targets.set(segment.id, broken ? withoutFirstCode(target) : target);
  }
  return Object.fromEntries(
    units.map((unit) => [
      unit.id,
      {
        ...(unit.before && { before: unit.before }),
        codes: signaturesOf(unit.codes),
        segments: unit.segments.map((s) => ({
          source: s.source,
          ...(s.glue && { glue: s.glue }),
          target: targets.get(s.id) ?? null,
          state: 'translated' as const,
        })),
      },
    ]),
  );
}

function withoutFirstCode(parts: readonly TextPart[]): TextPart[] {
  const first = codesIn(parts)[0];
  return joined(parts.filter((p) => !('code' in p) || p.code !== first));
}
