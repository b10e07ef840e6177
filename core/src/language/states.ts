import type { SegmentState } from '../folio/edition.ts';

/** How the states of a segment are written in each format: one table for all of them. */
const TABLE: Record<SegmentState, { xliff12: string; approved: 'yes' | 'no'; xliff2: string; translate: 'yes' | 'no'; fuzzy: boolean }> = {
  // XLIFF 1.2, section 2.3 (`state`, `approved`, `translate`); XLIFF 2.1, section 4.3.1.30 (`state`); gettext manual, “The Format of PO Files” (`fuzzy`).
  initial: { xliff12: 'needs-translation', approved: 'no', xliff2: 'initial', translate: 'yes', fuzzy: true },
  translated: { xliff12: 'translated', approved: 'no', xliff2: 'translated', translate: 'yes', fuzzy: false },
  reviewed: { xliff12: 'signed-off', approved: 'no', xliff2: 'reviewed', translate: 'yes', fuzzy: false },
  final: { xliff12: 'final', approved: 'yes', xliff2: 'final', translate: 'yes', fuzzy: false },
  locked: { xliff12: 'final', approved: 'yes', xliff2: 'final', translate: 'no', fuzzy: false },
};

export const writtenState = (state: SegmentState): (typeof TABLE)[SegmentState] => TABLE[state];
/** States that a translator may give; to say that something was reviewed is for those who were asked to. */
export const withinReach = (state: SegmentState, reviews: boolean): boolean =>
  state === 'initial' || state === 'translated' || (reviews && state === 'reviewed');

export const STATES = Object.keys(TABLE) as SegmentState[];

/** The state that a word of any of the formats means; null for a word that none of them has. */
export function stateOf(
  word: string | null | undefined,
  more: { translate?: string | null | undefined; approved?: string | null | undefined } = {},
): SegmentState | null {
  if (more.translate === 'no') return 'locked';
  if (more.approved === 'yes') return 'final';
  const said = word?.trim().toLowerCase();
  if (!said) return null;
  for (const state of STATES) if (said === state || said === TABLE[state].xliff12 || said === TABLE[state].xliff2) return state;
  // Other states of XLIFF 1.2: what needs anything is not translated yet, save what needs only a review.
  if (said === 'new' || /^needs-(translation|adaptation|l10n)$/.test(said)) return 'initial';
  return /^needs-review-/.test(said) ? 'translated' : null;
}
