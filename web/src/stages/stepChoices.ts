import { itemsById, pagesOf } from '@elastic-folio/core';
import type { Folio, Item, Spread, TimedStep } from '@elastic-folio/core';
import { itemName } from '../table/SpreadView.tsx';

/** What a step is about. */
export type About = 'switcher' | 'items' | 'media' | 'page' | 'file' | 'address' | null;
export interface Choice {
  value: string;
  label: string;
}

interface Kind {
  value: string;
  label: string;
  about: About;
  /** The step as it is before anything of it is set; `first` is what it could be about. */
  begin: (first: string) => TimedStep;
}

const after = 0;
const moving = (kind: 'appear' | 'moveIn' | 'fade' | 'scale'): Kind['begin'] => {
  return (first) => ({ do: 'animate', items: [first], kind, seconds: 0.6, easing: 'ease', from: 'left', repeat: 'once', after });
};
const going = (to: 'next' | 'previous' | 'first' | 'last' | 'back'): Kind['begin'] => {
  return () => ({ do: 'go', destination: { to }, after });
};
const turning = (card: 'next' | 'previous'): Kind['begin'] => {
  return (switcher) => ({ do: 'showCard', switcher, card, afterLast: 'again', after });
};
const seeing = (what: 'show' | 'hide' | 'toggle'): Kind['begin'] => {
  return (first) => ({ do: what, items: [first], after });
};
const playing = (what: 'play' | 'pause' | 'stop'): Kind['begin'] => {
  return (media) => ({ do: what, media, after });
};

/** Everything that can happen, in the order in which it is offered. */
export const STEP_KINDS: readonly Kind[] = [
  { value: 'next', label: 'Show the next card', about: 'switcher', begin: turning('next') },
  { value: 'previous', label: 'Show the previous card', about: 'switcher', begin: turning('previous') },
  { value: 'show', label: 'Show', about: 'items', begin: seeing('show') },
  { value: 'hide', label: 'Hide', about: 'items', begin: seeing('hide') },
  { value: 'toggle', label: 'Show or hide', about: 'items', begin: seeing('toggle') },
  { value: 'fade', label: 'Fade in', about: 'items', begin: moving('fade') },
  { value: 'moveIn', label: 'Move in', about: 'items', begin: moving('moveIn') },
  { value: 'scale', label: 'Grow', about: 'items', begin: moving('scale') },
  { value: 'appear', label: 'Appear', about: 'items', begin: moving('appear') },
  { value: 'page', label: 'Go to a page', about: 'page', begin: (page) => ({ do: 'go', destination: { to: 'page', page }, after }) },
  { value: 'nextPage', label: 'Go to the next page', about: null, begin: going('next') },
  { value: 'previousPage', label: 'Go to the previous page', about: null, begin: going('previous') },
  { value: 'firstPage', label: 'Go to the first page', about: null, begin: going('first') },
  { value: 'lastPage', label: 'Go to the last page', about: null, begin: going('last') },
  { value: 'back', label: 'Go back', about: null, begin: going('back') },
  {
    value: 'link',
    label: 'Open an address',
    about: 'address',
    begin: () => ({ do: 'go', destination: { to: 'address', href: '', window: 'same' }, after }),
  },
  { value: 'file', label: 'Open a file', about: 'file', begin: (media) => ({ do: 'openFile', media, after }) },
  { value: 'play', label: 'Play', about: 'media', begin: playing('play') },
  { value: 'pause', label: 'Pause', about: 'media', begin: playing('pause') },
  { value: 'stop', label: 'Stop', about: 'media', begin: playing('stop') },
  { value: 'seek', label: 'Go to a second of', about: 'media', begin: (media) => ({ do: 'seek', media, seconds: 0, after }) },
  { value: 'print', label: 'Print', about: null, begin: () => ({ do: 'print', after }) },
  { value: 'reset', label: 'Empty the form', about: null, begin: () => ({ do: 'resetForm', after }) },
  { value: 'send', label: 'Send the form', about: 'address', begin: () => ({ do: 'sendForm', href: '', after }) },
];

/** What a step could be about, what is near first. */
export function targetsFor(folio: Folio, spread: Spread, about: About): Choice[] {
  if (about === 'page') return pagesOf(folio).map(({ page, number }) => ({ value: page.id, label: `Page ${number}` }));
  if (about === 'file') return Object.values(folio.head.media).map((m) => ({ value: m.id, label: m.name }));
  if (about === null || about === 'address') return [];
  const near = Object.values(spread.items);
  const items = about === 'items' ? near : [...new Set([...near, ...itemsById(folio).values()])].filter((i) => i.kind === about);
  return items.map((i: Item) => ({ value: i.id, label: itemName(folio, i) }));
}
