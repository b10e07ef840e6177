import { fieldsAsSet } from '../../compose/fields.ts';
import { fieldText } from '../../compose/fieldText.ts';
import { noteNumbers } from '../../compose/notes.ts';
import { comparePlaces } from '../../ledger/compare.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import type { ExpectedPage } from '../../ledger/expected.ts';
import { Findings, short } from '../../ledger/findings.ts';
import { dense } from '../../ledger/flow/dense.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { slides } from '../../ledger/flow/telling.ts';
import { comparePlacedBoxes } from '../../ledger/office/expectBoxes.ts';
import { asOnSlides, boxesOnPage, wordsOnSlides } from '../../ledger/office/expectSlides.ts';
import { observeSlides } from '../../ledger/office/observeSlides.ts';
import type { ObservedDeck } from '../../ledger/office/observeSlides.ts';
import { comesAs } from '../../ledger/office/slideMotion.ts';
import { pagesAt } from '../../folio/joinedSpreads.ts';
import { readText } from '../../folio/text.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { textPieces } from '../../structure/textPieces.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { compareBoxedWords, PLACED, signatureIn, toldOtherwise } from '../office/placedBack.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob, WrittenFile } from '../writer.ts';
import { effectsOnPage } from './cueEffects.ts';
import { offsetOf } from './deck.ts';
import type { Deck } from './deck.ts';
import { withoutPlaces } from './placeholders.ts';
import type { PptxSettings } from './settings.ts';

/** Reads a deck of slides back: its words against those of its boxes, everything on its slides in its place, how they come and move. */
export async function readBackDeck(
  deck: Deck,
  file: WrittenFile,
  files: readonly WrittenFile[],
  job: WriteJob<PptxSettings>,
  whole: Scope,
): Promise<Evidence[]> {
  const { folio, composition, fonts, settings } = job;
  const scope = { ...whole, pages: [...deck.pages] };
  const all = textPieces(folio, composition, scope);
  const pieces = promptsIn(job) ? withoutPlaces(folio, scope.pages, all) : all;
  const observed = await observeSlides(await file.bytes(), {
    pictures: job.pictures,
    beside: async (path) => files.find((f) => f.path === path)?.bytes(),
  });
  const telling = slides(replacementsOf(settings));
  const wanted = expectFlow(folio, composition, fonts, scope, { ...settings, depth: 6 }, telling, wordsOnSlides(folio, deck.pages, pieces));
  const signature = signatureIn(job);
  const words = await compareBoxedWords(job, asOnSlides(wanted, folio), observed.flow, telling);
  const found = new Findings();
  const left = toldOtherwise(scope.pages, settings, DRAWINGML);
  const pages = expectDocument(folio, composition, { ...whole, pages: scope.pages }, settings).pages.map((p) => onSlide(p, deck, settings));
  await comparePlaces(pages, observed.pages, { folio, format: PLACED, signature }, found, left);
  deck.pages.forEach((place, i) => {
    const { dx, dy } = offsetOf(deck, place.page);
    const boxes = boxesOnPage(place, pieces, telling.columns).map(({ item, box }) => ({
      item,
      box: { ...box, x: box.x + dx, y: box.y + dy },
    }));
    comparePlacedBoxes(boxes, observed.pages[i]?.boxes ?? [], found);
    // What a slide shows beside its first page is there with it.
    for (const { id } of pagesAt(place).slice(1)) found.say('page', id, 'size', !!observed.pages[i], 'on the slide of its spread');
    compareSlideMotion(place, i, observed, job, whole.shown, found);
  });
  return [...words, ...found.list];
}

/** What a page should give back, where it lies on its slide. */
function onSlide(p: ExpectedPage, deck: Deck, settings: PptxSettings): ExpectedPage {
  const { dx, dy } = offsetOf(deck, p.page);
  const moved = <T extends { box: ExpectedPage['page']['box'] }>(list: readonly T[]): T[] =>
    list.map((x) => ({ ...x, box: { ...x.box, x: x.box.x + dx, y: x.box.y + dy } }));
  return {
    ...p,
    page: { ...p.page, box: { ...p.page.box, ...deck.size } },
    blocks: settings.pictures === 'none' ? [] : p.blocks,
    pictures: moved(p.pictures),
    shapes: moved(p.shapes),
    areas: moved(p.areas),
  };
}

function compareSlideMotion(
  place: PagePlace,
  at: number,
  { motion, notes }: ObservedDeck,
  { folio, composition, settings }: WriteJob<PptxSettings>,
  shown: (item: PagePlace['spread']['items'][string]) => boolean,
  found: Findings,
): void {
  const seen = motion[at];
  if (!seen) return;
  const { spread, page } = place;
  if (page.transition && settings.transitions) {
    const right = comesAs(page.transition, seen);
    found.say(
      'page',
      page.id,
      'transition',
      right,
      seen.transition ? `comes by ${seen.transition.kind}, ${seen.transition.speed}` : 'just stands there',
    );
  }
  if (page.advanceAfter !== undefined && settings.transitions) {
    const right = seen.advance !== null && Math.abs(seen.advance - page.advanceAfter) < 0.01;
    found.say('page', page.id, 'advance', right, seen.advance === null ? 'stays' : `goes on after ${seen.advance} s`);
  }
  const told = dense(notes[at] ?? '');
  for (const { id, notes: own } of pagesAt(place)) {
    const story = own === undefined ? undefined : folio.stories[own];
    if (!story || !settings.notes) continue;
    const { numbers } = noteNumbers(story, story.order);
    const fields = { labelOf: () => undefined, ...fieldsAsSet(folio, composition) };
    const text = story.order.flatMap((block) => {
      const b = story.blocks[block];
      if (b?.kind !== 'paragraph') return [];
      return b.content.map((n) => {
        if (n.type === 'field') return fieldText(folio, n, { ...fields, page: id });
        return n.type === 'note' ? (numbers.get(n.id) ?? '') : readText({ ...b, content: [n] });
      });
    });
    const wanted = dense(text.join(''));
    const right = place.joins ? told.includes(wanted) : told === wanted;
    found.say('page', id, 'notes', right, told ? `“${short(notes[at]!)}”` : 'no notes');
  }
  if (settings.animations) {
    const cues = effectsOnPage(folio, spread, page, shown);
    const wanted = cues.reduce((sum, c) => sum + c.effects.length, 0);
    for (const { cue } of cues)
      found.say('cue', cue, 'motion', seen.effects >= wanted, `${seen.effects} effects where ${wanted} are asked for`);
  }
}
