import { comparePlaces } from '../../ledger/compare.ts';
import type { Evidence } from '../../ledger/entry.ts';
import { expectDocument } from '../../ledger/expected.ts';
import { Findings } from '../../ledger/findings.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { openBoxes } from '../../ledger/flow/telling.ts';
import { observeLaidOdt } from '../../ledger/odf/observeLaidOdt.ts';
import { headedByRows } from '../../ledger/odf/observeOdt.ts';
import { compareBoxes, wordsInBoxes } from '../../ledger/office/expectBoxes.ts';
import { compareBoxedWords, PLACED, signatureIn, toldOtherwise } from '../office/placedBack.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { OPEN_DOCUMENT } from '../office/placedFormat.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob, WrittenFile } from '../writer.ts';
import { chainsOf } from './laidOut.ts';
import type { OdtSettings } from './settings.ts';

/** Reads a text document of pages back: its words against those of its boxes, and everything on its pages in its place. */
export async function readBackLaidOdt(file: WrittenFile, files: readonly WrittenFile[], job: WriteJob<OdtSettings>): Promise<Evidence[]> {
  const { folio, composition, fonts, settings } = job;
  const scope = scopeOf(folio, composition, settings, true);
  const chains = chainsOf(job, scope);
  const observed = await observeLaidOdt(await file.bytes(), {
    pictures: job.pictures,
    beside: async (path) => files.find((f) => f.path === path)?.bytes(),
  });
  const asked = { ...settings, depth: 6 };
  const telling = openBoxes(replacementsOf(settings));
  const expected = expectFlow(folio, composition, fonts, scope, asked, telling, wordsInBoxes(folio, scope.pages, chains));
  // Pictures are told by their places.
  expected.figures = [];
  observed.flow.figures = [];
  const signature = signatureIn(job);
  const words = await compareBoxedWords(job, headedByRows(expected, folio), observed.flow, telling);
  const found = new Findings();
  const left = toldOtherwise(scope.pages, settings, OPEN_DOCUMENT);
  const pages = expectDocument(folio, composition, scope, settings).pages.map((p) => ({
    ...p,
    blocks: settings.pictures === 'none' ? [] : p.blocks,
  }));
  await comparePlaces(pages, observed.pages, { folio, format: PLACED, signature }, found, left);
  compareBoxes(scope.pages, chains, observed.pages, found);
  return [...words, ...found.list];
}
