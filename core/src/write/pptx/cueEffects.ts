import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Cue, TimedStep } from '../../folio/motion.ts';
import type { Page, Spread } from '../../folio/spread.ts';
import { pageOfItem } from '../../folio/traverse.ts';
import { playedFile } from '../../folio/playedFile.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';

/** One thing that a slide does with an item, so many seconds after it began. */
export type Effect = { item: string; after: number } & (
  | {
      do: 'enter';
      how: 'appear' | 'fade' | 'moveIn' | 'scale';
      from: 'left' | 'right' | 'above' | 'below';
      seconds: number;
      easing: string;
      again: boolean;
    }
  | { do: 'leave' }
  | { do: 'play' | 'pause' | 'stop' }
);

/** What begins on its own when the slide is shown (`press` null), or by a press on an item. */
export interface CueEffects {
  cue: string;
  press: string | null;
  effects: Effect[];
  /** How many of its steps slides cannot do. */
  left: number;
}

/** What a cue does as slides have it: things that come and go, films and sounds that play. */
export function effectsOf(folio: Folio, spread: Spread, holder: Item | null, cue: Cue): CueEffects | null {
  const { trigger } = cue;
  if (trigger.when !== 'pageShown' && trigger.when !== 'delay' && (trigger.when !== 'press' || !holder)) return null;
  const wait = trigger.when === 'delay' ? trigger.seconds : 0;
  const done = cue.steps.map((step) => stepEffects(folio, spread, step, wait));
  return {
    cue: cue.id,
    press: trigger.when === 'press' ? holder!.id : null,
    effects: done.flat(),
    left: done.filter((d) => !d.length).length,
  };
}

function stepEffects(folio: Folio, { items }: Spread, step: TimedStep, wait: number): Effect[] {
  const after = wait + step.after;
  const on = (ids: readonly string[]): string[] => ids.filter((id) => items[id]);
  switch (step.do) {
    case 'animate':
      return on(step.items).map((item) => ({
        item,
        after,
        do: 'enter',
        how: step.kind,
        from: step.from,
        seconds: step.seconds,
        easing: step.easing,
        again: step.repeat === 'again',
      }));
    case 'show':
      // What is there from the start need not come.
      return on(step.items).flatMap((item): Effect[] =>
        items[item]!.startsHidden
          ? [{ item, after, do: 'enter', how: 'appear', from: 'left', seconds: 0, easing: 'linear', again: false }]
          : [],
      );
    case 'hide':
      return on(step.items).map((item) => ({ item, after, do: 'leave' }));
    case 'play':
    case 'pause':
    case 'stop': {
      const item = items[step.media];
      return item && playedFile(folio, item) ? [{ item: item.id, after, do: step.do }] : [];
    }
    default:
      return [];
  }
}

/** All that happens on a page; links are no such cues. */
export function effectsOnPage(folio: Folio, spread: Spread, page: Page, shown: (item: Item) => boolean): CueEffects[] {
  const own = Object.values(page.cues).map((cue) => effectsOf(folio, spread, null, cue));
  const held = Object.values(spread.items).flatMap((item) => {
    if (!shown(item) || pageOfItem(spread, item).id !== page.id) return [];
    const link = linkCueOf(item)?.cue.id;
    return Object.values(item.cues)
      .filter((cue) => cue.id !== link)
      .map((cue) => effectsOf(folio, spread, item, cue));
  });
  return [...own, ...held].filter((e) => e !== null).filter((e) => e.effects.length > 0);
}

/** Films and sounds that begin with the page. */
export const playsAtOnce = (spread: Spread, page: Page, shown: (item: Item) => boolean): Effect[] =>
  Object.values(spread.items).flatMap((item): Effect[] =>
    item.kind === 'media' && item.autoplay && shown(item) && pageOfItem(spread, item).id === page.id
      ? [{ item: item.id, after: 0, do: 'play' }]
      : [],
  );
