import type { Declarations, StyleRules } from '../html/css.ts';
import { unquote } from '../html/css.ts';
import { isElement } from '../html/dom.ts';
import type { Element } from '../html/dom.ts';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** A line along one side of an element: its width in em, and its colour, null where that is the text’s. */
export interface SeenLine {
  em: number;
  colour: string | null;
}

/** How an element and the text in it are seen, as far as running text is looked at for it. */
export interface SeenStyle {
  /** The first family that is asked for; empty where readers choose. */
  family: string;
  weight: string;
  style: string;
  align: string;
  /** The size of its text in those of the reader’s own. */
  size: number;
  /** `#rrggbb`; null where it is the reader’s own. */
  colour: string | null;
  /** The ground that it is read on; null for the reader’s own paper. */
  ground: string | null;
  capitals: 'normal' | 'all' | 'small';
  position: 'normal' | 'superscript' | 'subscript';
  underline: boolean;
  strike: boolean;
  /** Whether it leads somewhere: readers have looks of their own for that. */
  link: boolean;
}

const READERS: SeenStyle = {
  family: '',
  weight: '400',
  style: 'normal',
  align: 'left',
  size: 1,
  colour: null,
  ground: null,
  capitals: 'normal',
  position: 'normal',
  underline: false,
  strike: false,
  link: false,
};

/** What browsers give elements before any sheet (HTML, 15.3): as far as it is seen in the words. */
const BROWSERS: Record<string, Declarations> = {
  ...Object.fromEntries(['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'strong', 'b', 'th'].map((tag) => [tag, { 'font-weight': '700' }])),
  ...Object.fromEntries(['em', 'i', 'cite', 'dfn'].map((tag) => [tag, { 'font-style': 'italic' }])),
  ...Object.fromEntries(['code', 'pre'].map((tag) => [tag, { 'font-family': 'monospace' }])),
  small: { 'font-size': '0.83em' },
  sub: { 'vertical-align': 'sub' },
  sup: { 'vertical-align': 'super' },
};

/** What sheets make of elements: their own rules and what they inherit (CSS Cascade 4), as far as running text is looked at for it. */
export class Cascade {
  private readonly known = new WeakMap<Element, SeenStyle>();

  constructor(private readonly rules: StyleRules) {}

  of(e: Element): SeenStyle {
    let seen = this.known.get(e);
    if (!seen) {
      const parent = e.parentNode && isElement(e.parentNode) ? this.of(e.parentNode) : READERS;
      this.known.set(e, (seen = inside(parent, e, { ...BROWSERS[e.tagName], ...this.rules.styleOf(e, ancestorsOf(e)) })));
    }
    return seen;
  }

  /** Whether its first letter is an initial that the text runs around. */
  hasInitial(e: Element): boolean {
    return this.rules.styleOf(e, ancestorsOf(e), 'first-letter')['float'] === 'left';
  }

  /** Lines around an element: top, right, bottom, left. */
  lines(e: Element): (SeenLine | null)[] {
    const lines: (SeenLine | null)[] = [null, null, null, null];
    for (const rule of this.rules.rulesOf(e, ancestorsOf(e)))
      for (const [property, value] of Object.entries(rule))
        SIDES.forEach((side, i) => {
          if (property === 'border' || property === `border-${side}`) lines[i] = lineOf(value);
        });
    return lines;
  }
}

function inside(parent: SeenStyle, e: Element, d: Declarations): SeenStyle {
  const own = (name: string): string | undefined => (d[name] === 'inherit' ? undefined : d[name]);
  const em = /^([\d.]+)(em|%)$/.exec(own('font-size') ?? '');
  const decoration = own('text-decoration') ?? '';
  const align = own('vertical-align');
  const colour = own('color');
  return {
    family: own('font-family') === undefined ? parent.family : unquote(/^(?:"[^"]*"|'[^']*'|[^,]*)/.exec(d['font-family']!)![0]),
    weight: own('font-weight') ?? parent.weight,
    style: own('font-style') ?? parent.style,
    align: own('text-align') ?? parent.align,
    size: em ? (parent.size * Number(em[1])) / (em[2] === '%' ? 100 : 1) : parent.size,
    colour: colour === undefined || colour.toLowerCase() === 'currentcolor' ? parent.colour : colour.toLowerCase(),
    ground: own('background-color')?.toLowerCase() ?? parent.ground,
    capitals: capitalsOf(own('text-transform'), own('font-variant')) ?? parent.capitals,
    position: align === 'super' ? 'superscript' : align === 'sub' ? 'subscript' : align === 'baseline' ? 'normal' : parent.position,
    // Lines go through everything inside, whatever that says of itself (CSS Text Decoration 3, 2.1).
    underline: parent.underline || decoration.includes('underline'),
    strike: parent.strike || decoration.includes('line-through'),
    link: parent.link || e.tagName === 'a',
  };
}

/** Capitals as two properties say them; undefined where neither does. */
function capitalsOf(transform: string | undefined, variant: string | undefined): SeenStyle['capitals'] | undefined {
  if (transform === 'uppercase') return 'all';
  if (variant === 'small-caps') return 'small';
  return transform === undefined && variant === undefined ? undefined : 'normal';
}

function lineOf(value: string): SeenLine | null {
  const em = /(?<![\d.])([\d.]+)em/.exec(value);
  if (!em || /none|hidden/.test(value)) return null;
  return { em: Number(em[1]), colour: /#[0-9a-f]{6}/i.exec(value)?.[0].toLowerCase() ?? null };
}

function ancestorsOf(e: Element): Element[] {
  const out: Element[] = [];
  for (let at = e.parentNode; at && isElement(at); at = at.parentNode) out.unshift(at);
  return out;
}
