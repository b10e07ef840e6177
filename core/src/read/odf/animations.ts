import type { z } from 'zod';
import type { Cue, Step } from '../../folio/motion.ts';
import { secondsOf } from './lengths.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type MadeCue = z.infer<typeof Cue>;
type Animate = Extract<z.infer<typeof Step>, { do: 'animate' }>;
type MadeStep = MadeCue['steps'][number];

/** What of a page's animations has a meaning: what begins when it is shown, and what begins when an object is pressed. */
export interface PageAnimations {
  shown: MadeCue | null;
  pressed: { item: string; cue: MadeCue }[];
}

const STILL = 'objects stand as they are at the end of it';

/**
 * Reads a page's timing (OpenDocument 1.3 part 3, chapter 15, after SMIL 3.0): its main sequence, of which only what begins
 * by itself becomes a cue, and sequences that an object's press begins. `itemsOf` gives the items that an element of an id became.
 */
export function animationsOf(
  page: XmlElement,
  itemsOf: (id: string) => readonly string[],
  names: Names,
  notTaken: NotTakenList,
): PageAnimations {
  const out: PageAnimations = { shown: null, pressed: [] };
  const cue = (when: 'pageShown' | 'press', steps: MadeStep[]): MadeCue => ({ id: names.free('cue'), trigger: { when }, steps });
  if (childrenOf(page, 'presentation:animations').some((old) => childrenOf(old).length))
    notTaken.add('leftOut', 'Animations that begin at a click', STILL);
  for (const sequence of sequencesIn(page)) {
    const byItself: MadeStep[] = [];
    for (const group of childrenOf(sequence)) {
      const begin = group.attributes['smil:begin'] ?? '0s';
      const steps = (): MadeStep[] => effectsIn(group, 0).flatMap((effect) => stepOf(effect, itemsOf, notTaken));
      const pressed = /^(.+)\.(click|begin)$/.exec(begin)?.[1];
      const item = pressed === undefined ? undefined : itemsOf(pressed).at(-1);
      if (item !== undefined) {
        const made = steps();
        if (made.length) out.pressed.push({ item, cue: cue('press', made) });
      } else if (secondsOf(begin) !== undefined) for (const one of steps()) byItself.push(one);
      else if (effectsIn(group, 0).length) notTaken.add('leftOut', 'Animations that begin at a click', STILL);
    }
    if (byItself.length) out.shown = cue('pageShown', [...(out.shown?.steps ?? []), ...byItself]);
  }
  return out;
}

/** The sequences of a page: under its root stands one main sequence, and one for each object that begins something. */
const sequencesIn = (page: XmlElement): XmlElement[] =>
  childrenOf(page, 'anim:par').flatMap((root) => [
    ...childrenOf(root, 'anim:seq'),
    ...childrenOf(root, 'anim:par').flatMap((inner) => childrenOf(inner, 'anim:seq')),
  ]);

interface Effect {
  element: XmlElement;
  /** Seconds from the beginning of its group. */
  after: number;
}

/** Effects with the time at which each begins: what stands in a container begins with it, later by its own `begin`. */
function effectsIn(element: XmlElement, after: number): Effect[] {
  return childrenOf(element).flatMap((child) => {
    const begins = after + Math.max(0, secondsOf(child.attributes['smil:begin']) ?? 0);
    return child.attributes['presentation:preset-class'] === undefined ? effectsIn(child, begins) : [{ element: child, after: begins }];
  });
}

function stepOf({ element, after }: Effect, itemsOf: (id: string) => readonly string[], notTaken: NotTakenList): MadeStep[] {
  const a = element.attributes;
  if (a['presentation:preset-class'] !== 'entrance') {
    notTaken.add('leftOut', `Animation of the kind “${a['presentation:preset-class']}”`, STILL);
    return [];
  }
  const parts = primitivesIn(element);
  const targets = [...new Set(parts.flatMap((p) => p.attributes['smil:targetElement'] ?? []))];
  const items = targets.flatMap((t) => itemsOf(t));
  if (!items.length) {
    notTaken.add('leftOut', 'Animation of a part of a text', 'a text moves as a whole or not at all');
    return [];
  }
  const kind = kindOf(parts);
  if (kind === null) notTaken.add('changed', 'Animation of a kind of its own', 'it is shown as a fade');
  const seconds = parts.reduce((most, p) => (p.name === 'anim:set' ? most : Math.max(most, secondsOf(p.attributes['smil:dur']) ?? 0)), 0);
  return [
    {
      do: 'animate',
      items,
      kind: kind ?? 'fade',
      seconds: kind === 'appear' ? 0 : seconds,
      from: 'left',
      easing: easingOf(Number(a['smil:accelerate'] ?? 0) > 0, Number(a['smil:decelerate'] ?? 0) > 0),
      repeat: a['smil:repeatCount'] === 'indefinite' ? 'again' : 'once',
      after,
    },
  ];
}

const primitivesIn = (element: XmlElement): XmlElement[] =>
  childrenOf(element).flatMap((c) => (/^anim:(par|seq|iterate)$/.test(c.name) ? primitivesIn(c) : [c]));

/** What an entrance looks like, by what it changes (15.4); null where there is nothing that is like it. */
function kindOf(parts: readonly XmlElement[]): Animate['kind'] | null {
  const changed = new Set(parts.map((p) => p.attributes['smil:attributeName']));
  if (parts.some((p) => p.name === 'anim:animateTransform' && p.attributes['svg:type'] === 'scale')) return 'scale';
  if (changed.has('width') || changed.has('height')) return 'scale';
  if (changed.has('x') || changed.has('y')) return 'moveIn';
  const filter = parts.find((p) => p.name === 'anim:transitionFilter');
  if (filter) return filter.attributes['smil:type'] === 'fade' ? 'fade' : null;
  if (changed.has('opacity')) return 'fade';
  return parts.every((p) => p.name === 'anim:set') ? 'appear' : null;
}

const easingOf = (slowStart: boolean, slowEnd: boolean): Animate['easing'] =>
  slowStart && slowEnd ? 'ease' : slowStart ? 'easeIn' : slowEnd ? 'easeOut' : 'linear';
