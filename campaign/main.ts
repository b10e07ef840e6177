import { mkdtemp, rm } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { runningServer } from '../bench/runningServer.ts';
import { campaign } from './campaign.ts';
import { inputs } from './inputs.ts';

// npm run campaign -- --minutes N --seed S: broken and hostile files of every kind against the application, on this machine alone.
const { values } = parseArgs({ options: { minutes: { type: 'string', default: '5' }, seed: { type: 'string', default: '1' } } });
const [minutes, seed] = [Number(values.minutes), Number(values.seed)];
if (!(minutes > 0) || !Number.isInteger(seed)) throw new Error('Say how long and with which numbers: --minutes 5 --seed 1');

const folder = await mkdtemp(join(tmpdir(), 'folio-campaign-'));
const server = await runningServer(4830);
try {
  const shelf = (await (await fetch(`${server.origin}/api/folios`)).json()) as { id: string; title: string }[];
  const document = shelf.find((d) => d.title === 'Open Dome Night')!.id;
  const end = Date.now() + minutes * 60_000;
  const keep = 'test-results/campaign';
  const report = await campaign({ port: 4830, document }, await inputs(folder), { seed, going: () => Date.now() < end, keep });
  console.table(report.kinds);
  console.log(`${report.rounds} files, ${report.faults.length} faults, seed ${seed}, ${availableParallelism()} processors`);
  for (const f of report.faults) console.log(`round ${f.round}, ${f.kind}: ${f.what}`);
  process.exitCode = report.faults.length ? 1 : 0;
} finally {
  await server.stop();
  await rm(folder, { recursive: true, force: true });
}
