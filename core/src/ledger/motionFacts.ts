import { round } from '../folio/units.ts';

/** What a result says of a part that reacts, moves or is filled in, in words: by `kind id aspect` of what it is about. */
export type MotionFacts = Map<string, string>;

export const factKey = (kind: 'item' | 'cue' | 'page', id: string, aspect: string): string => `${kind} ${id} ${aspect}`;

interface SwitcherFact {
  cards: { id: string; name: string }[];
  change: { kind: string; direction: string; seconds: number };
  advance?: { seconds: number[]; loop: boolean } | undefined;
}
/** The same words for the same thing, whoever has found it: what is asked for, or what a file says. */
export const switcherFact = ({ cards, change, advance }: SwitcherFact): string =>
  `${cards.length} cards (${cards.map((c) => `${c.id} “${c.name}”`).join(', ')}), ${change.kind}${change.kind === 'slide' ? ` ${change.direction}` : ''}${change.kind === 'cut' ? '' : ` in ${change.seconds} s`}, ${advance ? `by itself after ${advance.seconds.join(', ')} s, ${advance.loop ? 'again and again' : 'once'}` : 'by hand'}`;

/** Lengths in points. */
export const veilFact = (v: { flakes: number; size: number; pitch: number; lift: string; rest: number; action: string }): string =>
  `${v.flakes} flakes of ${round(v.size, 2)} pt, ${round(v.pitch, 2)} pt apart, ${v.lift}, all after ${round(v.rest, 3)}, “${v.action}”`;

export const fieldFact = (f: { type: string; name: string; label: string; value: string; on: boolean; required: boolean }): string =>
  `${f.type} “${f.name}”, ${f.label ? `“${f.label}”` : 'no label'}${f.value ? `, “${f.value}”` : ''}${f.on ? ', on' : ''}${f.required ? ', required' : ''}`;

export const cueFact = (when: string, steps: readonly string[]): string => `${when}: ${steps.join(', ')}`;

export const transitionFact = (t: { style: string; seconds: number }): string => `${t.style} in ${t.seconds} s`;
