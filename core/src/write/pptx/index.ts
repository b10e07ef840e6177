import { FolioError } from '../../ports/ports.ts';
import { slideScope } from '../office/slideScope.ts';
import type { Writer } from '../writer.ts';
import { decksOf } from './deck.ts';
import { planPptx, PPTX_SENTENCES } from './planPptx.ts';
import { readBackDeck } from './readBackDeck.ts';
import { PptxSettings } from './settings.ts';
import { promptedJob, withPrompts } from '../office/promptedJob.ts';
import { withWhiteGrounds } from '../office/whiteGrounds.ts';
import { writePptx } from './writePptx.ts';
import type { PptxCode } from './planPptx.ts';

export const pptxWriter: Writer<PptxSettings, PptxCode> = {
  id: 'pptx',
  label: 'Slides',
  about: 'A deck for those who present: every page a slide, its text live, its tables tables (PPTX).',
  version: 1,
  view: 'boxes',
  entry: 'document.pptx',
  settings: PptxSettings,
  migrate: (old) => PptxSettings.parse(old),
  comesBack: true,
  write: (job) => writePptx(promptedJob(job)),
  plan: (job) => withWhiteGrounds(job, withPrompts(job, planPptx(job))),
  async *readBack(files, whole) {
    const job = promptedJob(whole);
    const { settings } = job;
    const scope = slideScope(job);
    for (const deck of decksOf(scope.pages, settings)) {
      const file = files.find((f) => f.path === deck.path);
      if (!file) throw new FolioError('readBack.missing', 'The result has no slides.', 'Run it again.');
      yield* await readBackDeck(deck, file, files, job, scope);
    }
  },
  async redraw(files, page, faces) {
    const decks = files.filter((f) => /^document[^/]*\.po?[pt]tx$/.test(f.path));
    if (!decks.length) throw new FolioError('readBack.missing', 'The result has no slides.', 'Run it again.');
    const beside = async (path: string): Promise<Uint8Array | undefined> => files.find((f) => f.path === path)?.bytes();
    const installed = faces.map(({ familyOfFour, bytes }) => ({ ...familyOfFour, bytes }));
    const { redrawSlide } = await import('../../preview/ooxml/redrawSlide.ts');
    return redrawSlide(await Promise.all(decks.map((d) => d.bytes())), beside, page, installed);
  },
  sentences: PPTX_SENTENCES,
};
