import type { Evidence } from './entry.ts';
import { Findings, pt, short } from './findings.ts';
import type { ExpectedDocument, ExpectedPage } from './expected.ts';
import type { ObservedDocument, ObservedPage } from './observed.ts';
import { PLACE_TOLERANCE } from './format.ts';
import type { Format, CompareContext } from './format.ts';
import { dense, fold } from './foldedText.ts';
import { compareBlocks } from './compareBlocks.ts';
import { boxDistance, compareAreas, compareLoose, comparePictures, compareShapes, compareTables } from './compareShapes.ts';

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
