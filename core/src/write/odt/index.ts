import { compareFlow } from '../../ledger/flow/compareFlow.ts';
import { expectFlow } from '../../ledger/flow/expectFlow.ts';
import { openText } from '../../ledger/flow/telling.ts';
import { SIGNATURE_CELLS } from '../../ledger/findings.ts';
import { headedByRows, observeOdt } from '../../ledger/odf/observeOdt.ts';
import { FolioError } from '../../ports/ports.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { scopeOf } from '../scope.ts';
import type { Writer } from '../writer.ts';
import { planOdt, ODT_SENTENCES } from './planOdt.ts';
import { OdtSettings } from './settings.ts';
import { promptedJob, withPrompts } from '../office/promptedJob.ts';
import { withWhiteGrounds } from '../office/whiteGrounds.ts';
import { readBackLaidOdt } from './readBackLaidOdt.ts';
import { fileName, writeOdt } from './writeOdt.ts';
import type { OdtCode } from './planOdt.ts';

export const odtWriter: Writer<OdtSettings, OdtCode> = {
  id: 'odt',
  label: 'Open text document',
  about: 'For colleagues with programs of the open standard: as one text in its styles, or page by page as laid out (ODT).',
  version: 1,
  view: 'flow',
  entry: 'document.odt',
  settings: OdtSettings,
  migrate: (old) => OdtSettings.parse(old),
  comesBack: true,
  write: (job) => writeOdt(promptedJob(job)),
  plan: (job) => withWhiteGrounds(job, withPrompts(job, planOdt(job))),
  async *readBack(files, whole) {
    const job = promptedJob(whole);
    const { folio, composition, fonts, settings } = job;
    const file = files.find((f) => f.path === fileName(settings));
    if (!file) throw new FolioError('readBack.missing', 'The result has no document.', 'Run it again.');
    if (settings.way === 'laid') return yield* await readBackLaidOdt(file, files, job);
    const telling = openText(replacementsOf(settings));
    const expected = expectFlow(folio, composition, fonts, scopeOf(folio, composition, settings), settings, telling);
    if (settings.pictures === 'none') expected.figures = [];
    const observed = await observeOdt(await file.bytes(), {
      pictures: job.pictures,
      beside: async (path) => files.find((f) => f.path === path)?.bytes(),
    });
    yield* await compareFlow(headedByRows(expected, folio), observed, {
      folio,
      fonts,
      embeds: true,
      carries: false,
      telling,
      styled: true,
      navigates: settings.contents && expected.outline.length > 0,
      signature: async (media, region) => job.pictures.signature(await job.media(media), SIGNATURE_CELLS, region),
    });
  },
  async redraw(files, page, faces, pictures) {
    const file = files.find((f) => /^document\.o[dt]t$/.test(f.path));
    if (!file) throw new FolioError('readBack.missing', 'The result has no document.', 'Run it again.');
    const beside = async (path: string): Promise<Uint8Array | undefined> => files.find((f) => f.path === path)?.bytes();
    const { redrawOdt } = await import('../../preview/opendocument/redrawOdf.ts');
    return redrawOdt(await file.bytes(), page, { beside, faces, sizeOf: (bytes) => pictures.info(bytes) });
  },
  sentences: ODT_SENTENCES,
};
