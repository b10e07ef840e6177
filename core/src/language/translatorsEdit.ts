import type { Edition, TranslatedSegment, TranslatedUnit } from '../folio/edition.ts';
import { FolioError } from '../ports/ports.ts';
import { sameParts } from './parts.ts';
import { withinReach } from './states.ts';

/** Who writes, and what they may. */
export interface Translator {
  name: string;
  /** The texts of their job. */
  units: ReadonlySet<string>;
  reviews: boolean;
}

const refuse = (says: string): never => {
  throw new FolioError('job.refused', says, 'Reload the page to see what is there.');
};

/**
 * What a translator sends, checked against what there is: texts of their job only, no state beyond what they may say, nothing that is
 * locked, and nothing lost of comments and of what stood there before. What is new is signed with their name.
 */
export function translatorsUnits(
  edition: Pick<Edition, 'units'>,
  sent: Readonly<Record<string, TranslatedUnit>>,
  translator: Translator,
  at: string,
): Record<string, TranslatedUnit> {
  const said = { by: translator.name, at };
  return Object.fromEntries(
    Object.entries(sent).map(([id, unit]) => {
      if (!translator.units.has(id)) refuse('This text is not part of the job.');
      const before = edition.units[id]?.segments ?? [];
      if (before.some((s) => s.state === 'locked')) refuse('This text is locked.');
      if (unit.segments.some((s) => !withinReach(s.state, translator.reviews))) refuse('This state is not a translator’s to give.');
      const segments = unit.segments.map((s): TranslatedSegment => {
        const known = before.find((b) => sameParts(b.source, s.source));
        const same = known && known.state === s.state && sameParts(known.target ?? [], s.target ?? []);
        const signed = same ? { by: known.by, at: known.at } : said;
        const old = known?.comments ?? [];
        const comments = [...old, ...(s.comments ?? []).slice(old.length).map(({ text }) => ({ ...said, text }))];
        const history = [...(known?.history ?? []), ...formerOf(known, s)];
        return {
          source: s.source,
          ...(s.glue && { glue: s.glue }),
          target: s.target,
          state: s.state,
          ...(signed.by !== undefined && { by: signed.by }),
          ...(signed.at !== undefined && { at: signed.at }),
          ...(comments.length && { comments }),
          ...(history.length && { history }),
        };
      });
      return [id, { ...unit, segments: withLost(before, segments) }];
    }),
  );
}

/** What is parted or joined anew keeps what it was, in the history of its first segment. */
function withLost(before: readonly TranslatedSegment[], now: readonly TranslatedSegment[]): TranslatedSegment[] {
  const there = now.flatMap((s) => [s.target, ...(s.history ?? []).map((h) => h.target)]);
  const lost = before.filter((b) => b.target && !there.some((t) => t && sameParts(t, b.target!)));
  const [first, ...rest] = now;
  if (!first || !lost.length) return [...now];
  return [{ ...first, history: [...(first.history ?? []), ...lost.flatMap((b) => asFormer(b))] }, ...rest];
}

/** What a segment was, where it is another now. */
const formerOf = (known: TranslatedSegment | undefined, now: TranslatedSegment): Former[] =>
  known && !sameParts(known.target ?? [], now.target ?? []) ? asFormer(known) : [];

type Former = NonNullable<TranslatedSegment['history']>[number];
const asFormer = (s: TranslatedSegment): Former[] =>
  s.target ? [{ by: s.by ?? '', at: s.at ?? '', target: s.target, state: s.state }] : [];
