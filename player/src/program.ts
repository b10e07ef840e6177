/** When a cue begins; `delay` counts from the moment its page is shown. */
export type When =
  'press' | 'pointerOver' | 'pointerOut' | 'focus' | 'pageShown' | 'pageLeft' | 'fieldChanged' | 'cardChanged' | 'mediaEnded' | 'delay';

export type GoTo = 'next' | 'previous' | 'first' | 'last' | 'back' | { page: string } | { href: string; newWindow: boolean };

export interface Animation {
  items: string[];
  kind: 'appear' | 'moveIn' | 'fade' | 'scale';
  from: 'left' | 'right' | 'above' | 'below';
  seconds: number;
  easing: 'linear' | 'ease' | 'ease-in' | 'ease-out';
  again: boolean;
}

/** One thing that a cue does, `after` so many seconds from its beginning. */
export type Step = { after: number } & (
  | { do: 'go'; to: GoTo }
  | { do: 'card'; switcher: string; card: string; again: boolean }
  | { do: 'show' | 'hide' | 'toggle'; items: string[] }
  | { do: 'play' | 'pause' | 'stop'; media: string }
  | { do: 'seek'; media: string; seconds: number }
  | { do: 'open'; href: string }
  | { do: 'print' | 'reset' }
  | { do: 'send'; href: string }
  | ({ do: 'animate' } & Animation)
);

/** `on`: the id of the item or of the page's element that the cue hangs on. */
export interface Cue {
  id: string;
  on: string;
  when: When;
  seconds?: number;
  steps: Step[];
}

export interface Switcher {
  /** Ids of its cards, and what each is called. */
  cards: string[];
  names: string[];
  change: { kind: 'cut' | 'fade' | 'slide'; direction: 'left' | 'right' | 'up' | 'down'; seconds: number };
  /** Seconds for each card, where it goes on by itself. */
  advance?: { seconds: number[]; loop: boolean; pausesOnPointer: boolean; pausesOnFocus: boolean };
  controls: { arrows: boolean; dots: boolean; thumbnails: boolean; swipe: boolean; keys: boolean };
}

/** Lengths in CSS px in the veil's own space. */
export interface Veil {
  size: number;
  pitch: number;
  /** The columns of the flakes that are needed, row by row. */
  rows: number[][];
  /** The area as path data. */
  clip: string;
  fill: string;
  cover?: { src: string; each: boolean; width: number; height: number };
  lift: 'cut' | 'fade';
  /** The part that must be lifted until the rest goes by itself. */
  rest: number;
  action: string;
}

/** The entries of a transition dictionary (ISO 32000-1, table 162); the direction in degrees counterclockwise from left to right. */
export interface Transition {
  style: 'split' | 'blinds' | 'box' | 'wipe' | 'dissolve' | 'glitter' | 'fly' | 'push' | 'cover' | 'uncover' | 'fade';
  seconds: number;
  direction: number;
  axis: 'horizontal' | 'vertical';
  motion: 'inward' | 'outward';
}

/** What controls are called, in the language of the publication. */
export interface Words {
  previous: string;
  next: string;
  pause: string;
  play: string;
  /** “{n} of {all}”. */
  of: string;
}

/** What a publisher is told of the reading, and how readers are asked. */
export interface Measuring {
  at: string;
  id: string;
  kinds: ('page' | 'link' | 'media' | 'form' | 'search')[];
  words: { name: string; ask: string; yes: string; no: string; sent: string; notSent: string; stop: string; start: string };
}

/** How pages are read, where they are an edition of their own and not part of a book. */
export interface Reading {
  form: 'stacked' | 'continuous' | 'slides' | 'slidesDown' | 'spreads' | 'site' | 'sections' | 'banner';
  turnsBy: ('keys' | 'swipe' | 'wheel')[];
  /** How many pages earlier files have, and how many there are in all. */
  before: number;
  count: number;
  /** Addresses of all pages, where they are in several files; and of the files around this one. */
  pages?: string[];
  previous?: string;
  next?: string;
  /** Where the edition stands, for sharing; else it is where it is being read. */
  address?: string;
  /** What the share button hands on: an address of its own, and the file of a picture. */
  share?: { address?: string; picture?: string };
  /** The file in which the text of all files is, to search in. */
  index?: string;
  /** The program that keeps the edition on the device. */
  offline?: string;
  measuring?: Measuring;
  words: { page: string; found: string; nothing: string; copied: string };
}

/** What the player is told about a publication, read from inline JSON. */
export interface Program {
  version: 2;
  /** Answers are kept under this name on the reader's device. */
  name: string;
  /** Ids of the page elements, in reading order. */
  pages: string[];
  words: Words;
  cues: Cue[];
  hidden: string[];
  switchers: Record<string, Switcher>;
  veils: Record<string, Veil>;
  transitions: Record<string, Transition>;
  /** Seconds after which a page goes on by itself, by its element's id. */
  advance: Record<string, number>;
  loop: boolean;
  reading?: Reading;
}

const ENGLISH: Words = { previous: 'Previous', next: 'Next', pause: 'Pause', play: 'Play', of: '{n} of {all}' };

/** Reads a program; null where it is none, so that the page stays what it is without a player. */
export function readProgram(json: string): Program | null {
  try {
    const value = JSON.parse(json) as Partial<Program>;
    if (value.version !== 2 || !Array.isArray(value.pages) || !value.pages.every((p) => typeof p === 'string')) return null;
    const nothing = { name: '', words: ENGLISH, cues: [], hidden: [], switchers: {}, veils: {}, transitions: {}, advance: {}, loop: false };
    return { ...nothing, ...value } as Program;
  } catch {
    return null;
  }
}
