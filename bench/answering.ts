import { randomUUID } from 'node:crypto';
import { writerById } from '@elastic-folio/core/write';
import { runningServer } from './runningServer.ts';

const PORT = 4798;
/** Milliseconds between two questions. */
const PAUSE = 20;
const CONVERSIONS = 20;
const OUTPUTS = ['html', 'pdf', 'epub', 'docx', 'pptx', 'odt', 'article'];

/** How long answers take, in milliseconds: the slowest of a hundred, and the slowest of all. */
interface Answers {
  count: number;
  median: number;
  slowestOfHundred: number;
  slowest: number;
}

interface Asked {
  idle: Answers;
  busy: Answers;
  /** How long all the conversions took together. */
  seconds: number;
}

/** Questions that people's windows ask all the time, on a server by itself and while twenty conversions run. */
export async function answering(): Promise<Asked> {
  const server = await runningServer(PORT);
  try {
    const get = async <T>(path: string): Promise<T> => (await fetch(`${server.origin}${path}`)).json() as Promise<T>;
    const post = async <T>(path: string, body: object): Promise<T> => {
      const answer = await fetch(`${server.origin}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: server.origin },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(await answer.text());
      return answer.json() as Promise<T>;
    };
    const documents = await get<{ id: string }[]>('/api/folios');
    for (const { id } of documents) {
      const { seq } = await get<{ seq: number }>(`/api/folios/${id}`);
      const edits = OUTPUTS.map((output, i) => ({
        uid: randomUUID(),
        burst: 'bench',
        edit: { kind: 'recipe.set', args: { id: `bench${i}`, output, version: writerById(output)!.version, name: output, settings: {} } },
      }));
      await post(`/api/folios/${id}/edits`, { base: seq, actor: 'bench', edits });
    }
    const paths = documents.flatMap(({ id }) => [`/api/folios/${id}`, `/api/folios/${id}/outputs`]).concat('/api/folios', '/api/runs');
    const ask = async (until: () => boolean): Promise<number[]> => {
      const taken: number[] = [];
      for (let i = 0; !until(); i++) {
        const began = performance.now();
        const answer = await fetch(`${server.origin}${paths[i % paths.length]}`);
        await answer.arrayBuffer();
        taken.push(performance.now() - began);
        await new Promise((r) => setTimeout(r, PAUSE));
      }
      return taken;
    };
    let left = 300;
    await ask(() => left-- <= 0);
    left = 300;
    const idle = await ask(() => left-- <= 0);
    const began = performance.now();
    let running = true;
    const all = (async () => {
      const runs: string[] = [];
      for (let i = 0; i < CONVERSIONS; i++) {
        const { id } = documents[i % documents.length]!;
        runs.push((await post<{ id: string }>(`/api/folios/${id}/runs`, { recipe: `bench${Math.floor(i / documents.length)}` })).id);
      }
      for (;;) {
        const states = await get<{ id: string; state: string }[]>('/api/runs');
        const ours = states.filter((r) => runs.includes(r.id));
        if (ours.some((r) => r.state === 'failed')) throw new Error('A conversion has failed.');
        if (ours.every((r) => r.state === 'done')) break;
        await new Promise((r) => setTimeout(r, 500));
      }
      running = false;
    })();
    const busy = await ask(() => !running);
    await all;
    return { idle: of(idle), busy: of(busy), seconds: (performance.now() - began) / 1000 };
  } finally {
    await server.stop();
  }
}

function of(taken: readonly number[]): Answers {
  const sorted = [...taken].sort((a, b) => a - b);
  const at = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
  return { count: sorted.length, median: at(0.5), slowestOfHundred: at(0.99), slowest: at(1) };
}
