import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import { align, unlikeness } from './align.ts';
import type { Evidence } from './entry.ts';
import { Findings, samePicture, short } from './findings.ts';
import type { ExpectedBlock, ExpectedDocument, ExpectedPage, ExpectedRun } from './expected.ts';
import type { ObservedBlock, ObservedCell, ObservedDocument, ObservedPage, ObservedRun } from './observed.ts';

/** How far something may stand from its place: half a point, less than an eye sees at arm's length. */
const PLACE_TOLERANCE = 0.5;

export interface Format {
  /** What an element of our roles is in this format, as its observer names it. */
  roleFor(element: string): string;
  /** Whether parts of a paragraph in several frames of a page are one block. */
  joinsParts: boolean;
  /** Extra room for baselines, in points: browsers put them on whole pixels. */
  baselineTolerance: number;
  /** Whether what leads somewhere when it is pressed is a link. */
  linksCues: boolean;
  /** Whether a program comes with it, by which parts react and move; else only fields and pages are asked about. */
  plays: boolean;
  /** Whether it does what cues say, and plays films and sounds, by actions of its own. */
  acts: boolean;
  /** How far something may stand from its place, in points, where that is less than usual. */
  placeTolerance?: number;
  /** Whether all letters are drawn, so that no font comes along. */
  drawsText?: boolean;
}

export interface CompareContext {
  folio: Folio;
  format: Format;
  /** A grid of average colours of a media file of the document. */
  signature(media: string): Promise<Uint8Array>;
}

/** Soft hyphens are no text: where a word is divided, formats show the hyphen in ways of their own. */
const fold = (text: string): string =>
  text
    .replaceAll('\u00AD', '')
    .replace(/[\s\u00A0]+/g, ' ')
    .trim();
const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD]+/g, '');
const pt = (v: number): string => `${Math.round(v * 100) / 100} pt`;

/** Compares what a result shows with what the document asks for, subject by subject. */
export async function compareDocuments(
  expected: ExpectedDocument,
  observed: ObservedDocument,
  context: CompareContext,
): Promise<Evidence[]> {
  const found = new Findings();
  const id = context.folio.head.id;
  found.say('document', id, 'title', observed.title === expected.title, `title “${observed.title}”`);
  found.say(
    'document',
    id,
    'language',
    observed.language.toLowerCase() === expected.language.toLowerCase(),
    `language ${observed.language || 'not set'}`,
  );
  compareOutline(expected, observed, found, id);
  for (const font of Object.values(context.folio.head.fonts)) {
    const used = [...expected.fonts].find(([, f]) => f.family === font.family && f.weight === font.weight && f.style === font.style);
    if (!used) continue;
    const embedded = observed.embedded.includes(used[0]);
    found.say(
      'font',
      font.id,
      'embedding',
      embedded === (used[1].mayEmbed && !context.format.drawsText),
      embedded ? 'embedded' : 'not embedded',
    );
  }
  const moved: string[] = [];
  for (const [i, page] of expected.pages.entries()) {
    const seen = observed.pages[i];
    if (!seen) {
      found.say('page', page.page.id, 'size', false, 'the page is not there');
      continue;
    }
    const same = Math.abs(seen.width - page.page.box.width) < 0.1 && Math.abs(seen.height - page.page.box.height) < 0.1;
    found.say(
      'page',
      page.page.id,
      'size',
      same && !seen.hidden,
      seen.hidden ? 'a rule of the style sheet hides the page' : `${pt(seen.width)} × ${pt(seen.height)}`,
    );
    moved.push(...compareBlocks(page, seen, observed, context, found));
    await comparePictures(page, seen, context, found);
    compareShapes(page, seen, PLACE_TOLERANCE, found);
    compareTables(page, seen, found);
    compareLoose(page, seen, found);
    if (context.format.linksCues) compareAreas(page, seen, PLACE_TOLERANCE, found);
    compareParts(page, seen, found);
  }
  const inOrder = moved.length === 0 && observed.pages.length === expected.pages.length;
  found.say(
    'document',
    id,
    'order',
    inOrder,
    inOrder
      ? 'everything is read in the order of the reading path'
      : moved[0]
        ? `“${short(moved[0])}” is read elsewhere`
        : `${observed.pages.length} pages instead of ${expected.pages.length}`,
  );
  compareMotion(expected, observed, context.format, found);
  compareAbsent(expected, observed, found);
  return found.list;
}

/**
 * The same for a format that places boxes and breaks their lines by itself: only where things stand, and what they look like. `left`:
 * items of which the format shows something else.
 */
export async function comparePlaces(
  expected: readonly ExpectedPage[],
  observed: readonly ObservedPage[],
  context: CompareContext,
  found: Findings,
  left: ReadonlySet<string>,
): Promise<void> {
  const tolerance = context.format.placeTolerance ?? PLACE_TOLERANCE;
  for (const [i, whole] of expected.entries()) {
    const seen = observed[i];
    const { page } = whole;
    if (!seen) {
      found.say('page', page.id, 'size', false, 'the page is not there');
      continue;
    }
    const same = Math.abs(seen.width - page.box.width) < 0.1 && Math.abs(seen.height - page.box.height) < 0.1;
    found.say('page', page.id, 'size', same, `${pt(seen.width)} × ${pt(seen.height)}`);
    const kept = <T extends { item: string }>(list: readonly T[]): T[] => list.filter((x) => !left.has(x.item));
    const part = { ...whole, pictures: kept(whole.pictures), shapes: kept(whole.shapes) };
    await comparePictures(part, seen, context, found);
    compareShapes(part, seen, tolerance, found);
    compareLoose(part, seen, found);
    compareAreas(part, seen, tolerance, found);
    const read = new Set(whole.blocks.map((b) => b.subject.id));
    for (const { item, own, alt } of part.pictures)
      if (own && alt && !read.has(item) && context.folio.head.structure.decorations.includes(item)) {
        const told = seen.pictures.some((p) => p.alt === alt);
        found.say('item', item, 'alt', !told, told ? 'it is decoration, and is told all the same' : 'decoration, and not told');
      }
    for (const block of whole.blocks)
      if (block.role === 'figure' && block.alt && block.subject.kind === 'item') {
        const there =
          seen.pictures.some((p) => p.alt === block.alt) ||
          (seen.shapes.length > 0 && !part.pictures.some((p) => p.item === block.subject.id));
        found.say('item', block.subject.id, 'alt', there, there ? `alt text “${short(block.alt)}”` : 'no alt text');
      }
  }
}

function compareOutline(expected: ExpectedDocument, observed: ObservedDocument, found: Findings, id: string): void {
  const [want, have] = [
    expected.outline.flatMap((o) => (o.listed === null ? [] : [fold(o.listed)])),
    observed.outline.map((o) => fold(o.text)),
  ];
  const agrees = want.length === have.length && want.every((t, i) => t === have[i]) && observed.outline.every((o) => o.page !== null);
  found.say(
    'document',
    id,
    'outline',
    agrees,
    agrees ? `${have.length} headings` : `${have.length} headings where ${want.length} should be`,
  );
}

/** Pairs the blocks of a page and compares each pair; gives the texts that turned up out of order. */
function compareBlocks(
  page: ExpectedPage,
  seen: ObservedPage,
  whole: ObservedDocument,
  context: CompareContext,
  found: Findings,
): string[] {
  const [want, have] = [context.format.joinsParts ? joined(page.blocks) : page.blocks, seen.blocks];
  const wantText = want.map((b) => fold(b.text));
  const haveText = have.map((b) => fold(b.text));
  const cost = (i: number, j: number): number => {
    const [a, b] = [want[i]!, have[j]!];
    if ((a.role === 'figure') !== (b.role === 'figure')) return 1.2;
    if (a.role === 'figure') return (a.alt ?? '') === (b.alt ?? '') ? 0 : 0.5;
    return unlikeness(wantText[i]!, haveText[j]!);
  };
  const pairs = align(want.length, have.length, cost);
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
        text: `${out[at]!.text} ${block.text}`,
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
  const another = languageDifference(block, seen);
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
  if (context.format.drawsText || block.runs.some((r) => !r.embeds) || dense(block.text) !== dense(seen.runs.map((r) => r.text).join('')))
    return;
  const look = lookDifference(block.runs, seen.runs);
  found.say(kind, id, 'look', look === null, look ?? 'font, size and colour as designed');
  const off = placeDifference(block.runs, seen.runs, context.format.baselineTolerance);
  if (off) offsets.set(block.item, [...(offsets.get(block.item) ?? []), { block, ...off }]);
}

/** What of a text is in another language than it should be: all of it, or some words (WCAG 2.2, 3.1.2). */
function languageDifference(block: ExpectedBlock, seen: ObservedBlock): string | null {
  if (seen.language.toLowerCase() !== block.language.toLowerCase()) return `language ${seen.language}`;
  const [want, have] = [letters(block.runs), letters(seen.runs)];
  if (want.length !== have.length) return null;
  const wrong = want.findIndex((w, i) => w.language.toLowerCase() !== have[i]!.language.toLowerCase());
  return wrong < 0 ? null : `“${short(have[wrong]!.text)}”: language ${have[wrong]!.language}`;
}

/** The look of each letter of a text, spaces left out. */
function letters<R extends { text: string }>(runs: readonly R[]): R[] {
  return runs.flatMap((r) => Array.from({ length: dense(r.text).length }, () => r));
}

function lookDifference(want: readonly ExpectedRun[], have: readonly ObservedRun[]): string | null {
  const [a, b] = [letters(want), letters(have)];
  for (let i = 0; i < a.length; i++) {
    const [w, h] = [a[i]!, b[i]!];
    if (!w.embeds || h.colour === 'drawn') continue;
    if (w.font !== h.font) return `“${short(h.text)}” is set in ${h.font}, not ${w.font}`;
    if (Math.abs(w.size - h.size) > 0.02) return `“${short(h.text)}” is ${pt(h.size)}, not ${pt(w.size)}`;
    if (!sameColour(w.colour, h.colour, w.exactColour)) return `“${short(h.text)}” is ${h.colour}, not ${w.colour}`;
  }
  return null;
}

/** Two colours as written; those from other spaces only roughly, since every program converts them its own way. */
function sameColour(a: string, b: string, exact: boolean): boolean {
  if (a === b) return true;
  const [x, y] = [a, b].map((c) => [1, 3, 5].map((i) => Number.parseInt(c.slice(i, i + 2), 16)));
  return x!.every((v, i) => Math.abs(v - y![i]!) <= (exact ? 1 : 76));
}

/** How far the stretches of a text stand from their places: of the first, and at worst. */
function placeDifference(
  want: readonly ExpectedRun[],
  have: readonly ObservedRun[],
  baseline: number,
): { dx: number; dy: number; worst: number } | null {
  const starts = new Map<number, ObservedRun>();
  let at = 0;
  for (const r of have) {
    if (dense(r.text)) starts.set(at, r);
    at += dense(r.text).length;
  }
  let first: { dx: number; dy: number } | null = null;
  let worst = 0;
  at = 0;
  for (const w of want) {
    const seen = dense(w.text) && !/^\s/.test(w.text) ? starts.get(at) : undefined;
    at += dense(w.text).length;
    if (!seen || seen.placed === false || /^\s/.test(seen.text)) continue;
    const [dx, dy] = [seen.box.x - w.start.x, seen.box.y - w.start.y];
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

const boxDistance = (a: Rect, b: Rect): number =>
  Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y), Math.abs(a.x + a.width - b.x - b.width), Math.abs(a.y + a.height - b.y - b.height));

async function comparePictures(page: ExpectedPage, seen: ObservedPage, context: CompareContext, found: Findings): Promise<void> {
  const tolerance = context.format.placeTolerance ?? PLACE_TOLERANCE;
  const signatures = await Promise.all(page.pictures.map((p) => context.signature(p.media)));
  const cost = (i: number, j: number): number =>
    Math.min(
      1,
      (boxDistance(page.pictures[i]!.box, seen.pictures[j]!.box) > tolerance ? 0.5 : 0) +
        (samePicture(signatures[i]!, seen.pictures[j]!.picture) ? 0 : 0.5),
    );
  for (const pair of align(page.pictures.length, seen.pictures.length, cost)) {
    const want = pair.expected === null ? undefined : page.pictures[pair.expected];
    if (!want?.own) continue;
    const have = pair.observed === null ? undefined : seen.pictures[pair.observed];
    if (!have) {
      found.say('item', want.item, 'picture', false, 'the picture is not there');
      continue;
    }
    const same = samePicture(signatures[pair.expected!]!, have.picture);
    found.say('item', want.item, 'picture', same, same ? 'the same picture' : 'another picture');
    const off = boxDistance(want.box, have.box);
    found.say('item', want.item, 'place', off <= tolerance, off <= tolerance ? 'in its place' : `stands ${pt(off)} from its place`);
  }
}

function compareShapes(page: ExpectedPage, seen: ObservedPage, tolerance: number, found: Findings): void {
  const cost = (i: number, j: number): number => {
    const [a, b] = [page.shapes[i]!, seen.shapes[j]!];
    return (
      (boxDistance(a.box, b.box) > tolerance + a.give ? 0.5 : 0) +
      (inked(a.fill, b.fill, a.exactColour) && inked(a.stroke, b.stroke, a.exactColour) ? 0 : 0.5)
    );
  };
  for (const pair of align(page.shapes.length, seen.shapes.length, cost)) {
    const want = pair.expected === null ? undefined : page.shapes[pair.expected];
    if (!want?.own) continue;
    const have = pair.observed === null ? undefined : seen.shapes[pair.observed];
    if (!have) {
      found.say('item', want.item, 'look', false, 'its outline is not there');
      continue;
    }
    const same = inked(want.fill, have.fill, want.exactColour) && inked(want.stroke, have.stroke, want.exactColour);
    found.say(
      'item',
      want.item,
      'look',
      same,
      `fill ${have.fill ?? 'none'}, stroke ${have.stroke ?? 'none'}${same ? '' : ` instead of ${want.fill ?? 'none'}, ${want.stroke ?? 'none'}`}`,
    );
    const off = boxDistance(want.box, have.box);
    found.say(
      'item',
      want.item,
      'place',
      off <= tolerance + want.give,
      off <= tolerance + want.give ? 'in its place' : `stands ${pt(off)} from its place`,
    );
  }
}

/** Tables in the order in which they are read, row by row and cell by cell. */
function compareTables(page: ExpectedPage, seen: ObservedPage, found: Findings): void {
  page.tables.forEach((want, i) => {
    const have = seen.tables[i];
    if (!have) {
      found.say('table', want.id, 'structure', false, 'is not read as a table');
      return;
    }
    const wrong = want.rows.findIndex((row, r) => !sameRow(row, have[r]));
    const agrees = wrong < 0 && have.length === want.rows.length;
    const count = `${have.length} ${have.length === 1 ? 'row' : 'rows'}`;
    found.say('table', want.id, 'structure', agrees, agrees ? `a table of ${count}` : wrong < 0 ? count : `row ${wrong + 1} is another`);
  });
}

const sameRow = (want: ExpectedPage['tables'][number]['rows'][number], have: ObservedCell[] | undefined): boolean =>
  have?.length === want.length &&
  want.every((w, i) => {
    const h = have[i]!;
    return (
      dense(w.text) === dense(h.text) && w.heading === h.heading && (h.rows ?? w.rows) === w.rows && (h.columns ?? w.columns) === w.columns
    );
  });

const inked = (a: string | null, b: string | null, exact: boolean): boolean =>
  a === b || (a !== null && b !== null && a !== 'gradient' && b !== 'gradient' && sameColour(a, b, exact));

function compareLoose(page: ExpectedPage, seen: ObservedPage, found: Findings): void {
  const all = dense(seen.loose.map((r) => r.text).join(''));
  // A text of a master page may be there twice.
  const parts = new Map<string, { paragraph: string; text: string }>();
  for (const { paragraph, item, text } of page.loose) {
    const key = `${item} ${paragraph}`;
    parts.set(key, { paragraph, text: (parts.get(key)?.text ?? '') + text });
  }
  for (const { paragraph, text } of parts.values())
    found.say('paragraph', paragraph, 'text', all.includes(dense(text)), all.includes(dense(text)) ? 'seen, not read' : 'it is not there');
}

/** What leads somewhere when it is pressed: a link in its place. */
function compareAreas(page: ExpectedPage, seen: ObservedPage, tolerance: number, found: Findings): void {
  for (const { cue, box, target } of page.areas) {
    const here = seen.areas.filter((a) => boxDistance(a.box, box) <= tolerance);
    const right = here.some((a) => a.target === target);
    found.say('cue', cue, 'motion', right, here[0] ? `a link to ${here[0].target}` : 'is no link');
  }
}

/** Parts that react, move or are filled in: each in its place. Those of which the result says nothing are told by what it says. */
function compareParts(page: ExpectedPage, seen: ObservedPage, found: Findings): void {
  for (const { item, box } of page.parts) {
    const have = seen.parts.find((p) => p.item === item);
    if (!have) continue;
    const off = boxDistance(box, have.box);
    found.say('item', item, 'place', off <= PLACE_TOLERANCE, off <= PLACE_TOLERANCE ? 'in its place' : `stands ${pt(off)} from its place`);
  }
}

/** What reacts, moves or is filled in, by what the result says of it. */
function compareMotion(expected: ExpectedDocument, observed: ObservedDocument, { plays, acts }: Format, found: Findings): void {
  if (!observed.motion) return;
  for (const [key, want] of expected.motion) {
    const [kind, id, aspect] = key.split(' ') as ['item' | 'cue' | 'page', string, string];
    const isTold = plays || kind === 'page' || aspect === 'field' || (acts && (kind === 'cue' || aspect === 'media'));
    if (!isTold) continue;
    const have = observed.motion.get(key);
    found.say(
      kind,
      id,
      aspect,
      have === want,
      have === undefined ? 'it is not there' : have === want ? have : `${have} instead of ${want}`,
    );
  }
}

/** What was left out must not be found. Short texts could stand elsewhere by chance and prove nothing. */
function compareAbsent(expected: ExpectedDocument, observed: ObservedDocument, found: Findings): void {
  const everything = observed.pages
    .map((p) => dense(p.blocks.map((b) => b.text).join('') + p.loose.map((r) => r.text).join('')))
    .join('\n');
  // The same words may stand where they should: in a paragraph, or seen only, as a running head shows a title.
  const wanted = dense(expected.pages.flatMap((p) => [...p.blocks, ...p.loose].map((b) => b.text)).join('\n'));
  for (const { paragraph, text } of expected.absent) {
    const d = dense(text);
    if (d.length < 12 || wanted.includes(d)) continue;
    found.say(
      'paragraph',
      paragraph,
      'text',
      !everything.includes(d),
      everything.includes(d) ? 'it is in the result all the same' : 'not in the result',
    );
  }
}
