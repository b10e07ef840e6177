import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { wordBoxes } from '../../ledger/flow/telling.ts';
import { comparePlaces } from '../../ledger/compare.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import { Findings } from '../../ledger/findings.ts';
import { compareBoxes, wordsInBoxes } from '../../ledger/office/expectBoxes.ts';
import { observeLaidOut } from '../../ledger/office/observeLaidOut.ts';
import { boxChains } from '../../structure/textBoxes.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob, WrittenFile } from '../writer.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import { compareBoxedWords, PLACED, signatureIn, toldOtherwise } from '../office/placedBack.ts';
import { onPaper } from '../office/pageSetup.ts';
import type { DocxSettings } from './settings.ts';
import { MOST_BOXES } from './writeDocx.ts';

/** Reads a text document of pages back: its words against those of its boxes, and everything on its pages in its place. */
export async function readBackLaid(file: WrittenFile, files: readonly WrittenFile[], job: WriteJob<DocxSettings>): Promise<Evidence[]> {
  const { folio, composition, fonts, settings } = job;
  const scope = scopeOf(folio, composition, settings, true);
  const chains = boxChains(folio, composition, scope, { most: MOST_BOXES, linked: settings.linked === 'linked' });
  const observed = await observeLaidOut(await file.bytes(), {
    pictures: job.pictures,
    beside: async (path) => files.find((f) => f.path === path)?.bytes(),
  });
  const telling = wordBoxes(replacementsOf(settings));
  const asked = { ...settings, depth: 6 };
  const expected = expectFlow(folio, composition, fonts, scope, asked, telling, wordsInBoxes(folio, scope.pages, chains));
  // Pictures are told by their places.
  expected.figures = [];
  observed.flow.figures = [];
  const signature = signatureIn(job);
  const words = await compareBoxedWords(job, expected, observed.flow, telling, settings.fonts === 'embed');
  const found = new Findings();
  const left = toldOtherwise(scope.pages, settings, DRAWINGML);
  const pages = expectDocument(folio, composition, scope, settings).pages.map((p) => ({
    ...p,
    page: { ...p.page, box: { ...p.page.box, ...onPaper(p.page.box) } },
    blocks: settings.pictures === 'none' ? [] : p.blocks,
  }));
  await comparePlaces(pages, observed.pages, { folio, format: PLACED, signature }, found, left);
  compareBoxes(scope.pages, chains, observed.pages, found);
  return [...words, ...found.list];
}
