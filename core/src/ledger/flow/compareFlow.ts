import { alignedPairs, worthOfCost } from '../../alignment/alignSequences.ts';
import { unlikeness } from '../../alignment/likeness.ts';
import type { Evidence } from '../entry.ts';
import { Findings, samePicture, short } from '../findings.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Folio } from '../../folio/folio.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import { baseOf, compareLooks, wrongCell, wrongWords } from './compareLooks.ts';
import { dense } from './dense.ts';
import { MARKUP } from './telling.ts';
import type { Telling } from './telling.ts';
import type { ExpectedFlow, ExpectedFlowBlock } from './expectFlow.ts';
import type { ObservedFlow, ObservedFlowBlock } from './observedFlow.ts';

export interface FlowCompareContext {
  folio: Folio;
  fonts: FontSet;
  /** Whether the result names the document’s typefaces, and whether it brings them. */
  embeds: boolean;
  carries?: boolean;
  telling?: Telling;
  /** Whether it brings a style sheet made from the document. */
  styled: boolean;
  /** Whether it has a table of contents, and pages to go to. */
  navigates: boolean;
  signature(media: string, region: Rect): Promise<Uint8Array>;
}

/** Compares running text that was read back with what the document asks for, subject by subject. */
export async function compareFlow(expected: ExpectedFlow, observed: ObservedFlow, context: FlowCompareContext): Promise<Evidence[]> {
  const found = new Findings();
  const { id } = context.folio.head;
  found.say('document', id, 'title', observed.title === expected.title || !expected.title, `title “${observed.title}”`);
  found.say(
    'document',
    id,
    'language',
    observed.language.toLowerCase() === expected.language.toLowerCase(),
    `language ${observed.language || 'not set'}`,
  );
  if (context.navigates) compareOutline(expected, observed, found, id);
  const { places, moved } = compareBlocks(expected, observed, found);
  const base = baseOf(expected, observed, places);
  if (context.styled)
    compareLooks(expected, observed, places, { base, embeds: context.embeds, ownInk: context.telling?.ownInk ?? false }, found);
  compareNotes(expected, observed, found);
  compareTables(expected, observed, context.styled ? base : null, found);
  const strays = await compareFigures(expected, observed, places, context, found);
  moved.push(...strays);
  compareFonts(observed, context, found);
  const problem = observed.problems[0];
  const says = problem
    ? `${problem.file}: ${problem.says}`
    : moved[0]
      ? `“${short(moved[0])}” is read elsewhere`
      : 'everything is read in the order of the reading path';
  found.say('document', id, 'order', !problem && !moved.length, says);
  compareAbsent(expected, observed, found);
  return found.list;
}

function compareOutline(expected: ExpectedFlow, observed: ObservedFlow, found: Findings, id: string): void {
  const [want, have] = [expected.outline.map(dense).filter(Boolean), observed.outline.map((o) => dense(o.text))];
  const lost = observed.outline.find((o) => !o.found) ?? observed.pages.find((p) => !p.found);
  // Without a heading the beginning of the text stands for all.
  const agrees = !lost && (want.length ? want.length === have.length && want.every((t, i) => t === have[i]) : have.length === 1);
  found.say(
    'document',
    id,
    'outline',
    agrees,
    lost ? 'an entry leads to nothing' : `${have.length} entries${agrees ? '' : ` where ${want.length} should be`}`,
  );
}

/** Pairs all blocks in their order; gives where each expected one was found, and the texts that are out of order. */
function compareBlocks(expected: ExpectedFlow, observed: ObservedFlow, found: Findings): { places: (number | null)[]; moved: string[] } {
  const want = expected.blocks.map((b) => dense(b.text));
  const have = observed.blocks.map((b) => dense(b.text));
  const places: (number | null)[] = expected.blocks.map(() => null);
  const moved: string[] = [];
  const extra: number[] = [];
  const worth = (i: number, j: number): number => worthOfCost(unlikeness(want[i]!, have[j]!));
  for (const pair of alignedPairs({ lengths: [want.length, have.length], keys: [want, have], worth })) {
    if (pair.expected === null) extra.push(pair.observed!);
    else places[pair.expected] = pair.observed;
  }
  const there = new Set(have);
  places.forEach((at, i) => {
    const block = expected.blocks[i]!;
    if (at !== null) return comparePair(block, observed.blocks[at]!, found);
    const elsewhere = there.has(want[i]!);
    if (elsewhere) moved.push(block.text);
    found.say('paragraph', block.paragraph, 'text', false, elsewhere ? 'it is read in another place' : 'it is not there');
  });
  for (const i of extra) {
    const twin = want.indexOf(have[i]!);
    if (twin >= 0 && places[twin] !== null)
      found.say('paragraph', expected.blocks[twin]!.paragraph, 'text', false, 'it stands there twice');
    else if (twin < 0) moved.push(observed.blocks[i]!.text);
  }
  return { places, moved };
}

function comparePair(block: ExpectedFlowBlock, seen: ObservedFlowBlock, found: Findings): void {
  const id = block.paragraph;
  const same = dense(block.text) === dense(seen.text);
  const counted = dense(block.label ?? seen.label ?? '') === dense(seen.label ?? '') || block.label === undefined;
  const says = counted ? short(seen.text.trim()) : `${seen.label ?? 'no number'}, not ${block.label}`;
  found.say('paragraph', id, 'text', same && counted, same && counted ? `“${says}”` : counted ? `reads “${says}”` : says);
  const right = seen.element === block.element && (block.within === null || seen.within.includes(block.within));
  const is = block.within === null ? seen.element : `${seen.element} in ${seen.within.slice(-2).join(' ')}`;
  found.say(
    'paragraph',
    id,
    'role',
    right,
    right ? `is ${is}` : `is ${is}, not ${block.element}${block.within === null ? '' : ` in ${block.within}`}`,
  );
  const spoken = (language: string, there: string): string | null =>
    language.toLowerCase() === there.toLowerCase() ? null : `language ${there}`;
  // Of all of it, and of words in it (WCAG 2.2, 3.1.1 and 3.1.2).
  const another = spoken(block.language, seen.language) ?? wrongWords(block, seen, (w, s) => spoken(w.language, s.language));
  found.say('paragraph', id, 'language', another === null, another ?? `language ${seen.language}`);
  for (const link of block.links) {
    const there = seen.links.filter((l) => dense(link.text).includes(dense(l.text)) && l.text.trim());
    const agrees =
      there.length > 0 && there.every((l) => (link.address === null ? !/^[a-z][a-z0-9+.-]*:/i.test(l.href) : l.href === link.address));
    found.say('link', `${id}/${link.id}`, 'target', agrees, there[0] ? `leads to ${there[0].href}` : 'no link');
  }
  for (const r of block.readings) {
    const agrees = seen.readings.some((s) => s.base === r.base && s.reading === r.reading);
    found.say('ruby', r.id, 'reading', agrees, agrees ? `${r.base} is read ${r.reading}` : 'its reading is not there');
  }
}

function compareNotes(expected: ExpectedFlow, observed: ObservedFlow, found: Findings): void {
  const have = observed.notes.map((n) => ({ ...n, dense: dense(n.text) }));
  for (const note of expected.notes) {
    const there = have.find((n) => n.dense.includes(dense(note.text)));
    found.say(
      'note',
      note.id,
      'text',
      there !== undefined && there.back,
      there ? `note ${there.number}${there.back ? '' : ', without a way back'}` : 'it is not there',
    );
  }
}

/** `base`: points in an em; null where there are no styles to compare. */
function compareTables(expected: ExpectedFlow, observed: ObservedFlow, base: number | null, found: Findings): void {
  const whole = observed.tables.length === expected.tables.length;
  expected.tables.forEach((table, n) => {
    const seen = whole
      ? observed.tables[n]!
      : observed.tables.find(
          (t) =>
            dense(
              t
                .flat()
                .map((c) => c.text)
                .join(''),
            ) ===
            dense(
              table.rows
                .flat()
                .map((c) => c.text)
                .join(''),
            ),
        );
    found.say(
      'table',
      table.id,
      'structure',
      seen?.length === table.rows.length,
      seen ? `a table of ${seen.length} rows` : 'it is no table',
    );
    table.rows.forEach((row, r) =>
      row.forEach((cell, c) => {
        const at = seen?.[r]?.[c];
        const there =
          at !== undefined &&
          dense(at.text) === dense(cell.text) &&
          at.heading === cell.heading &&
          at.rows === cell.rows &&
          at.columns === cell.columns;
        const wrong = there && base !== null ? wrongCell(cell, at, base) : null;
        const is = at ? `${at.heading ? 'heading' : 'cell'} “${short(at.text)}”` : 'it is not there';
        found.say('cell', cell.cell, 'place', there && wrong === null, wrong === null ? is : `${is}: ${wrong}`);
      }),
    );
  });
}

const pictureCalled = (alt: string): string => `a picture: ${alt || 'without alt text'}`;

/** Compares pictures; gives those that are there and should not be, or that stand elsewhere. */
async function compareFigures(
  expected: ExpectedFlow,
  observed: ObservedFlow,
  places: readonly (number | null)[],
  context: FlowCompareContext,
  found: Findings,
): Promise<string[]> {
  const strays: string[] = [];
  const keys = [expected.figures.map((f) => f.alt), observed.figures.map((f) => f.alt)] as const;
  const lengths = [expected.figures.length, observed.figures.length] as const;
  for (const pair of alignedPairs({ lengths, keys, worth: (i, j) => worthOfCost(keys[0][i] === keys[1][j] ? 0 : 0.5) })) {
    if (pair.expected === null) {
      strays.push(pictureCalled(observed.figures[pair.observed!]!.alt));
      continue;
    }
    const { item, alt, media, region, plays, after, pin } = expected.figures[pair.expected]!;
    const seen = pair.observed === null ? undefined : observed.figures[pair.observed];
    const aspect = item.kind === 'picture' ? 'picture' : item.kind === 'media' ? 'media' : 'place';
    if (!seen) {
      found.say('item', item.id, aspect, false, 'it is not there');
      if (pin) found.say('pin', pin, 'place', false, 'it is not there');
      continue;
    }
    found.say('item', item.id, 'alt', seen.alt === alt, seen.alt ? `alt text “${short(seen.alt)}”` : 'no alt text');
    const right =
      plays !== null
        ? seen.plays === plays
        : seen.picture !== undefined && (!media || samePicture(await context.signature(media, region), seen.picture));
    found.say(
      'item',
      item.id,
      aspect,
      right,
      plays !== null
        ? `${seen.plays ?? 0} bytes are played`
        : !seen.picture
          ? 'no picture can be read'
          : right
            ? 'the picture is there'
            : 'another picture is there',
    );
    // A pinned thing stands between the same two paragraphs, whatever else is missing.
    const between = places.every((at, i) => at === null || at < seen.after === i < after);
    if (pin) found.say('pin', pin, 'place', between, between ? 'it stands at its words' : 'it stands at other words');
    else if (!between) strays.push(pictureCalled(alt));
  }
  return strays;
}

function compareFonts(
  observed: ObservedFlow,
  { folio, fonts, embeds, carries = embeds, telling = MARKUP }: FlowCompareContext,
  found: Findings,
): void {
  for (const font of Object.values(folio.head.fonts)) {
    const face = fonts.faceOf(font);
    if (!face || !carries) continue;
    const { family, weight, style } = telling.face(face);
    const there = observed.embedded.some((e) => e.family === family && e.weight === String(weight) && e.style === style);
    const may = telling.carries(face);
    // A font that no text of the result uses is rightly not there.
    if (there || !may) found.say('font', font.id, 'embedding', there === may, there ? 'embedded' : 'not embedded');
  }
}

/** What was left out must not be found. Short texts could stand elsewhere by chance and prove nothing. */
function compareAbsent(expected: ExpectedFlow, observed: ObservedFlow, found: Findings): void {
  const everything = observed.blocks.map((b) => dense(b.text)).join('\n');
  const wanted = expected.blocks.map((b) => dense(b.text)).join('\n');
  for (const { paragraph, text } of expected.absent) {
    const d = dense(text);
    if (d.length < 12 || wanted.includes(d)) continue;
    const there = everything.includes(d);
    found.say('paragraph', paragraph, 'text', !there, there ? 'it is in the result all the same' : 'not in the result');
  }
}
