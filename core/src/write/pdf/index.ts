import { observePdf } from '../../ledger/pdf/observePdf.ts';
import type { Format } from '../../ledger/compare.ts';
import { FolioError } from '../../ports/ports.ts';
import { FIXED_PAGE_SENTENCES, judgeFixedPage } from '../shared/judgeFixedPage.ts';
import { readBackPages } from '../shared/readBackPages.ts';
import { scopeOf } from '../shared/scope.ts';
import type { Writer } from '../writer.ts';
import { PdfSettings } from './settings.ts';
import { writePdf } from './writePdf.ts';

const PLAIN = new Set(['pre', 'div', 'th', 'td']);
const format: Format = {
  roleFor: (element) => (PLAIN.has(element) ? 'p' : element),
  joinsParts: true,
  baselineTolerance: 0,
  linksCues: false,
};

export const pdfWriter: Writer<PdfSettings> = {
  id: 'pdf',
  label: 'PDF',
  about: 'Pages exactly as designed, tagged for reading aloud, with bookmarks and links.',
  version: 1,
  view: 'pages',
  entry: 'document.pdf',
  settings: PdfSettings,
  migrate: (old) => PdfSettings.parse(old),
  write: writePdf,
  judge: (job) => {
    const judge = judgeFixedPage(job.folio, job.composition, job.fonts, scopeOf(job.folio, job.composition, job.settings), {
      keepsColourSpaces: true,
      hasEffects: false,
      groupsMustBeReadTogether: false,
      linksCues: false,
    });
    return (about) =>
      about.subject.kind === 'document' && about.subject.aspect === 'outline' && !job.settings.bookmarks
        ? { outcome: 'excluded', code: 'outline.off' }
        : judge(about);
  },
  async *readBack(files, job) {
    const file = files.find((f) => f.path === 'document.pdf');
    if (!file) throw new FolioError('readBack.missing', 'The result has no PDF.', 'Run it again.');
    yield* readBackPages(job, await observePdf(await file.bytes(), job.pictures), format, (all) => (job.settings.bookmarks ? all : []));
  },
  sentences: { ...FIXED_PAGE_SENTENCES, 'outline.off': 'Bookmarks are switched off in the recipe.' },
};
