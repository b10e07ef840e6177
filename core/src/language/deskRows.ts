import type { Folio } from '../folio/folio.ts';
import { SegmentState } from '../folio/edition.ts';
import type { Edition, TextPart, TranslatedSegment, TranslatedUnit } from '../folio/edition.ts';
import type { Code } from './codes.ts';
import { pairCodes, signaturesOf } from './codes.ts';
import { cutAt, cutIntoSegments, plainOf } from './cut.ts';
import type { Cut } from './cut.ts';
import { wholeEdition } from './inEdition.ts';
import { joined, wordsOf } from './parts.ts';
import { standingsOf } from './progress.ts';
import { shippedRules } from './sentenceRules.ts';
import { standingOf, withCodesOf } from './standing.ts';
import type { CutUnit } from './unit.ts';

/** One segment as a translator works on it, with the numbers that its codes have now. */
export interface DeskRow {
  unit: CutUnit;
  /** Which of the segments of its text it is, and how many there are. */
  at: number;
  of: number;
  segment: TranslatedSegment;
  codes: readonly Code[];
  /** The source is another than when it was translated. */
  changed: boolean;
}

/** A text in the segments that it is translated in: as it was parted, or as it is cut where nothing of it is translated yet. */
export function segmentsOf(unit: CutUnit, translated: TranslatedUnit | undefined): DeskRow[] {
  const rows = (segments: TranslatedSegment[], codes: readonly Code[], changed: boolean): DeskRow[] =>
    segments.map((segment, at) => ({ unit, at, of: segments.length, segment, codes, changed }));
  const fresh = unit.segments.map((s): TranslatedSegment => ({
    source: s.source,
    ...(s.glue && { glue: s.glue }),
    target: null,
    state: 'initial',
  }));
  if (!translated) return rows(fresh, unit.codes, false);
  const { changed, target, state } = standingOf(unit, translated);
  const pairs = pairCodes(translated.codes, unit.codes);
  const now = (s: TranslatedSegment, source: TextPart[]): TranslatedSegment => ({
    ...s,
    source,
    ...(s.glue && { glue: withCodesOf(s.glue, pairs) }),
    target: s.target && withCodesOf(s.target, pairs),
  });
  if (!changed)
    return rows(
      translated.segments.map((s) => now(s, withCodesOf(s.source, pairs))),
      unit.codes,
      false,
    );
  // Where the source is another, its pieces are those that it has now.
  if (fresh.length === translated.segments.length)
    return rows(
      translated.segments.map((s, i) => now({ ...s, ...(fresh[i]!.glue && { glue: fresh[i]!.glue }) }, fresh[i]!.source)),
      unit.codes,
      true,
    );
  const [first] = translated.segments;
  return rows([{ ...first!, source: unit.parts, target: target && [...target], state, glue: undefined }], unit.codes, true);
}

/** Everything that there is to do in a language, segment by segment; `only`: the texts of one job. */
export function deskRows(folio: Folio, language: string, only?: ReadonlySet<string>): DeskRow[] {
  const edition: Edition | undefined = wholeEdition(folio, language);
  return standingsOf(folio, language, only).flatMap(({ unit }) => segmentsOf(unit, edition?.units[unit.id]));
}

/** A text with one of its segments as it is now; the others as they are. */
export function unitWith(rows: readonly DeskRow[], at: number, segment: TranslatedSegment): TranslatedUnit {
  return asUnit(
    rows[0]!,
    rows.map((row) => (row.at === at ? segment : row.segment)),
  );
}

const asUnit = ({ unit, codes }: DeskRow, segments: TranslatedSegment[], all: readonly Code[] = codes): TranslatedUnit => ({
  ...(unit.before && segments[0]?.source !== unit.parts && { before: unit.before }),
  segments,
  codes: signaturesOf(all),
});

const least = (a: SegmentState, b: SegmentState): SegmentState => SegmentState.options.find((s) => s === a || s === b)!;

/** A text with a segment and the next one as one; null where there is no next. */
export function joinedWithNext(rows: readonly DeskRow[], at: number): TranslatedUnit | null {
  const [one, other] = [rows[at]?.segment, rows[at + 1]?.segment];
  if (!one || !other || [...(one.glue ?? [])].some((p) => p.type === 'text' && p.text.includes('\t'))) return null;
  const between = one.glue ?? [];
  const comments = [...(one.comments ?? []), ...(other.comments ?? [])];
  const history = [...(one.history ?? []), ...(other.history ?? [])];
  const both: TranslatedSegment = {
    source: joined([...one.source, ...between, ...other.source]),
    ...(other.glue && { glue: other.glue }),
    target: one.target || other.target ? joined([...(one.target ?? []), ...between, ...(other.target ?? [])]) : null,
    state: one.target && other.target ? least(one.state, other.state) : 'initial',
    ...(one.by !== undefined && { by: one.by }),
    ...(one.at !== undefined && { at: one.at }),
    ...(comments.length && { comments }),
    ...(history.length && { history }),
  };
  const segments = rows.map((r) => r.segment);
  return asUnit(rows[0]!, [...segments.slice(0, at), both, ...segments.slice(at + 2)]);
}

/** A text with one of its segments parted into sentences; null where it is one. */
export function partedIntoSentences(
  rows: readonly DeskRow[],
  at: number,
  languages: { source: string; target: string },
): TranslatedUnit | null {
  const row = rows[at]!;
  const { segment } = row;
  const cut = cutIntoSegments({ parts: segment.source, codes: [...row.codes] }, languages.source, shippedRules());
  const said = segment.target && cutIntoSegments({ parts: segment.target, codes: [...row.codes] }, languages.target, shippedRules());
  return partedAs(rows, at, cut, said);
}

/** Where a source can be parted: before each of its words but the first, by places of its plain letters. */
export function placesToPart(source: readonly TextPart[], language: string): { at: number; word: string }[] {
  const words = [...new Intl.Segmenter(language, { granularity: 'word' }).segment(plainOf(source))].filter((w) => w.isWordLike);
  return words.slice(1).map((w) => ({ at: w.index, word: w.segment }));
}

/** A text with one of its segments parted in two at a place of its source; its translation stays with the first. Null where one would be empty. */
export function partedAt(rows: readonly DeskRow[], at: number, place: number): TranslatedUnit | null {
  const row = rows[at]!;
  const before = plainOf(row.segment.source).slice(0, place);
  // White space before the place is what stands between the two.
  const places = [before.trimEnd().length, place];
  return partedAs(rows, at, cutAt({ parts: row.segment.source, codes: [...row.codes] }, places), null);
}

/** A text with the pieces of a cut in place of one of its segments; `said` is the cut of its translation. Null where it is one piece. */
function partedAs(rows: readonly DeskRow[], at: number, cut: Cut, said: Cut | null): TranslatedUnit | null {
  const row = rows[at]!;
  const { segment } = row;
  if (cut.segments.length < 2) return null;
  // A translation in as many pieces goes along; any other stays whole with the first, to be parted by hand.
  const fits = said?.segments.length === cut.segments.length && !said.codes.slice(row.codes.length).length;
  const pieces = cut.segments.map((piece, i): TranslatedSegment => {
    const target = fits ? said.segments[i]!.source : i === 0 ? segment.target : null;
    const last = i === cut.segments.length - 1;
    const glue = last ? joined([...(piece.glue ?? []), ...(segment.glue ?? [])]) : (piece.glue ?? []);
    const rest = i === 0 ? { comments: segment.comments, history: segment.history } : {};
    return {
      source: piece.source,
      ...(glue.length && { glue }),
      target,
      state: fits ? segment.state : 'initial',
      ...(segment.by !== undefined && { by: segment.by }),
      ...(segment.at !== undefined && { at: segment.at }),
      ...(rest.comments && { comments: rest.comments }),
      ...(rest.history && { history: rest.history }),
    };
  });
  const segments = rows.map((r) => r.segment);
  const made = asUnit(row, [...segments.slice(0, at), ...pieces, ...segments.slice(at + 1)], cut.codes);
  const lead = at === 0 && cut.before ? joined([...(made.before ?? []), ...cut.before]) : made.before;
  return lead ? { ...made, before: lead } : made;
}

/** How often some words stand in a target, and the target with others in their place; codes stay where they are. */
export function replacedIn(target: readonly TextPart[], words: string, by: string): { count: number; target: TextPart[] } {
  let count = 0;
  const made = target.map((p): TextPart => {
    if (p.type !== 'text' || !words) return p;
    const pieces = p.text.split(words);
    count += pieces.length - 1;
    return { ...p, text: pieces.join(by) };
  });
  return { count, target: joined(made) };
}

/** Whether a row holds some words in either language. */
export const holds = ({ segment }: DeskRow, words: string): boolean =>
  `${wordsOf(segment.source)}\n${wordsOf(segment.target ?? [])}`.toLowerCase().includes(words);
