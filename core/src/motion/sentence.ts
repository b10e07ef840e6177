import type { Folio } from '../folio/folio.ts';
import type { Cue, Destination, Step, Trigger } from '../folio/motion.ts';
import { placeOfPage, printedNumber } from '../folio/traverse.ts';
import { itemsById } from './liveTargets.ts';

/** A cue in words: what begins it, and what then happens, step by step. */
export interface CueSentence {
  when: string;
  then: string[];
}

const WHEN: Record<Exclude<Trigger['when'], 'delay'>, string> = {
  press: 'When the reader presses it',
  pointerOver: 'When the pointer comes over it',
  pointerOut: 'When the pointer leaves it',
  focus: 'When the reader steps to it',
  pageShown: 'When the page is shown',
  pageLeft: 'When the page is left',
  fieldChanged: 'When it is filled in',
  cardChanged: 'When its card changes',
  mediaEnded: 'When it has ended',
};

/** Tells a cue as a sentence; `nameOf` says how an item is called. What is gone is told to be gone. */
export function sentenceOf(folio: Folio, cue: Cue, nameOf: (item: string) => string): CueSentence {
  const { trigger } = cue;
  const name = (id: string): string => (itemsById(folio).has(id) ? nameOf(id) : 'something that is gone');
  return {
    when: trigger.when === 'delay' ? `${secondsIn(trigger.seconds)} after the page is shown` : WHEN[trigger.when],
    then: cue.steps.map((s) => stepIn(folio, s, name) + (s.after > 0 ? `, after ${secondsIn(s.after)}` : '')),
  };
}

const secondsIn = (n: number): string => `${n} ${n === 1 ? 'second' : 'seconds'}`;

function stepIn(folio: Folio, step: Step, name: (id: string) => string): string {
  const all = (ids: readonly string[]): string => ids.map(name).join(', ');
  switch (step.do) {
    case 'go':
      return goesTo(folio, step.destination);
    case 'showCard': {
      const switcher = itemsById(folio).get(step.switcher);
      const card = switcher?.kind === 'switcher' ? switcher.cards.find((c) => c.id === step.card) : undefined;
      const which =
        step.card === 'next' || step.card === 'previous'
          ? `the ${step.card} card`
          : card
            ? `the card “${card.name}”`
            : 'a card that is gone';
      const end = step.card !== 'next' ? '' : step.afterLast === 'again' ? ', begin again after the last' : ', stop at the last';
      return `show ${which} of ${name(step.switcher)}${end}`;
    }
    case 'show':
    case 'hide':
      return `${step.do} ${all(step.items)}`;
    case 'toggle':
      return `show ${all(step.items)}, or hide it again`;
    case 'play':
    case 'pause':
    case 'stop':
      return `${step.do} ${name(step.media)}`;
    case 'seek':
      return `go to second ${step.seconds} of ${name(step.media)}`;
    case 'openFile':
      return `open the file ${folio.head.media[step.media]?.name ?? 'that is gone'}`;
    case 'print':
      return 'print';
    case 'resetForm':
      return 'empty the form';
    case 'sendForm':
      return `send the form to ${step.href}`;
    case 'animate': {
      const how = { appear: 'let appear', moveIn: 'move in', fade: 'fade in', scale: 'let grow' }[step.kind];
      return `${how} ${all(step.items)} in ${secondsIn(step.seconds)}${step.repeat === 'again' ? ', again and again' : ''}`;
    }
  }
}

function goesTo(folio: Folio, d: Destination): string {
  switch (d.to) {
    case 'address':
      return `open ${d.href}${d.window === 'new' ? ' in a new window' : ''}`;
    case 'page': {
      const place = placeOfPage(folio, d.page);
      return place ? `go to page ${printedNumber(place)}` : 'go to a page that is gone';
    }
    case 'paragraph':
      return 'go to a place in a text';
    case 'back':
      return 'go back to where the reader was';
    default:
      return `go to the ${d.to} page`;
  }
}
