import { compareFlow } from '../../ledger/flow/compareFlow.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { problemsAsEvidence, validateEpub } from '../../ledger/book/validateEpub.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { FolioError } from '../../ports/ports.ts';
import { BOOK_SOUND_SENTENCES, bookJob, forBooks, planBookSounds } from '../book/bookSounds.ts';
import { FLOW_SENTENCES, planFlow } from '../reflow/planFlow.ts';
import { scopeOf } from '../scope.ts';
import type { Writer } from '../writer.ts';
import { EpubSettings } from './settings.ts';
import { writeEpub } from './writeEpub.ts';

const EPUB_SENTENCES = { ...FLOW_SENTENCES, ...BOOK_SOUND_SENTENCES };

export const epubWriter: Writer<EpubSettings, keyof typeof EPUB_SENTENCES> = {
  id: 'epub',
  label: 'E-book',
  about: 'Text that fits itself to any device and size (EPUB 3.3), with headings, notes and pictures at their words.',
  version: 1,
  view: 'flow',
  entry: 'book.epub',
  settings: EpubSettings,
  migrate: (old) => EpubSettings.parse(old),
  write: writeEpub,
  plan: ({ folio: asked, composition, fonts, settings }) => {
    const folio = forBooks(asked);
    const plan = planFlow(folio, composition, fonts, scopeOf(folio, composition, settings), {
      embedsFonts: settings.fonts !== 'reader',
      marksPages: settings.pageList,
    });
    return planBookSounds(asked, plan);
  },
  async *readBack(files, asked) {
    const job = await bookJob(asked);
    const book = files.find((f) => f.path === 'book.epub');
    if (!book) throw new FolioError('readBack.missing', 'The result has no book.', 'Run it again.');
    const { folio, composition, fonts, settings } = job;
    const bytes = await book.bytes();
    const expected = expectFlow(folio, composition, fonts, scopeOf(folio, composition, settings), settings);
    const { observeEpub } = await import('../../ledger/flow/observeEpub.ts');
    const observed = await observeEpub(bytes, job.pictures);
    yield* await compareFlow(expected, observed, {
      folio,
      fonts,
      embeds: settings.fonts !== 'reader',
      styled: true,
      navigates: true,
      signature: async (media, region) => job.pictures.signature(await job.media(media), SIGNATURE_CELLS, region),
    });
    yield* problemsAsEvidence(folio, await validateEpub(bytes, new Set(expected.blocks.map((b) => b.paragraph))));
  },
  sentences: EPUB_SENTENCES,
};
