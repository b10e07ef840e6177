import { useMemo } from 'react';
import type { Folio, SegmentState } from '@elastic-folio/core';
import { standingsOf } from '@elastic-folio/core/language';
import type { Standings } from '@elastic-folio/core/language';

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

/** How the texts of a document stand in a language; `only`: those of one job. */
export const useStandings = (folio: Folio, language: string, only?: ReadonlySet<string>): Standings[] =>
  // Spreads and recipes have no texts of their own that count here.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useMemo(() => standingsOf(folio, language, only), [folio.stories, folio.head, folio.editions, language, only]);
