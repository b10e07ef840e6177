import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { runningServer } from '../bench/runningServer.ts';
import { postgres } from '../scripts/postgres.mjs';
import { campaign } from './campaign.ts';
import type { Target } from './campaign.ts';
import { extremes, extremesOf } from './extremes.ts';
import { inputs } from './inputs.ts';
import { kills } from './kills.ts';
import type { Killable } from './kills.ts';
import { attacked, listenersOf } from './listeners.ts';
import { Random } from './random.ts';

// npm run campaign -- --minutes N --seed S: broken and hostile files of every kind against the application, on this machine alone.
// --kills N kills it N times while people write and outputs are made, on each kind of database that there is here.
// --extremes sends what is beyond all measure instead, each once: that takes some minutes and 4 GB of memory.
const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '5' },
    seed: { type: 'string', default: '1' },
    extremes: { type: 'boolean', default: false },
    kills: { type: 'string', default: '0' },
  },
});
const [minutes, seed] = [Number(values.minutes), Number(values.seed)];
if (!(minutes > 0) || !Number.isInteger(seed)) throw new Error('Say how long and with which numbers: --minutes 5 --seed 1');

const PORT = 4830;
const folder = await mkdtemp(join(tmpdir(), 'folio-campaign-'));
if (Number(values.kills) > 0) process.exit((await killed(Number(values.kills))) ? 1 : 0);
const server = await runningServer(PORT);
try {
  const shelf = (await (await fetch(`${server.origin}/api/folios`)).json()) as { id: string; title: string }[];
  const target = { port: PORT, document: shelf.find((d) => d.title === 'Open Dome Night')!.id };
  const faults = values.extremes ? await beyondMeasure(target) : (await listeners(target)) + (await mutatedFiles(target));
  process.exitCode = faults ? 1 : 0;
} finally {
  await server.stop();
  await rm(folder, { recursive: true, force: true });
}

async function mutatedFiles(target: Target): Promise<number> {
  const all = await inputs(folder);
  const end = Date.now() + minutes * 60_000;
  const keep = 'test-results/campaign';
  const report = await campaign(target, all, { seed, going: () => Date.now() < end, keep });
  console.table(report.kinds);
  const often = Object.entries(report.codes).sort(([, a], [, b]) => b - a);
  console.log(often.map(([code, n]) => `${code} ${n}`).join(', '));
  console.log(`${report.rounds} files, ${report.faults.length} faults, seed ${seed}, ${availableParallelism()} processors`);
  for (const f of report.faults) console.log(`round ${f.round}, ${f.kind}: ${f.what}`);
  return report.faults.length;
}

async function killed(count: number): Promise<number> {
  const own = await postgres();
  const kinds: [name: string, more: Partial<Killable>][] = [['embedded', {}]];
  if (own)
    kinds.push([
      'PostgreSQL',
      {
        databaseUrl: own.database('killed').TEST_DATABASE_URL,
        killDatabase: () => own.restart(200, 'immediate'),
      },
    ]);
  let faults = 0;
  try {
    for (const [name, more] of kinds) {
      const report = await kills({ port: PORT, data: join(folder, name), ...more }, count, new Random(seed));
      const { edits, runs, again } = report;
      console.log(
        `${name}: the application killed ${report.kills.server} times, the database ${report.kills.database} times; ` +
          `${edits} edits and ${runs} outputs confirmed, ${again} requests made again, ${report.faults.length} faults`,
      );
      for (const what of report.faults) console.log(`  ${what}`);
      faults += report.faults.length;
    }
  } finally {
    own?.stop();
    await rm(folder, { recursive: true, force: true });
  }
  return faults;
}

async function listeners(target: Target): Promise<number> {
  let count = 0;
  for (const listener of await listenersOf(target)) {
    const { asked, answers, faults } = await attacked(listener, new Random(seed));
    const told = Object.entries(answers).map(([kind, n]) => `${n} ${kind === '0xx' ? 'closed' : kind}`);
    console.log(`${listener.name}: ${asked} requests, answered ${told.sort().join(', ')}`);
    for (const what of faults) console.log(`  ${what}`);
    count += faults.length;
  }
  return count;
}

async function beyondMeasure(target: Target): Promise<number> {
  const all = await extremes(target, extremesOf(true), folder, ({ kind, taken, refused, seconds, says, faults }) => {
    console.log(`${kind}: ${taken} taken, ${refused} refused in ${seconds} s. ${says.slice(0, 90)}`);
    for (const what of faults) console.log(`  ${what}`);
  });
  const status = await readFile(`/proc/${server.pid}/status`, 'utf8').catch(() => '');
  const most = Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
  const count = all.reduce((sum, { faults }) => sum + faults.length, 0);
  console.log(`${all.length} extremes, ${count} faults, the server at its highest ${Math.round(most)} MiB`);
  return count;
}
