import { compareFlow } from '../../ledger/flow/compareFlow.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { wordProcessor } from '../../ledger/flow/telling.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { FolioError } from '../../ports/ports.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { scopeOf } from '../scope.ts';
import type { Writer } from '../writer.ts';
import { DOCX_SENTENCES, planRunning } from './planDocx.ts';
import { planLaid, LAID_SENTENCES } from './planLaid.ts';
import { readBackLaid } from './readBackLaid.ts';
import { DocxSettings } from './settings.ts';
import { promptedJob, withPrompts } from '../office/promptedJob.ts';
import { withWhiteGrounds } from '../office/whiteGrounds.ts';
import { fileName, writeDocx } from './writeDocx.ts';

const SENTENCES = { ...DOCX_SENTENCES, ...LAID_SENTENCES };

export const docxWriter: Writer<DocxSettings, keyof typeof SENTENCES> = {
  id: 'docx',
  label: 'Text document',
  about: 'For colleagues who go on writing: as one text in its styles, or page by page as laid out (DOCX).',
  version: 1,
  view: 'flow',
  entry: 'document.docx',
  comesBack: true,
  settings: DocxSettings,
  migrate: (old) => DocxSettings.parse(old),
  write: (job) => writeDocx(promptedJob(job)),
  plan: (job) => withWhiteGrounds(job, withPrompts(job, job.settings.way === 'laid' ? planLaid(job) : planRunning(job))),
  async *readBack(files, whole) {
    const job = promptedJob(whole);
    const { folio, composition, fonts, settings } = job;
    const file = files.find((f) => f.path === fileName(settings));
    if (!file) throw new FolioError('readBack.missing', 'The result has no document.', 'Run it again.');
    if (settings.way === 'laid') return yield* await readBackLaid(file, files, job);
    const telling = wordProcessor(replacementsOf(settings), settings.initials === 'framed');
    const expected = expectFlow(folio, composition, fonts, scopeOf(folio, composition, settings), settings, telling);
    if (settings.pictures === 'none') expected.figures = [];
    const { observeDocx } = await import('../../ledger/office/observeDocx.ts');
    const observed = await observeDocx(await file.bytes(), {
      pictures: job.pictures,
      beside: async (path) => files.find((f) => f.path === path)?.bytes(),
    });
    yield* await compareFlow(expected, observed, {
      folio,
      fonts,
      embeds: true,
      carries: settings.fonts === 'embed',
      telling,
      styled: true,
      navigates: settings.contents && expected.outline.length > 0,
      signature: async (media, region) => job.pictures.signature(await job.media(media), SIGNATURE_CELLS, region),
    });
  },
  async redraw(files, page) {
    const file = files.find((f) => /^document\.do[ct]x$/.test(f.path));
    if (!file) throw new FolioError('readBack.missing', 'The result has no document.', 'Run it again.');
    const { redrawWord } = await import('../../preview/ooxml/redrawWord.ts');
    return redrawWord(await file.bytes(), async (path) => files.find((f) => f.path === path)?.bytes(), page);
  },
  sentences: SENTENCES,
};
