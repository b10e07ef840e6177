import type { Rect } from '../folio/geometry.ts';
import { alignedPairs, worthOfCost } from '../alignment/alignSequences.ts';
import { pt, samePicture } from './findings.ts';
import type { Findings } from './findings.ts';
import type { ExpectedPage } from './expected.ts';
import type { ObservedCell, ObservedPage } from './observed.ts';
import { sameColour } from './compareBlocks.ts';
import { PLACE_TOLERANCE } from './format.ts';
import type { CompareContext } from './format.ts';
import { dense } from './foldedText.ts';

/** How far the farthest side of a box stands from the same of another, in points. */
export const boxDistance = (a: Rect, b: Rect): number =>
  Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y), Math.abs(a.x + a.width - b.x - b.width), Math.abs(a.y + a.height - b.y - b.height));

export async function comparePictures(page: ExpectedPage, seen: ObservedPage, context: CompareContext, found: Findings): Promise<void> {
  const tolerance = context.format.placeTolerance ?? PLACE_TOLERANCE;
  const signatures = await Promise.all(page.pictures.map((p) => context.signature(p.media)));
  const worth = (i: number, j: number): number =>
    worthOfCost(
      (boxDistance(page.pictures[i]!.box, seen.pictures[j]!.box) > tolerance ? 0.5 : 0) +
        (samePicture(signatures[i]!, seen.pictures[j]!.picture) ? 0 : 0.5),
    );
  for (const pair of alignedPairs({ lengths: [page.pictures.length, seen.pictures.length], worth })) {
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

export function compareShapes(page: ExpectedPage, seen: ObservedPage, tolerance: number, found: Findings): void {
  const worth = (i: number, j: number): number => {
    const [a, b] = [page.shapes[i]!, seen.shapes[j]!];
    return worthOfCost(
      (boxDistance(a.box, b.box) > tolerance + a.give ? 0.5 : 0) +
        (inked(a.fill, b.fill, a.exactColour) && inked(a.stroke, b.stroke, a.exactColour) ? 0 : 0.5),
    );
  };
  for (const pair of alignedPairs({ lengths: [page.shapes.length, seen.shapes.length], worth })) {
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
export function compareTables(page: ExpectedPage, seen: ObservedPage, found: Findings): void {
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

export function compareLoose(page: ExpectedPage, seen: ObservedPage, found: Findings): void {
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
export function compareAreas(page: ExpectedPage, seen: ObservedPage, tolerance: number, found: Findings): void {
  for (const { cue, box, target } of page.areas) {
    const here = seen.areas.filter((a) => boxDistance(a.box, box) <= tolerance);
    const right = here.some((a) => a.target === target);
    found.say('cue', cue, 'motion', right, here[0] ? `a link to ${here[0].target}` : 'is no link');
  }
}
