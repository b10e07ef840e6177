import { FolioError } from '../../ports/ports.ts';
import type { Writer } from '../writer.ts';
import { planOdp, ODP_SENTENCES } from './planOdp.ts';
import { readBackOdp } from './readBackOdp.ts';
import { OdpSettings } from './settings.ts';
import { promptedJob, withPrompts } from '../office/promptedJob.ts';
import { withWhiteGrounds } from '../office/whiteGrounds.ts';
import { fileName, writeOdp } from './writeOdp.ts';
import type { OdpCode } from './planOdp.ts';

export const odpWriter: Writer<OdpSettings, OdpCode> = {
  id: 'odp',
  label: 'Open slides',
  about: 'The same for programs of the open standard: styles by their names, text live, forms to fill in (ODP).',
  version: 1,
  view: 'boxes',
  entry: 'document.odp',
  comesBack: true,
  settings: OdpSettings,
  migrate: (old) => OdpSettings.parse(old),
  write: (job) => writeOdp(promptedJob(job)),
  plan: async (job) => withWhiteGrounds(job, withPrompts(job, await planOdp(job))),
  async *readBack(files, whole) {
    const job = promptedJob(whole);
    const file = files.find((f) => f.path === fileName(job.settings));
    if (!file) throw new FolioError('readBack.missing', 'The result has no slides.', 'Run it again.');
    yield* await readBackOdp(file, files, job);
  },
  async redraw(files, page, faces, pictures) {
    const file = files.find((f) => /^document\.o[dt]p$/.test(f.path));
    if (!file) throw new FolioError('readBack.missing', 'The result has no slides.', 'Run it again.');
    const beside = async (path: string): Promise<Uint8Array | undefined> => files.find((f) => f.path === path)?.bytes();
    const { redrawOdp } = await import('../../preview/opendocument/redrawOdf.ts');
    return redrawOdp(await file.bytes(), page, { beside, faces, sizeOf: (bytes) => pictures.info(bytes) });
  },
  sentences: ODP_SENTENCES,
};
