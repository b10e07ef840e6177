import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { setTimeout as after } from 'node:timers/promises';
import { addOutput } from '../e2e/ownServer.ts';
import type { Random } from './random.ts';
import { sampleCopy } from './sampleCopy.ts';

/** How the application is started, and what else of it can be killed. */
export interface Killable {
  port: number;
  /** Its data folder. */
  data: string;
  databaseUrl?: string;
  /** Kills the database under it, and starts it again. */
  killDatabase?: () => Promise<void>;
}

export interface KillReport {
  kills: { server: number; database: number };
  /** Edits that were confirmed, outputs that were. */
  edits: number;
  runs: number;
  /** Requests that broke off, and were made again. */
  again: number;
  faults: string[];
}

/** People who write, each in a document of their own, and one who asks for outputs. */
const WRITERS = 4;
/** Their documents are copies of the shortest sample. */
const SHORTEST = 'Open Dome Night';
const LONGEST_MS = 60_000;

/**
 * Kills the application, and its database where that is a program of its own, again and again while people write and outputs are made.
 * Everybody does as a window of the application does: what was not confirmed is sent again under the same name. In the end every confirmed
 * edit has to be there, once and in its order, and every confirmed output has to have been made or be told of.
 */
export async function kills(target: Killable, count: number, random: Random): Promise<KillReport> {
  const report: KillReport = { kills: { server: 0, database: 0 }, edits: 0, runs: 0, again: 0, faults: [] };
  const origin = `http://127.0.0.1:${target.port}`;
  let server = await started(target);
  let going = true;
  /** Asks until there is an answer; what the application refuses in words is a fault. */
  const asked = async <T>(path: string, body?: object): Promise<T> => {
    for (const since = Date.now(); ;) {
      try {
        const answer = await fetch(origin + path, {
          ...(body && { method: 'POST', body: JSON.stringify(body) }),
          headers: { origin, 'content-type': 'application/json', connection: 'close' },
          signal: AbortSignal.timeout(LONGEST_MS),
        });
        if (answer.ok) return (await answer.json()) as T;
        if (answer.status !== 503) throw new Error(`${path} is answered ${answer.status}: ${await answer.text()}`);
      } catch (error) {
        if (/is answered/.test((error as Error).message) || Date.now() - since > LONGEST_MS) throw error;
      }
      report.again++;
      await after(50 + random.below(100));
    }
  };

  /** One to make outputs of, and one for each writer. */
  const documents = { outputs: await sampleCopy(origin, SHORTEST), written: [] as string[] };
  for (let n = 0; n < WRITERS; n++) documents.written.push(await sampleCopy(origin, SHORTEST));
  const writer = async (id: string): Promise<string[]> => {
    const confirmed: string[] = [];
    let base = (await asked<Opened>(`/api/folios/${id}?actor=campaign`)).seq;
    while (going) {
      const title = `Written ${confirmed.length + 1}`;
      const edit = { uid: randomUUID(), burst: randomUUID(), edit: { kind: 'document.metadata', args: { title } } };
      const sent = { base, actor: 'campaign', edits: [edit] };
      const { rows, missed, refused } = await asked<Record<'rows' | 'missed', { seq: number }[]> & { refused: object[] }>(
        `/api/folios/${id}/edits`,
        sent,
      );
      if (refused.length) throw new Error(`an edit is refused: ${JSON.stringify(refused)}`);
      base = Math.max(base, ...[...missed, ...rows].map((r) => r.seq));
      confirmed.push(title);
      await after(random.below(40));
    }
    return confirmed;
  };
  const outputs = async (): Promise<string[]> => {
    const confirmed: string[] = [];
    for (let n = 0; going; n++) {
      const { seq } = await asked<Opened>(`/api/folios/${documents.outputs}?actor=campaign`);
      await asked(`/api/folios/${documents.outputs}/edits`, { ...addOutput('again', 'pdf', { title: String(n) }), base: seq });
      confirmed.push((await asked<{ id: string }>(`/api/folios/${documents.outputs}/runs`, { recipe: 'again' })).id);
      await after(500 + random.below(1500));
    }
    return confirmed;
  };

  const writing = Promise.all(documents.written.map(writer));
  const making = outputs();
  // What goes wrong is told at the end, and not while something is being killed.
  for (const work of [writing, making]) work.catch(() => undefined);
  for (let n = 0; n < count; n++) {
    await after(300 + random.below(2500));
    if (target.killDatabase && n % 2) {
      await target.killDatabase();
      report.kills.database++;
    } else {
      server.kill('SIGKILL');
      await once(server, 'exit');
      server = await started(target);
      report.kills.server++;
    }
  }
  await after(500);
  going = false;
  try {
    const written = await writing;
    for (const [i, id] of documents.written.entries()) {
      const { rows } = await asked<{ rows: { patches: { path: string[]; value?: unknown }[] }[] }>(`/api/folios/${id}/edits?since=0`);
      const titles = rows.flatMap((r) => r.patches.filter((p) => p.path.at(-1) === 'title').map((p) => p.value as string));
      report.edits += written[i]!.length;
      const there = titles.filter((t) => t.startsWith('Written '));
      if (there.join() !== written[i]!.join())
        report.faults.push(`of ${written[i]!.length} confirmed edits of one document there are ${there.length}, or in another order`);
    }
    const confirmed = await making;
    report.runs = confirmed.length;
    report.faults.push(...(await unsettled(asked, confirmed)));
  } catch (error) {
    report.faults.push((error as Error).message);
  }
  server.kill('SIGTERM');
  await once(server, 'exit');
  return report;
}

interface Opened {
  seq: number;
}

/** What is wrong with outputs that were asked for: gone, or neither made nor failed with a sentence long after the last kill. */
async function unsettled(asked: <T>(path: string) => Promise<T>, confirmed: readonly string[]): Promise<string[]> {
  interface Run {
    id: string;
    state: string;
    message: string | null;
  }
  for (const until = Date.now() + 4 * LONGEST_MS; ; await after(500)) {
    const runs = new Map((await asked<Run[]>('/api/runs')).map((r) => [r.id, r]));
    const open = confirmed.filter((id) => /waiting|running/.test(runs.get(id)?.state ?? ''));
    if (open.length && Date.now() < until) continue;
    return confirmed.flatMap((id) => {
      const run = runs.get(id);
      if (!run) return [`the output ${id} was confirmed and is gone`];
      if (run.state === 'done' || run.state === 'cancelled' || (run.state === 'failed' && run.message)) return [];
      return [`the output ${id} is ${run.state}`];
    });
  }
}

async function started({ port, data, databaseUrl }: Killable): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: String(port), FOLIO_DATA: data, DATABASE_URL: databaseUrl ?? '' },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  // Nothing is left behind where this ends early.
  const end = (): void => void server.kill('SIGKILL');
  process.once('exit', end);
  server.once('exit', () => process.off('exit', end));
  let said = '';
  server.stderr.on('data', (d: Buffer) => (said += d.toString()));
  const ended = once(server, 'exit').then(() => Promise.reject(new Error(`the application did not start again: ${said}`)));
  ended.catch(() => undefined);
  const open = async (): Promise<void> => {
    while (!(await fetch(`http://127.0.0.1:${port}/api/ready`).catch(() => null))?.ok) await after(100);
  };
  await Promise.race([open(), ended]);
  // Another program may answer there.
  await after(200);
  if (server.exitCode !== null) await ended;
  return server;
}
