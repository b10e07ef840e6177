import type { Transition } from '../../folio/motion.ts';
import { child, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';

/** How a slide comes, and what happens on it. */
export interface SlideMotion {
  /** The element of its transition, and its speed; null where it has none. */
  transition: { kind: string; speed: string; dir: string } | null;
  /** Seconds after which it goes on by itself. */
  advance: number | null;
  /** How many effects it has by a press, and by itself. */
  effects: number;
  /** Films and sounds that can be played. */
  media: number;
}

export function observeSlideMotion(root: Node | undefined): SlideMotion {
  const transition = child(root, 'p:transition');
  const [kind] = transition?.children ?? [];
  const timing = child(root, 'p:timing');
  const all = timing ? [...within(timing)] : [];
  const { spd = 'fast', advTm } = transition?.attributes ?? {};
  return {
    transition: kind ? { kind: kind.local, speed: spd, dir: kind.attributes['dir'] ?? '' } : null,
    advance: advTm === undefined ? null : Number(advTm) / 1000,
    effects: all.filter((n) => n.name === 'p:cTn' && n.attributes['presetClass'] !== undefined).length,
    media: all.filter((n) => n.name === 'p:cMediaNode').length,
  };
}

/** What stands for each style of ISO 32000-1, table 162, among the transitions of slides (ISO/IEC 29500-1, 19.5 and annex on `transition`). */
const KINDS: Record<Transition['style'], string> = {
  split: 'split',
  blinds: 'blinds',
  box: 'zoom',
  wipe: 'wipe',
  dissolve: 'dissolve',
  glitter: 'strips',
  fly: 'cover',
  push: 'push',
  cover: 'cover',
  uncover: 'pull',
  fade: 'fade',
};

/** Whether a slide comes as a page does. */
export const comesAs = (want: Transition, { transition }: SlideMotion): boolean => transition?.kind === KINDS[want.style];
