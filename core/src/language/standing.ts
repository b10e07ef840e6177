import { SegmentState } from '../folio/edition.ts';
import type { TextPart, TranslatedSegment, TranslatedUnit } from '../folio/edition.ts';
import type { Code, Coded } from './codes.ts';
import { contentOf, pairCodes } from './codes.ts';
import { joined, sameParts } from './parts.ts';

/** Parts with the numbers that their codes have now; codes that nothing is known of any more are left out. */
export function withCodesOf(parts: readonly TextPart[], pairs: ReadonlyMap<number, number>): TextPart[] {
  // Most texts have none.
  if (!parts.some((p) => 'code' in p)) return [...parts];
  return joined(
    parts.flatMap((p): TextPart[] => {
      if (!('code' in p)) return [p];
      const code = pairs.get(p.code);
      return code === undefined ? [] : [{ ...p, code }];
    }),
  );
}

/** How a translation stands to what its source is now. */
export interface Standing {
  /** What the text is in the other language, with the codes of the source as it is now; null where nothing of it is translated. */
  target: readonly TextPart[] | null;
  codes: readonly Code[];
  /** The source is another than when it was translated. */
  changed: boolean;
  /** Some of its segments have no translation. */
  open: boolean;
  /** The least of the states of its segments. */
  state: SegmentState;
}

/** How a translated unit stands to the text that its document has now. */
export function standingOf(source: Coded, translated: TranslatedUnit): Standing {
  const { segments } = translated;
  const pairs = pairCodes(translated.codes, source.codes);
  const before = withCodesOf(translated.before ?? [], pairs);
  const isOne = segments.length === 1 && !before.length && !segments[0]!.glue;
  const together = (parts: (segment: TranslatedSegment) => readonly TextPart[]): readonly TextPart[] => {
    if (isOne) return withCodesOf(parts(segments[0]!), pairs);
    return joined([...before, ...segments.flatMap((s) => [...withCodesOf(parts(s), pairs), ...withCodesOf(s.glue ?? [], pairs)])]);
  };
  const was = together((s) => s.source);
  const changed = !saysTheSame(source, was);
  const open = segments.some((s) => s.target === null || !s.target.length);
  const state = SegmentState.options.find((o) => segments.some((s) => s.state === o)) ?? 'initial';
  if (segments.every((s) => s.target === null)) return { target: null, codes: source.codes, changed, open, state };
  const same = segments.every((s) => s.target !== null && sameParts(s.target, s.source));
  // A copy of the source is the source itself, piece by piece.
  if (same && !changed) return { target: source.parts, codes: source.codes, changed, open, state };
  return { target: together((s) => s.target ?? s.source), codes: source.codes, changed, open, state };
}

/** Whether what was translated is what stands there now, however it was cut. */
function saysTheSame(source: Coded, was: readonly TextPart[]): boolean {
  if (sameParts(source.parts, was)) return true;
  const said = (parts: readonly TextPart[]): string => JSON.stringify(contentOf(parts, source.codes, source.ground));
  return said(source.parts) === said(was);
}
