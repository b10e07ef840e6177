import { useMemo } from 'react';
import type { Folio, SegmentState } from '@elastic-folio/core';
import { ChoiceOfTexts, goesOut, standingOf, wholeEdition } from '@elastic-folio/core/language';
import type { CutUnit, Standing } from '@elastic-folio/core/language';

const names = new Intl.DisplayNames(['en'], { type: 'language' });
export const languageName = (language: string): string => names.of(language) ?? language;

/** What states are called to people. */
export const STATE_WORDS: Record<SegmentState | 'open' | 'stale', string> = {
  open: 'open',
  stale: 'source has changed',
  initial: 'begun',
  translated: 'translated',
  reviewed: 'reviewed',
  final: 'final',
  locked: 'locked',
};

/** A text that goes to translators, and how its translation stands; null where there is none. */
export interface Standings {
  unit: CutUnit;
  standing: Standing | null;
}

const usual = ChoiceOfTexts.parse({});
const texts = new WeakMap<Folio['stories'], { head: Folio['head']; units: CutUnit[] }>();

/** The texts that go out where nothing else is chosen; worked out once for a document as it is. */
function textsOf(folio: Folio): CutUnit[] {
  const known = texts.get(folio.stories);
  if (known && known.head === folio.head) return known.units;
  const { units } = goesOut(folio, usual);
  texts.set(folio.stories, { head: folio.head, units });
  return units;
}

function standingsOf(folio: Folio, language: string): Standings[] {
  const edition = wholeEdition(folio, language);
  return textsOf(folio).map((unit) => {
    const translated = edition?.units[unit.id];
    return { unit, standing: translated ? standingOf(unit, translated) : null };
  });
}

/** How far an edition is: texts in all, translated, and translated from a source that is another by now. */
export interface Progress {
  all: number;
  done: number;
  stale: number;
}

export function progressOf(standings: readonly Standings[]): Progress {
  const done = standings.filter(({ standing }) => standing?.target && !standing.open);
  return { all: standings.length, done: done.length, stale: done.filter(({ standing }) => standing!.changed).length };
}

export const useStandings = (folio: Folio, language: string): Standings[] =>
  // Spreads and recipes have no texts of their own that count here.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useMemo(() => standingsOf(folio, language), [folio.stories, folio.head, folio.editions, language]);
