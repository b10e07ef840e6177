import { FolioError } from '../../ports/ports.ts';
import type { Writer } from '../writer.ts';
import { judgeOdp, ODP_SENTENCES } from './judgeOdp.ts';
import { readBackOdp } from './readBackOdp.ts';
import { OdpSettings } from './settings.ts';
import { promptedJob, withPrompts } from '../shared/office/promptedJob.ts';
import { withWhiteGrounds } from '../shared/office/whiteGrounds.ts';
import { fileName, writeOdp } from './writeOdp.ts';

export const odpWriter: Writer<OdpSettings> = {
  id: 'odp',
  label: 'Open slides',
  about: 'The same for programs of the open standard: styles by their names, text live, forms to fill in (ODP).',
  version: 1,
  view: 'none',
  entry: 'document.odp',
  settings: OdpSettings,
  migrate: (old) => OdpSettings.parse(old),
  write: (job) => writeOdp(promptedJob(job)),
  judge: (job) => withWhiteGrounds(job, withPrompts(job, judgeOdp(job))),
  async *readBack(files, whole) {
    const job = promptedJob(whole);
    const file = files.find((f) => f.path === fileName(job.settings));
    if (!file) throw new FolioError('readBack.missing', 'The result has no slides.', 'Run it again.');
    yield* await readBackOdp(file, files, job);
  },
  sentences: ODP_SENTENCES,
};
