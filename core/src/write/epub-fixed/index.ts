import { compareBookPages } from '../../ledger/book/compareBookPages.ts';
import { problemsAsEvidence, validateEpub } from '../../ledger/book/validateEpub.ts';
import { printedNumber } from '../../folio/traverse.ts';
import { FolioError } from '../../ports/ports.ts';
import { BOOK_SOUND_SENTENCES, bookJob, forBooks, planBookSounds } from '../book/bookSounds.ts';
import { FIXED_PAGE_SENTENCES, planFixedPage } from '../pages/planFixedPage.ts';
import { htmlPageWriter, HTML_PAGES } from '../pages/pageFormat.ts';
import { readBackPages } from '../pages/readBackPages.ts';
import { scopeOf } from '../scope.ts';
import type { Writer } from '../writer.ts';
import { FixedEpubSettings } from './settings.ts';
import { writeFixedEpub } from './writeFixedEpub.ts';

const FIXED_EPUB_SENTENCES = { ...FIXED_PAGE_SENTENCES, ...BOOK_SOUND_SENTENCES };

export const fixedEpubWriter: Writer<FixedEpubSettings, keyof typeof FIXED_EPUB_SENTENCES> = {
  id: 'epub-fixed',
  label: 'E-book of fixed pages',
  about: 'Every page as designed, in one book file (EPUB 3.3), with live text, facing pages and a table of contents.',
  version: 1,
  view: 'pages',
  entry: 'book.epub',
  settings: FixedEpubSettings,
  migrate: (old) => FixedEpubSettings.parse(old),
  write: writeFixedEpub,
  plan: (job) => {
    const folio = forBooks(job.folio);
    const scope = scopeOf(folio, job.composition, job.settings);
    return planBookSounds(job.folio, planFixedPage(folio, job.composition, job.fonts, scope, htmlPageWriter('book')));
  },
  async *readBack(files, asked) {
    const job = await bookJob(asked);
    const file = files.find((f) => f.path === 'book.epub');
    if (!file) throw new FolioError('readBack.missing', 'The result has no book.', 'Run it again.');
    const bytes = await file.bytes();
    const { observeFixedEpub } = await import('../../ledger/book/observeFixedEpub.ts');
    const book = await observeFixedEpub(bytes, job.pictures);
    const { pages } = scopeOf(job.folio, job.composition, job.settings);
    yield* readBackPages(job, book, HTML_PAGES, (headings) => {
      const listed = headings.filter((h) => h.listed !== null && h.level <= job.settings.depth);
      // A book must have contents: without headings, its pages are listed.
      return listed.length ? listed : pages.map((p) => ({ level: 1, own: '', listed: printedNumber(p) }));
    });
    yield* compareBookPages(job.folio, pages, book, job.settings.pageList);
    yield* problemsAsEvidence(
      job.folio,
      await validateEpub(bytes, new Set(Object.values(job.folio.stories).flatMap((s) => Object.keys(s.blocks)))),
    );
  },
  sentences: FIXED_EPUB_SENTENCES,
};
