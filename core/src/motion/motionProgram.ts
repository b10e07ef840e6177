import type {
  Animation,
  Cue as PlayerCue,
  GoTo,
  Program,
  Step as PlayerStep,
  Switcher as PlayerSwitcher,
  Veil as PlayerVeil,
} from '../../../player/src/program.ts';
import { isFormAddress, isSafeAddress } from '../folio/address.ts';
import { solidHex } from '../folio/colour.ts';
import type { Paint } from '../folio/colour.ts';
import { pathData } from '../folio/geometry.ts';
import type { PathStep } from '../folio/geometry.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item, Switcher, Veil } from '../folio/items.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Cue, Destination, TimedStep } from '../folio/motion.ts';
import type { Spread } from '../folio/spread.ts';
import type { PagePlace } from '../folio/traverse.ts';
import { leavesOf, pageOfItem } from '../folio/traverse.ts';
import { PX_PER_PT, round } from '../folio/units.ts';
import { linkCueOf } from '../structure/pageTargets.ts';
import type { PageTargets } from '../structure/pageTargets.ts';
import { areaOf, flakeGrid } from './flakes.ts';
import { nearItem } from './liveTargets.ts';
import { playerWords } from './playerWords.ts';

/** What an output says of itself, so that its motion can be told to the player. */
export interface ProgramPlace {
  /** The id of a page's element where it is in this file. */
  elementOf(page: string): string | undefined;
  /** The address of a page that is in another file. */
  addressOf(page: string): string;
  /** The file of a picture, film or sound, undefined where it is not in the result. */
  fileOf(media: string): string | undefined;
  targets: PageTargets;
  shown(item: Item): boolean;
  language: string;
}

const px = (points: number): number => round(points * PX_PER_PT, 3);
const EASING = { linear: 'linear', ease: 'ease', easeIn: 'ease-in', easeOut: 'ease-out' } as const;

/** The program of the pages in one file: all that reacts, moves or goes on by itself on them. */
export function motionProgram(folio: Folio, pages: readonly PagePlace[], at: ProgramPlace): Program {
  const program: Program = {
    version: 2,
    name: folio.head.id,
    pages: pages.flatMap((p) => at.elementOf(p.page.id) ?? []),
    words: playerWords(at.language),
    cues: [],
    hidden: [],
    switchers: {},
    veils: {},
    transitions: {},
    advance: {},
    loop: folio.head.opening?.loop ?? false,
  };
  for (const place of pages) {
    const { page, spread } = place;
    const element = at.elementOf(page.id)!;
    if (page.transition) {
      const { style, seconds, direction, axis = 'horizontal', motion = 'inward' } = page.transition;
      program.transitions[element] = { style, seconds, direction, axis, motion };
    }
    if (page.advanceAfter !== undefined) program.advance[element] = page.advanceAfter;
    const steps = new StepsOn(folio, place, at);
    for (const cue of Object.values(page.cues)) program.cues.push(...steps.cue(cue, element, ''));
    for (const item of Object.values(spread.items)) {
      if (!at.shown(item) || pageOfItem(spread, item).id !== page.id) continue;
      // A press that only leads somewhere is a link already.
      const link = linkCueOf(item);
      const isLink = link && at.targets.of(link.destination, page.id);
      for (const cue of Object.values(item.cues))
        if (cue !== link?.cue || !isLink)
          program.cues.push(...steps.cue(cue, cue.trigger.when === 'delay' || isOfPage(cue) ? element : item.id, item.id));
      if (item.startsHidden) program.hidden.push(...seenParts(spread, item.id));
      if (item.kind === 'switcher') program.switchers[item.id] = switcherOf(item);
      if (item.kind === 'veil') program.veils[item.id] = veilOf(folio, item, at);
    }
  }
  return program;
}

/** Whether a page has anything that needs the player: a page that does not stays free of scripts. */
export const isPlayed = ({ cues, hidden, switchers, veils }: Program, markup: string): boolean =>
  cues.length + hidden.length + Object.keys(switchers).length + Object.keys(veils).length > 0 || markup.includes(' data-field=');

const isOfPage = (cue: Cue): boolean => cue.trigger.when === 'pageShown' || cue.trigger.when === 'pageLeft';

/** The items that have elements of their own: a group's members stand for it. */
const seenParts = (spread: Pick<Spread, 'items'>, id: string): string[] => {
  const item = spread.items[id];
  return !item ? [] : item.kind === 'group' ? [...leavesOf(spread.items, item)] : [id];
};

/** Steps as the player takes them, seen from one page; those whose targets are gone are left out. */
class StepsOn {
  constructor(
    private readonly folio: Folio,
    private readonly place: PagePlace,
    private readonly at: ProgramPlace,
  ) {}

  cue(cue: Cue, on: string, holder: string): PlayerCue[] {
    const steps = cue.steps.flatMap((s) => this.step(s, holder));
    const { trigger } = cue;
    const id = isMasterInstance(holder) ? `${holder}/${cue.id}` : cue.id;
    const when = trigger.when === 'delay' ? { when: trigger.when, seconds: trigger.seconds } : { when: trigger.when };
    return steps.length ? [{ id, on, ...when, steps }] : [];
  }

  /** An item that a step is about: on a master page's item, the one on the same page. */
  private items(ids: readonly string[], holder: string): string[] {
    const { spread } = this.place;
    return ids.flatMap((id) => {
      const parts = seenParts(spread, nearItem(spread, id, holder));
      // A target on another page of the same file is found there.
      return parts.length ? parts : Object.values(this.folio.spreads).flatMap((other) => seenParts(other, id));
    });
  }

  private step(step: TimedStep, holder: string): PlayerStep[] {
    const { after } = step;
    switch (step.do) {
      case 'go': {
        const to = this.goTo(step.destination);
        return to === null ? [] : [{ do: 'go', to, after }];
      }
      case 'showCard': {
        const [switcher] = this.items([step.switcher], holder);
        return switcher === undefined ? [] : [{ do: 'card', switcher, card: step.card, again: step.afterLast === 'again', after }];
      }
      case 'show':
      case 'hide':
      case 'toggle': {
        const items = this.items(step.items, holder);
        return items.length ? [{ do: step.do, items, after }] : [];
      }
      case 'play':
      case 'pause':
      case 'stop':
      case 'seek': {
        const [media] = this.items([step.media], holder);
        if (media === undefined) return [];
        return [step.do === 'seek' ? { do: 'seek', media, seconds: step.seconds, after } : { do: step.do, media, after }];
      }
      case 'openFile': {
        const href = this.at.fileOf(step.media);
        return href === undefined ? [] : [{ do: 'open', href, after }];
      }
      case 'print':
        return [{ do: 'print', after }];
      case 'resetForm':
        return [{ do: 'reset', after }];
      case 'sendForm':
        return isFormAddress(step.href) ? [{ do: 'send', href: step.href.trim(), after }] : [];
      case 'animate': {
        const items = this.items(step.items, holder);
        const { kind, from, seconds } = step;
        const how: Animation = { items, kind, from, seconds, easing: EASING[step.easing], again: step.repeat === 'again' };
        return items.length ? [{ do: 'animate', ...how, after }] : [];
      }
    }
  }

  private goTo(destination: Destination): GoTo | null {
    if (destination.to === 'back') return 'back';
    if (destination.to === 'address')
      return isSafeAddress(destination.href) ? { href: destination.href.trim(), newWindow: destination.window === 'new' } : null;
    const target = this.at.targets.of(destination, this.place.page.id);
    if (!target || !('page' in target)) return null;
    const element = this.at.elementOf(target.page);
    return element === undefined ? { href: this.at.addressOf(target.page), newWindow: false } : { page: element };
  }
}

function switcherOf({ cards, change, advance, controls }: Switcher): PlayerSwitcher {
  return {
    cards: cards.map((c) => c.id),
    names: cards.map((c) => c.name),
    change,
    ...(advance && {
      advance: {
        seconds: cards.map((c) => c.seconds ?? advance.interval),
        loop: advance.end === 'loop',
        pausesOnPointer: advance.pauseOnPointer,
        pausesOnFocus: advance.pauseOnFocus,
      },
    }),
    controls,
  };
}

function veilOf(folio: Folio, veil: Veil, at: ProgramPlace): PlayerVeil {
  const { size, pitch, rows } = flakeGrid(veil);
  const src = veil.cover === undefined ? undefined : at.fileOf(veil.cover);
  return {
    size: px(size),
    pitch: px(pitch),
    rows,
    clip: pathData(areaOf(veil).map((s) => [s[0], ...s.slice(1).map((n) => px(n as number))] as PathStep)),
    fill: flakeColour(veil.fill, folio),
    ...(src !== undefined && { cover: { src, each: veil.coverEach, width: px(veil.size.width), height: px(veil.size.height) } }),
    lift: veil.lift,
    rest: veil.rest,
    action: veil.action,
  };
}

/** Flakes are of one colour; of a gradient it is the first, of nothing a quiet grey. */
const flakeColour = (fill: Paint, folio: Pick<Folio, 'head'>): string =>
  fill.type === 'none' ? '#808080' : solidHex(fill.type === 'gradient' ? fill.gradient.stops[0]!.paint : fill, folio.head.swatches);
