import { comparePlaces } from '../../ledger/compare.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import { Findings } from '../../ledger/findings.ts';
import { dense } from '../../ledger/flow/dense.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { openSlides } from '../../ledger/flow/telling.ts';
import { headedByRows } from '../../ledger/odf/observeOdt.ts';
import { observeOdp } from '../../ledger/odf/observeOdp.ts';
import { samePages } from '../../ledger/odf/samePages.ts';
import { subjectsOf } from '../../ledger/subjects.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { comparePlacedBoxes } from '../../ledger/office/expectBoxes.ts';
import { boxesOnPage, wordsOnSlides } from '../../ledger/office/expectSlides.ts';
import { pagesAt } from '../../folio/joinedSpreads.ts';
import { textPieces } from '../../structure/textPieces.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { OPEN_DOCUMENT } from '../office/placedFormat.ts';
import { compareBoxedWords, PLACED, signatureIn, toldOtherwise } from '../office/placedBack.ts';
import { slideScope } from '../office/slideScope.ts';
import type { WriteJob, WrittenFile } from '../writer.ts';
import { isOnPages } from './planOdp.ts';
import { OriginalPages } from './originalPages.ts';
import type { OdpSettings } from './settings.ts';

/** Reads a presentation of OpenDocument back: its words against those of its boxes, everything on its slides in its place. */
export async function readBackOdp(file: WrittenFile, files: readonly WrittenFile[], job: WriteJob<OdpSettings>): Promise<Evidence[]> {
  const { folio, composition, fonts, settings } = job;
  const scope = slideScope(job);
  const pieces = textPieces(folio, composition, scope);
  const original = await OriginalPages.of(job, scope, null);
  const isOriginal = (place: PagePlace | undefined): boolean => !!place && (original?.has(place.page.id) ?? false);
  const anew = scope.pages.filter((p) => !isOriginal(p));
  const bytes = await file.bytes();
  const outside = { pictures: job.pictures, beside: async (path: string) => files.find((f) => f.path === path)?.bytes() };
  const observed = await observeOdp(bytes, outside, (slide) => isOriginal(scope.pages[slide]));
  const telling = openSlides(replacementsOf(settings));
  const wanted = expectFlow(folio, composition, fonts, scope, { ...settings, depth: 6 }, telling, wordsOnSlides(folio, anew, pieces));
  wanted.figures = [];
  const told = headedByRows(wanted, folio);
  const signature = signatureIn(job);
  const words = await compareBoxedWords(job, told, observed.flow, telling);
  const found = new Findings();
  if (original) await compareOriginals(job, original, scope.pages, bytes, found);
  const left = toldOtherwise(anew, settings, OPEN_DOCUMENT);
  const isAnew = (_: unknown, i: number): boolean => !isOriginal(scope.pages[i]);
  const pages = expectDocument(folio, composition, scope, settings)
    .pages.filter(isAnew)
    .map((p) => ({ ...p, blocks: settings.pictures === 'none' ? [] : p.blocks }));
  await comparePlaces(pages, observed.pages.filter(isAnew), { folio, format: PLACED, signature }, found, left);
  scope.pages.forEach((place, i) => {
    if (isOriginal(place)) return;
    for (const { id } of pagesAt(place).slice(1)) found.say('page', id, 'size', !!observed.pages[i], 'on the slide of its spread');
    comparePlacedBoxes(boxesOnPage(place, pieces), observed.pages[i]?.boxes ?? [], found);
    const { page } = place;
    const seen = observed.motion[i];
    if (page.transition && settings.transitions)
      found.say('page', page.id, 'transition', !!seen?.type, seen?.type ? `comes by ${seen.type}` : 'just stands there');
    if (page.advanceAfter !== undefined && settings.transitions)
      found.say(
        'page',
        page.id,
        'advance',
        seen?.advance === page.advanceAfter,
        seen?.advance ? `goes on after ${seen.advance} s` : 'stays',
      );
    for (const { id, notes: own } of pagesAt(place)) {
      const story = own === undefined ? undefined : folio.stories[own];
      if (!story || !settings.notes) continue;
      const spans = story.order.flatMap((id) => {
        const block = story.blocks[id];
        return block?.kind === 'paragraph' ? block.content.flatMap((n) => (n.type === 'span' ? [dense(n.text)] : [])) : [];
      });
      const right = spans.every((s) => dense(observed.notes[i] ?? '').includes(s));
      found.say('page', id, 'notes', right, right ? 'its notes are there' : 'its notes are others');
    }
  });
  return [...words, ...found.list];
}

/** Pages that go out as they came are held against those of the original, with all that they stand on. */
async function compareOriginals(
  { folio, origin }: WriteJob<OdpSettings>,
  original: OriginalPages,
  pages: readonly PagePlace[],
  result: Uint8Array,
  found: Findings,
): Promise<void> {
  const asked = pages.flatMap(({ page }, slide) =>
    original.has(page.id) ? [{ id: page.id, slide, path: original.paths.get(page.id)! }] : [],
  );
  const source = { bytes: await origin!.bytes(), isFlat: origin!.ending.startsWith('.f') };
  const same = await samePages(source, result, asked);
  const isSame = new Map(asked.map(({ id }, i) => [id, same[i]!]));
  for (const about of subjectsOf(folio)) {
    if (!isOnPages(about, (page) => original.has(page))) continue;
    const { kind, id, aspect } = about.subject;
    const agrees = about.pages.every((page) => isSame.get(page) ?? false);
    found.say(kind, id, aspect, agrees, agrees ? 'its page is that of the original' : 'its page is not that of the original');
  }
}
