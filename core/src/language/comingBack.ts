import type { SegmentState, TextPart, TranslatedSegment, TranslatedUnit } from '../folio/edition.ts';
import { Edition, isLocked } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import { FolioError } from '../ports/ports.ts';
import { faultsOf, FAULTS, mended } from './checks.ts';
import type { SegmentFinding } from './checks.ts';
import { pairCodes, signaturesOf } from './codes.ts';
import { cutIntoSegments } from './cut.ts';
import type { Cut } from './cut.ts';
import { percentAlike, tokensOf } from './editDistance.ts';
import type { Inbound, InboundSegment } from './exchange.ts';
import { primary } from './goesOut.ts';
import { sameParts, wordsOf } from './parts.ts';
import { shippedRules } from './sentenceRules.ts';
import { standingOf, withCodesOf } from './standing.ts';
import { segmentId } from './unit.ts';
import type { Unit } from './unit.ts';
import { unitsOf } from './unitsOf.ts';

/** What a file brings for one segment, against what is there. */
export interface Returned {
  /** The segment’s name, by which it is taken or left. */
  id: string;
  unit: string;
  kind: 'new' | 'changed' | 'unchanged' | 'empty' | 'unknown';
  source: TextPart[];
  /** What was there before. */
  before: TextPart[] | null;
  after: TextPart[] | null;
  state: SegmentState;
  findings: SegmentFinding[];
  /** Where it belongs now, where that is another place than the file says. */
  belongs?: string;
  pages: readonly number[];
  comments: string[];
  /** It is locked here and stays as it is. */
  locked: boolean;
}

/** All that a file brings back, before anything of it is taken. */
export interface Return {
  language: string;
  segments: Returned[];
  /** The units that they make, for taking them. */
  units: Map<string, TranslatedUnit>;
  passedOver: string[];
}

/** A source that has changed is taken for the same text in other words from here on (common practice). */
const STILL_THE_SAME = 75;

/** Holds what a file brings against the document and its edition; nothing is changed. */
export function comingBack(folio: Folio, inbound: Inbound, language: string, units: readonly Unit[] = unitsOf(folio)): Return {
  refuseOthers(folio, inbound, language);
  const edition = folio.editions[language];
  if (edition && isLocked(edition))
    throw new FolioError('edition.locked', `The edition in “${language}” is locked.`, 'Unlock it first; that is recorded.');
  const byId = new Map<string, Unit>();
  for (const unit of units) byId.set(unit.id, unit);
  const groups = byUnitOf(inbound.segments);
  const homes = homesOf(groups, byId, units);
  const out: Return = { language, segments: [], units: new Map(), passedOver: [...inbound.passedOver] };
  for (const [id, segments] of groups) {
    if (segments.length > 1) segments.sort((a, b) => a.at - b.at);
    const home = byId.get(homes.get(id) ?? id);
    if (home) takeUnit(out, home, id, segments, edition?.units[home.id], language);
    else
      for (const s of segments)
        out.segments.push({
          id: segmentId(id, s.at, segments.length),
          unit: id,
          kind: 'unknown',
          source: s.source ?? [],
          before: null,
          after: s.target,
          state: 'initial',
          findings: [],
          pages: [],
          comments: s.comments,
          locked: false,
        });
  }
  return out;
}

/** Segments by their texts, in the order of the file. */
function byUnitOf<S extends { unit: string }>(segments: readonly S[]): Map<string, S[]> {
  const groups = new Map<string, S[]>();
  for (const segment of segments) {
    const group = groups.get(segment.unit);
    if (group) group.push(segment);
    else groups.set(segment.unit, [segment]);
  }
  return groups;
}

function refuseOthers(folio: Folio, inbound: Inbound, language: string): void {
  const { head } = folio;
  if (!inbound.segments.length)
    throw new FolioError('exchange.empty', 'The file holds no text to take.', 'Choose the file that the translator sent back.');
  if (inbound.document !== null && inbound.document !== head.id)
    throw new FolioError(
      'exchange.other',
      `The file belongs to another document (“${inbound.document}”).`,
      'Open that document, or choose the file of this one.',
    );
  if (inbound.target !== null && primary(inbound.target) !== primary(language))
    throw new FolioError(
      'exchange.language',
      `The file is in “${inbound.target}”, not in “${language}”.`,
      `Bring it into an edition in “${inbound.target}”, or choose the file in “${language}”.`,
    );
  if (inbound.source !== null && primary(inbound.source) !== primary(head.metadata.language))
    throw new FolioError(
      'exchange.source',
      `The file was translated from “${inbound.source}”; the document is in “${head.metadata.language}”.`,
      'Choose the file that was made from this document.',
    );
}

/** Texts whose unit is not there any more, or says something else by now: where their source stands, by its words. */
function homesOf(
  groups: ReadonlyMap<string, InboundSegment[]>,
  byId: ReadonlyMap<string, Unit>,
  units: readonly Unit[],
): Map<string, string> {
  const homes = new Map<string, string>();
  const lost: [string, InboundSegment[]][] = [];
  for (const group of groups) if (!byId.has(group[0])) lost.push(group);
  if (!lost.length) return homes;
  const free = units.filter((u) => !groups.has(u.id)).map((unit) => ({ unit, tokens: tokensOf(wordsOf(unit.parts)) }));
  const taken = new Set<string>();
  for (const [id, segments] of lost) {
    const tokens = tokensOf(segments.map((s) => wordsOf(s.source ?? [])).join(' '));
    if (!tokens.length) continue;
    let best = { percent: STILL_THE_SAME - 1, unit: '' };
    for (const { unit, tokens: other } of free) {
      if (taken.has(unit.id)) continue;
      const percent = percentAlike(tokens, other, best.percent);
      if (percent > best.percent) best = { percent, unit: unit.id };
    }
    if (!best.unit) continue;
    taken.add(best.unit);
    homes.set(id, best.unit);
  }
  return homes;
}

/** The cut of a unit that has as many segments as a file brings: paragraphs, or sentences. */
function cutLike(unit: Unit, count: number): Cut | null {
  const cut = cutIntoSegments(unit, unit.language, null);
  if (cut.segments.length === count) return cut;
  const sentences = cutIntoSegments(unit, unit.language, shippedRules());
  return sentences.segments.length === count ? sentences : null;
}

function takeUnit(
  out: Return,
  unit: Unit,
  was: string,
  segments: readonly InboundSegment[],
  known: TranslatedUnit | undefined,
  language: string,
): void {
  const cut = cutLike(unit, segments.length);
  const codes = cut?.codes ?? unit.codes;
  const sources = segments.map((s, i) => s.source ?? cut?.segments[i]?.source ?? (segments.length === 1 ? unit.parts : []));
  const pairs = known ? pairCodes(known.codes, codes) : NO_PAIRS;
  const after: TranslatedSegment[] = segments.map((s, i) => {
    const glue = s.glue ?? (cut ? cut.segments[i]!.glue : i < segments.length - 1 ? [{ type: 'text' as const, text: ' ' }] : undefined);
    return {
      source: sources[i]!,
      ...(glue && { glue }),
      target: s.target && mended(sources[i]!, s.target, codes),
      state: s.state ?? 'translated',
    };
  });
  const lead = segments[0]!.before ?? cut?.before;
  const translated: TranslatedUnit = { segments: after, ...(lead && { before: lead }), codes: signaturesOf(codes) };
  const isPlainly = after.length === 1 && !lead && !after[0]!.glue && sameParts(sources[0]!, unit.parts);
  const changed = !isPlainly && standingOf({ ...unit, codes: [...codes] }, translated).changed;
  // A source that has become another text altogether says so; the translation is kept for it all the same.
  const percent = changed ? percentAlike(tokensOf(sources.map(wordsOf).join(' ')), tokensOf(wordsOf(unit.parts))) : 100;
  out.units.set(unit.id, translated);
  segments.forEach((segment, i) => {
    const before = formerOf(known, sources[i]!, i, pairs, segments.length);
    const findings: SegmentFinding[] = [];
    if (segment.target) findings.push(...faultsOf(sources[i]!, segment.target, codes, { source: unit.language, target: language }));
    if (changed) findings.push({ fault: 'sourceChanged', says: `The source has changed since; it is ${percent} % the same.` });
    const locked = before?.state === 'locked';
    out.segments.push({
      id: segmentId(was, segment.at, segments.length),
      unit: unit.id,
      kind: !segment.target
        ? 'empty'
        : !before?.target
          ? 'new'
          : sameParts(before.target, after[i]!.target!) && !needsWord(findings)
            ? 'unchanged'
            : 'changed',
      source: sources[i]!,
      before: before?.target ?? null,
      after: segment.target,
      state: segment.state ?? 'translated',
      findings,
      ...(unit.id !== was && { belongs: unit.id }),
      pages: unit.pages,
      comments: segment.comments,
      locked,
    });
  });
}

const NO_PAIRS: ReadonlyMap<number, number> = new Map();

const needsWord = (findings: readonly SegmentFinding[]): boolean => findings.some((f) => FAULTS[f.fault] === 'wrong');

/** What a segment was translated with before, with the numbers that its codes have now. */
function formerOf(
  known: TranslatedUnit | undefined,
  source: readonly TextPart[],
  at: number,
  pairs: ReadonlyMap<number, number>,
  count: number,
) {
  if (!known) return undefined;
  const same =
    known.segments.find((s) => sameParts(withCodesOf(s.source, pairs), source)) ??
    (known.segments.length === count ? known.segments[at] : undefined);
  return same && { ...same, target: same.target && withCodesOf(same.target, pairs) };
}

/** Whether a segment can be taken without a person’s look. */
export const isGood = (segment: Returned): boolean =>
  (segment.kind === 'new' || segment.kind === 'changed') &&
  !segment.locked &&
  !needsWord(segment.findings) &&
  !segment.findings.some((f) => f.fault === 'sourceChanged' || f.fault === 'overflow' || f.fault === 'glyphs');

/** Whether a segment brings anything that can be taken at all. */
export const isTakeable = (segment: Returned): boolean => !segment.locked && (segment.kind === 'new' || segment.kind === 'changed');

/**
 * The edition with the segments that are taken, by their names. What they replace stays in their history; segments that are empty in the
 * file, or locked here, stay as they are.
 */
export function taken(edition: Edition | undefined, back: Return, chosen: ReadonlySet<string>, by: string, at: string): Edition {
  const base: Edition = edition ?? newEdition(back.language);
  const units = { ...base.units };
  for (const [id, returned] of byUnitOf(back.segments.filter((s) => s.kind !== 'unknown'))) {
    if (!returned.some((s) => chosen.has(s.id) && isTakeable(s))) continue;
    const now = back.units.get(id)!;
    const known = units[id];
    const pairs = known ? pairCodesBy(known.codes, now.codes) : NO_PAIRS;
    const segments = now.segments.map((segment, i): TranslatedSegment => {
      const one = returned[i]!;
      const former = formerOf(known, segment.source, i, pairs, now.segments.length);
      if (!chosen.has(one.id) || !isTakeable(one))
        return former
          ? { ...former, source: segment.source, ...(segment.glue && { glue: segment.glue }) }
          : { ...segment, target: null, state: 'initial' };
      return afterwards(segment, former, { by, at }, one.comments);
    });
    units[id] = { ...now, segments };
  }
  return { ...base, units };
}

/** A segment with a new target: what it was before is in its history. */
export function afterwards(
  segment: TranslatedSegment,
  former: TranslatedSegment | undefined,
  said: { by: string; at: string },
  comments: readonly string[] = [],
): TranslatedSegment {
  if (!former && !comments.length) return { ...segment, ...said };
  const history = [
    ...(former?.history ?? []),
    ...(former?.target ? [{ by: former.by ?? '', at: former.at ?? '', target: former.target, state: former.state }] : []),
  ];
  const known = former?.comments ?? [];
  const more = comments.filter((text) => !known.some((c) => c.text === text)).map((text) => ({ ...said, text }));
  return {
    ...segment,
    ...said,
    ...(history.length && { history }),
    ...(known.length + more.length && { comments: [...known, ...more] }),
  };
}

function pairCodesBy(before: Readonly<Record<string, string>>, now: Readonly<Record<string, string>>): Map<number, number> {
  return pairCodes(
    before,
    Object.entries(now).map(([n, signature]) => ({
      n: Number(n),
      signature,
      kind: signature.slice(0, signature.indexOf(':')) as 'look',
      paired: false,
      says: '',
      shows: '',
    })),
  );
}

/** An edition of which nothing is translated yet. */
export const newEdition = (language: string, name?: string): Edition => Edition.parse({ language, ...(name !== undefined && { name }) });
