import type { Format } from '../../ledger/format.ts';
import { FolioError } from '../../ports/ports.ts';
import { FIXED_PAGE_SENTENCES, planFixedPage } from '../pages/planFixedPage.ts';
import { readBackPages } from '../pages/readBackPages.ts';
import { adapted, kept } from '../treatments.ts';
import { scopeOf } from '../scope.ts';
import { byItems } from './byItems.ts';
import { treatPdfCue, PDF_CUE_SENTENCES } from './cueActions.ts';
import { joinStates } from './joinStates.ts';
import { PageStates } from './pageStates.ts';
import { reachFrom } from './pdfCues.ts';
import { hasDirection } from './transition.ts';
import type { Writer } from '../writer.ts';
import { PdfSettings } from './settings.ts';

const PLAIN = new Set(['pre', 'div', 'th', 'td']);
const format: Format = {
  roleFor: (element) => (PLAIN.has(element) ? 'p' : element),
  joinsParts: true,
  baselineTolerance: 0,
  linksCues: true,
  plays: false,
  acts: true,
};

const PDF_SENTENCES = {
  ...FIXED_PAGE_SENTENCES,
  ...PDF_CUE_SENTENCES,
  'outline.off': 'Bookmarks are switched off in the recipe.',
  'opening.cards': 'It opens page by page: pages of cards come in between, so that facing pages would not face one another.',
  'opening.loop': 'Page by page it stops at the last: a PDF has no word for beginning again.',
  'transition.direction': 'A PDF has fewer directions for this style: it is the nearest of them.',
};

export const pdfWriter: Writer<PdfSettings, keyof typeof PDF_SENTENCES> = {
  id: 'pdf',
  label: 'PDF',
  about: 'Pages exactly as designed, tagged for reading aloud, with bookmarks and links.',
  version: 1,
  view: 'pages',
  entry: 'document.pdf',
  settings: PdfSettings,
  migrate: (old) => PdfSettings.parse(old),
  async *write(job) {
    const { writePdf } = await import('./writePdf.ts');
    yield* writePdf(job);
  },
  plan: (job) => {
    const scope = scopeOf(job.folio, job.composition, job.settings, job.settings.cards === 'first');
    const plan = planFixedPage(job.folio, job.composition, job.fonts, scope, {
      keepsColourSpaces: true,
      hasEffects: false,
      groupsMustBeReadTogether: false,
      linksCues: true,
      motion: {
        plays: false,
        turnsPages: true,
        fields: true,
        still: {
          playsMedia: true,
          cards: `switcher.${job.settings.cards}`,
          treatCue: (cue, page) => treatPdfCue(job.folio, cue, reachFrom(job, scope, page)),
        },
      },
    });
    const hasMore = (): boolean => new PageStates(job.folio, scope, job.settings.cards).areMore;
    return (about) => {
      const { kind, aspect } = about.subject;
      if (kind === 'document' && aspect === 'outline' && !job.settings.bookmarks) return { outcome: 'excluded', code: 'outline.off' };
      if (kind === 'document' && aspect === 'opening') {
        const { opening } = job.folio.head;
        if (opening?.loop) return adapted('opening.loop');
        return opening?.view === 'spread' && hasMore() ? adapted('opening.cards') : kept;
      }
      const treatment = plan(about);
      if (kind !== 'page' || aspect !== 'transition' || treatment.outcome !== 'kept') return treatment;
      const { transition } = about.spread!.pages.find((p) => p.id === about.subject.id)!;
      return transition && !hasDirection(transition) ? adapted('transition.direction') : treatment;
    };
  },
  async *readBack(files, job) {
    const file = files.find((f) => f.path === 'document.pdf');
    if (!file) throw new FolioError('readBack.missing', 'The result has no PDF.', 'Run it again.');
    const { cards } = job.settings;
    const scope = scopeOf(job.folio, job.composition, job.settings);
    const { observePdf } = await import('../../ledger/pdf/observePdf.ts');
    const asWritten = await observePdf(await file.bytes(), job.pictures);
    const inPages = cards === 'pages' ? joinStates(asWritten, new PageStates(job.folio, scope, cards)) : asWritten;
    const observed = byItems(inPages, job.folio, scope.pages, cards);
    yield* readBackPages(job, observed, format, (all) => (job.settings.bookmarks ? all : []), job.settings.cards === 'first');
  },
  sentences: PDF_SENTENCES,
};
