import { contrast, WHITE } from '../../folio/colour.ts';
import type { Findings } from '../findings.ts';
import { short } from '../findings.ts';
import type { SeenLine, SeenStyle } from './cascade.ts';
import { dense } from './dense.ts';
import type { ExpectedFlow, ExpectedFlowBlock, ExpectedLine, ExpectedLook } from './expectFlow.ts';
import type { ObservedFlow, ObservedFlowBlock } from './observedFlow.ts';

/** Ink on paper may be the reader’s own from this contrast to white on, and must be where it would not be seen (WCAG 2.2, 1.4.3). */
const INK = 10;
const UNSEEN = 3;
/** Sizes are rounded to a thousandth of an em. */
const SIZE_TOLERANCE = 0.02;

/**
 * Whether a colour is the document’s. On paper of the reader’s own it may be theirs, if it is ink or would not be seen; on a ground of
 * the document’s it may not.
 */
function colourAgrees(wanted: string, seen: string | null, ground: boolean): boolean {
  if (seen === wanted) return true;
  if (seen !== null || ground) return false;
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(wanted.slice(at, at + 2), 16) / 255) as [number, number, number];
  const toPaper = contrast({ r, g, b }, WHITE);
  return toPaper > INK || toPaper < UNSEEN;
}

/** What one em is in points in most of a result: all sizes must go by the same. */
export function baseOf(expected: ExpectedFlow, observed: ObservedFlow, places: readonly (number | null)[]): number {
  const sized = expected.blocks.flatMap((b, i) => (places[i] === null ? [] : [b.look.size / observed.blocks[places[i]!]!.look.size]));
  return sized.sort((a, b) => a - b)[Math.floor(sized.length / 2)] ?? 0;
}

/** What looks are compared by: points in an em; whether families are the document’s, and whether all ink is. */
export interface LookBy {
  base: number;
  embeds: boolean;
  ownInk: boolean;
}

/** How paragraphs look: in which typeface, how large against the others, how aligned, and what of their words looks otherwise. */
export function compareLooks(
  expected: ExpectedFlow,
  observed: ObservedFlow,
  places: readonly (number | null)[],
  by: LookBy,
  found: Findings,
): void {
  expected.blocks.forEach((b, i) => {
    if (places[i] === null) return;
    const seen = observed.blocks[places[i]!]!;
    const wrong = wrongInBlock(b, seen, by) ?? wrongInWords(b, seen, by);
    const { family, weight, size } = seen.look;
    found.say('paragraph', b.paragraph, 'look', wrong === null, wrong ?? `${family} ${weight}, ${size} em`);
  });
}

function wrongInBlock(b: ExpectedFlowBlock, { look, initial }: ObservedFlowBlock, by: LookBy): string | null {
  if (look.align !== b.align) return `aligned ${look.align}, not ${b.align}`;
  if (look.ground !== b.ground) return look.ground ? `on ${look.ground}, not ${b.ground ?? 'paper'}` : `not on ${b.ground}`;
  if (initial !== b.initial) return initial ? 'an initial that is none' : 'no initial';
  return wrongLook(b.look, look, by, b.ground !== null);
}

function wrongLook(want: ExpectedLook, seen: SeenStyle, { base, embeds, ownInk }: LookBy, ground: boolean): string | null {
  if (embeds && seen.family !== want.family) return `typeface ${seen.family || 'none'}, not ${want.family}`;
  if (seen.weight !== String(want.weight)) return `weight ${seen.weight}, not ${want.weight}`;
  if (seen.style !== want.style) return `${seen.style}, not ${want.style}`;
  if (seen.position !== want.position) return `${seen.position}, not ${want.position}`;
  const sized = Math.abs(seen.size * base - want.size) <= want.size * SIZE_TOLERANCE;
  // What stands higher or lower is smaller by a rule of its own.
  if (want.position === 'normal' && !sized) return `size ${seen.size} em`;
  if (seen.capitals !== want.capitals) return `capitals: ${seen.capitals}, not ${want.capitals}`;
  if (!seen.link && seen.underline !== want.underline) return seen.underline ? 'underlined' : 'not underlined';
  if (seen.strike !== want.strike) return seen.strike ? 'struck through' : 'not struck through';
  if (!colourAgrees(want.colour, seen.colour, ground || ownInk)) return `colour ${seen.colour ?? 'the reader’s'}, not ${want.colour}`;
  return null;
}

const wrongInWords = (b: ExpectedFlowBlock, seen: ObservedFlowBlock, by: LookBy): string | null =>
  wrongWords(b, seen, (want, { look }) => wrongLook(want.look, look, by, b.ground !== null));

type Run<B extends { runs: unknown[] }> = B['runs'][number];

/** What is wrong with the first words of a paragraph that are not as they should be; null if there are none. Words that are not there are told elsewhere. */
export function wrongWords(
  b: ExpectedFlowBlock,
  seen: ObservedFlowBlock,
  wrongWith: (want: Run<ExpectedFlowBlock>, seen: Run<ObservedFlowBlock>) => string | null,
): string | null {
  let text = '';
  const letters: Run<ObservedFlowBlock>[] = [];
  for (const run of seen.runs) {
    const d = dense(run.text);
    text += d;
    for (let i = 0; i < d.length; i++) letters.push(run);
  }
  let at = 0;
  for (const run of b.runs) {
    const d = dense(run.text);
    const from = text.indexOf(d, at);
    if (!d || from < 0) continue;
    at = from + d.length;
    for (const there of new Set(letters.slice(from, at))) {
      const wrong = wrongWith(run, there);
      if (wrong !== null) return `“${short(run.text.trim())}”: ${wrong}`;
    }
  }
  return null;
}

/** What is wrong with the ground and the lines of a cell; null if nothing is. */
export function wrongCell(
  want: { ground: string | null; lines: readonly (ExpectedLine | null)[] },
  seen: { ground: string | null; lines: readonly (SeenLine | null)[] },
  base: number,
): string | null {
  if (want.ground !== seen.ground) return seen.ground ? `on ${seen.ground}, not ${want.ground ?? 'paper'}` : `not on ${want.ground}`;
  for (const [i, side] of ['above', 'on the right', 'below', 'on the left'].entries()) {
    const [line, there] = [want.lines[i] ?? null, seen.lines[i] ?? null];
    if (!line !== !there) return `${there ? 'a line' : 'no line'} ${side}`;
    if (line && there && Math.abs(there.em * base - line.weight) > 0.1 * line.weight + 0.02) return `a line of ${there.em} em ${side}`;
    if (line && there && !colourAgrees(line.colour, there.colour, want.ground !== null)) return `a line in another colour ${side}`;
  }
  return null;
}
