import { alignedPairs, worthOfCost } from '../alignment/alignSequences.ts';
import { unlikeness } from '../alignment/likeness.ts';
import { pt, short } from './findings.ts';
import type { Findings } from './findings.ts';
import type { ExpectedBlock, ExpectedPage, ExpectedRun } from './expected.ts';
import type { ObservedBlock, ObservedDocument, ObservedPage, ObservedRun } from './observed.ts';
import { PLACE_TOLERANCE } from './format.ts';
import type { CompareContext } from './format.ts';
import { dense, fold } from './foldedText.ts';

/** Pairs the blocks of a page and compares each pair; gives the texts that turned up out of order. */
export function compareBlocks(
  page: ExpectedPage,
  seen: ObservedPage,
  whole: ObservedDocument,
  context: CompareContext,
  found: Findings,
): string[] {
  const [want, have] = [context.format.joinsParts ? joined(page.blocks) : page.blocks, seen.blocks];
  const wantText = want.map((b) => fold(b.text));
  const haveText = have.map((b) => fold(b.text));
  const worth = (i: number, j: number): number => {
    const [a, b] = [want[i]!, have[j]!];
    if ((a.role === 'figure') !== (b.role === 'figure')) return 0;
    if (a.role === 'figure') return worthOfCost((a.alt ?? '') === (b.alt ?? '') ? 0 : 0.5);
    return worthOfCost(unlikeness(wantText[i]!, haveText[j]!));
  };
  const key = ({ role, alt }: { role: string; alt?: string | undefined }, text: string): string =>
    role === 'figure' ? `figure ${alt ?? ''}` : `text ${text}`;
  const keys = [want.map((b, i) => key(b, wantText[i]!)), have.map((b, j) => key(b, haveText[j]!))] as const;
  const pairs = alignedPairs({ lengths: [want.length, have.length], keys, worth });
  const extra = pairs.filter((p) => p.expected === null).map((p) => have[p.observed!]!);
  const offsets = new Map<string, { block: ExpectedBlock; dx: number; dy: number; worst: number }[]>();
  const moved: string[] = [];
  for (const pair of pairs) {
    if (pair.expected === null) continue;
    const block = want[pair.expected]!;
    if (pair.observed === null) {
      const elsewhere = block.role !== 'figure' && whole.pages.some((p) => p.blocks.some((b) => fold(b.text) === fold(block.text)));
      if (elsewhere) moved.push(block.text);
      found.say(
        block.subject.kind,
        block.subject.id,
        block.role === 'figure' ? 'alt' : 'text',
        false,
        elsewhere ? 'it is read in another place' : 'it is not there',
      );
      continue;
    }
    comparePair(block, have[pair.observed]!, context, found, offsets);
  }
  for (const block of extra) {
    const twin = want.find((w) => w.role !== 'figure' && fold(w.text) === fold(block.text));
    if (twin && !moved.includes(twin.text)) found.say(twin.subject.kind, twin.subject.id, 'text', false, 'it stands there twice');
    else if (!twin && (block.text || block.alt)) moved.push(block.text || block.alt!);
  }
  reportOffsets(offsets, found);
  return moved;
}

/**
 * Blocks with the parts of one paragraph put together, where the first of them stands; what goes on
 * from an earlier page belongs to an element that began there, so it comes before the rest of the page.
 */
function joined(blocks: readonly ExpectedBlock[]): ExpectedBlock[] {
  const out: ExpectedBlock[] = [];
  for (const block of blocks) {
    const at = block.role === 'figure' ? -1 : out.findIndex((b) => b.subject.kind === 'paragraph' && b.subject.id === block.subject.id);
    if (at < 0 && !block.begins) out.unshift(block);
    else if (at < 0) out.push(block);
    else
      out[at] = {
        ...out[at]!,
        text: `${out[at]!.text}${out[at]!.spaceAfter ? ' ' : ''}${block.text}`,
        spaceAfter: block.spaceAfter,
        runs: [...out[at]!.runs, ...block.runs],
        links: [...out[at]!.links, ...block.links],
      };
  }
  return out;
}

/** Runs that say a link’s words together, wherever they do so as links. */
function placesOfLink({ runs }: ObservedBlock, words: string): ObservedBlock['runs'][] {
  const linked = runs.filter((r) => r.link !== undefined && dense(r.text));
  return linked.flatMap((_, from) => {
    let said = '';
    for (let to = from; to < linked.length && said.length < words.length; to++) {
      said += dense(linked[to]!.text);
      if (said === words) return [linked.slice(from, to + 1)];
    }
    return [];
  });
}

function comparePair(
  block: ExpectedBlock,
  seen: ObservedBlock,
  context: CompareContext,
  found: Findings,
  offsets: Map<string, { block: ExpectedBlock; dx: number; dy: number; worst: number }[]>,
): void {
  const { kind, id } = block.subject;
  if (block.role === 'figure') {
    found.say(kind, id, 'alt', (block.alt ?? '') === (seen.alt ?? ''), seen.alt ? `alt text “${short(seen.alt)}”` : 'no alt text');
    return;
  }
  const same = fold(block.text) === fold(seen.text);
  found.say(kind, id, 'text', same, same ? `“${short(fold(seen.text))}”` : `reads “${short(fold(seen.text))}”`);
  const role = context.format.roleFor(block.role);
  found.say(kind, id, 'role', seen.role === role, `is ${seen.role}${seen.role === role ? '' : `, not ${role}`}`);
  const [want, have] = [measured(block.runs), measured(seen.runs)];
  const another =
    seen.language.toLowerCase() === block.language.toLowerCase() ? languageDifference(want, have) : `language ${seen.language}`;
  found.say(kind, id, 'language', another === null, another ?? `language ${seen.language}`);
  for (const link of block.links) {
    const places = placesOfLink(seen, dense(link.text));
    const runs = places.find((p) => p.every((r) => r.link === link.target)) ?? places[0] ?? [];
    const right = runs.length > 0 && runs.every((r) => r.link === link.target);
    found.say(
      'link',
      `${id}/${link.id}`,
      'target',
      right,
      runs.length ? `leads to ${[...new Set(runs.map((r) => r.link))].join(', ')}` : 'is no link',
    );
  }
  // Letters drawn as shapes have no text of their own to measure.
  if (context.format.drawsText || block.runs.some((r) => !r.embeds) || dense(block.text) !== have.map((r) => r.letters).join('')) return;
  const look = lookDifference(want, have);
  found.say(kind, id, 'look', look === null, look ?? 'font, size and colour as designed');
  const off = placeDifference(want, have, context.format.baselineTolerance);
  if (off) offsets.set(block.item, [...(offsets.get(block.item) ?? []), { block, ...off }]);
}

/** A run with its letters, spaces left out. */
interface Measured<R> {
  run: R;
  letters: string;
}

const measured = <R extends { text: string }>(runs: readonly R[]): Measured<R>[] => runs.map((run) => ({ run, letters: dense(run.text) }));

const lengthOf = (runs: readonly Measured<unknown>[]): number => runs.reduce((sum, { letters }) => sum + letters.length, 0);

/** Runs of two lists that have letters in common, by their places in the text; what goes beyond the end of one is left out. */
function* overlaps<A, B>(want: readonly Measured<A>[], have: readonly Measured<B>[]): Generator<[A, B]> {
  let [i, j, left, right] = [0, 0, 0, 0];
  for (;;) {
    while (left === 0 && i < want.length) left = want[i++]!.letters.length;
    while (right === 0 && j < have.length) right = have[j++]!.letters.length;
    if (!left || !right) return;
    yield [want[i - 1]!.run, have[j - 1]!.run];
    const both = Math.min(left, right);
    left -= both;
    right -= both;
  }
}

/** The first words of a text that are in another language than they should be (WCAG 2.2, 3.1.2). */
function languageDifference(want: readonly Measured<ExpectedRun>[], have: readonly Measured<ObservedRun>[]): string | null {
  if (lengthOf(want) !== lengthOf(have)) return null;
  for (const [w, h] of overlaps(want, have))
    if (w.language.toLowerCase() !== h.language.toLowerCase()) return `“${short(h.text)}”: language ${h.language}`;
  return null;
}

function lookDifference(want: readonly Measured<ExpectedRun>[], have: readonly Measured<ObservedRun>[]): string | null {
  for (const [w, h] of overlaps(want, have)) {
    if (!w.embeds || h.colour === 'drawn') continue;
    if (w.font !== h.font) return `“${short(h.text)}” is set in ${h.font}, not ${w.font}`;
    if (Math.abs(w.size - h.size) > 0.02) return `“${short(h.text)}” is ${pt(h.size)}, not ${pt(w.size)}`;
    if (!sameColour(w.colour, h.colour, w.exactColour)) return `“${short(h.text)}” is ${h.colour}, not ${w.colour}`;
  }
  return null;
}

/** Two colours as written; those from other spaces only roughly, since every program converts them its own way. */
export function sameColour(a: string, b: string, exact: boolean): boolean {
  if (a === b) return true;
  const [x, y] = [a, b].map((c) => [1, 3, 5].map((i) => Number.parseInt(c.slice(i, i + 2), 16)));
  return x!.every((v, i) => Math.abs(v - y![i]!) <= (exact ? 1 : 76));
}

/** How far the stretches of a text stand from their places: of the first, and at worst. */
function placeDifference(
  want: readonly Measured<ExpectedRun>[],
  have: readonly Measured<ObservedRun>[],
  baseline: number,
): { dx: number; dy: number; worst: number } | null {
  const starts = new Map<number, ObservedRun>();
  let at = 0;
  for (const { run, letters } of have) {
    if (letters) starts.set(at, run);
    at += letters.length;
  }
  let first: { dx: number; dy: number } | null = null;
  let worst = 0;
  at = 0;
  for (const { run: w, letters } of want) {
    const seen = letters && !/^\s/.test(w.text) ? starts.get(at) : undefined;
    at += letters.length;
    if (!seen?.start || /^\s/.test(seen.text)) continue;
    const [dx, dy] = [seen.start.x - w.start.x, seen.start.y - w.start.y];
    first ??= { dx, dy };
    worst = Math.max(worst, Math.hypot(dx - first.dx, Math.max(0, Math.abs(dy - first.dy) - baseline)));
    if (Math.abs(seen.angle - w.angle) > 0.5) worst = Infinity;
  }
  return first && { ...first, worst: Math.max(worst, 0) };
}

/** A frame that moved takes its paragraphs with it: then the frame is named, not each of them. */
function reportOffsets(offsets: Map<string, { block: ExpectedBlock; dx: number; dy: number; worst: number }[]>, found: Findings): void {
  for (const [item, list] of offsets) {
    const off = (o: { dx: number; dy: number }): number => Math.hypot(o.dx, o.dy);
    const limit = PLACE_TOLERANCE + 0.5;
    const all = list.every((o) => off(o) > limit) && list.every((o) => Math.hypot(o.dx - list[0]!.dx, o.dy - list[0]!.dy) < limit);
    found.say(
      'item',
      item,
      'place',
      !all,
      all ? `stands ${pt(list[0]!.dx)} to the right and ${pt(list[0]!.dy)} below its place` : 'in its place',
    );
    for (const o of list) {
      const bad = o.worst > limit || (!all && off(o) > limit);
      found.say(
        'paragraph',
        o.block.subject.id,
        'place',
        !bad,
        bad ? `stands up to ${pt(Math.max(o.worst, off(o)))} from its place` : 'every line in its place',
      );
    }
  }
}
