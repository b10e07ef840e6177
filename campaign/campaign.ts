import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import type { Input } from './inputs.ts';
import { mutated } from './mutators.ts';
import { Random } from './random.ts';

/** The application under attack, on this machine alone. */
export interface Target {
  port: number;
  /** The document that files are sent to. */
  document: string;
}

export interface Report {
  rounds: number;
  /** By kind of input: how many were taken, and how many refused with a sentence. */
  kinds: Record<string, { taken: number; refused: number }>;
  /** How often each code of a refusal was given. */
  codes: Record<string, number>;
  /** What must not be: each with the number of its round, which with the seed makes the same file again. */
  faults: { round: number; kind: string; what: string }[];
}

/** What libraries, and the program's own inside, say to developers. */
export const INSIDE =
  /expected \w+, received|undefined|Invalid input|\bZod|TypeError|ECONN|ENOENT|at [\w.]+ \(|node_modules|\/src\/|is not iterable|Cannot read|null value in column|syntax error|invalid byte sequence/i;

/**
 * Sends mutated files of every kind to the application, one after another, and looks at each answer and, in between, at the application
 * itself. `going` says before each round whether there is another. Files that bring out a fault are kept in a folder.
 */
export async function campaign(
  target: Target,
  inputs: readonly Input[],
  { seed, going, keep }: { seed: number; going: (round: number) => boolean; keep: string },
): Promise<Report> {
  const report: Report = { rounds: 0, kinds: {}, codes: {}, faults: [] };
  const shelf = await shelfOf(target);
  for (let round = 1; going(round); round++) {
    // Each round has its own numbers, so that it can be made again without those before it.
    const random = new Random(seed * 1_000_003 + round);
    const input = inputs[(round - 1) % inputs.length]!;
    const bytes = mutated(input.bytes, random);
    const fault = (what: string): void => {
      report.faults.push({ round, kind: input.kind, what });
      mkdirSync(keep, { recursive: true });
      writeFileSync(join(keep, `${seed}-${round}-${input.name}`), bytes);
    };
    const counts = (report.kinds[input.kind] ??= { taken: 0, refused: 0 });
    report.rounds++;
    try {
      const answer = await answered(() => send(target, input, bytes));
      const said = await answer.text();
      if (answer.ok) {
        counts.taken++;
        if (input.document) await opensAndGoes(target, JSON.parse(said) as { id: string }, fault);
      } else {
        counts.refused++;
        if (answer.status >= 500) fault(`answered ${answer.status}: ${said.slice(0, 200)}`);
        else {
          lookAtRefusal(said, fault);
          const code = /"code":"([\w.]+)"/.exec(said)?.[1] ?? 'none';
          report.codes[code] = (report.codes[code] ?? 0) + 1;
        }
      }
    } catch (error) {
      fault(`no answer: ${(error as Error).message} ${String((error as Error).cause ?? '')}`);
    }
    if (round % inputs.length === 0) {
      const now = await shelfOf(target).catch((e: Error) => e.message);
      if (now !== shelf) fault(`the shelf is another: ${now}`);
    }
  }
  const now = await shelfOf(target).catch((e: Error) => e.message);
  if (now !== shelf) report.faults.push({ round: report.rounds, kind: 'shelf', what: `the shelf is another at the end: ${now}` });
  return report;
}

const origin = ({ port }: Target): string => `http://127.0.0.1:${port}`;

/** Connections that were kept open may just have been closed, which is nobody's fault; one that breaks three times is. */
export const answered = (send: () => Promise<Response>): Promise<Response> =>
  send()
    .catch(() => after(500).then(send))
    .catch(() => after(500).then(send));

function send(target: Target, { name, to }: Input, bytes: Uint8Array): Promise<Response> {
  const url = origin(target) + to.replace('{id}', target.document);
  const headers = { origin: origin(target) };
  if (name.endsWith('.json'))
    return fetch(url, { method: 'POST', headers: { ...headers, 'content-type': 'application/json' }, body: Buffer.from(bytes) });
  const body = new FormData();
  body.set('file', new File([Buffer.from(bytes)], name));
  return fetch(url, { method: 'POST', headers, body });
}

export function lookAtRefusal(said: string, fault: (what: string) => void): void {
  try {
    const { message, advice, code } = JSON.parse(said) as { message?: string; advice?: string; code?: string };
    if (!message || advice === undefined) fault(`a refusal without a sentence: ${said.slice(0, 200)}`);
    else if (INSIDE.test(`${message} ${advice}`)) fault(`a refusal in a library's words: ${message}`);
    else if (code === 'thread.failed') fault('a fault that nobody had thought of ended its reading');
  } catch {
    fault(`a refusal that is no JSON: ${said.slice(0, 200)}`);
  }
}

/** What was taken as a document opens, says what it did not bring, and goes off the shelf. */
export async function opensAndGoes(target: Target, { id }: { id: string }, fault: (what: string) => void): Promise<void> {
  for (const path of [`/api/folios/${id}?actor=campaign`, `/api/folios/${id}/intake`, `/api/folios/${id}/outputs`]) {
    const { ok, status } = await fetch(origin(target) + path);
    if (!ok) fault(`it was taken, and ${path.replace(id, '…')} answers ${status}`);
  }
  await fetch(`${origin(target)}/api/folios/${id}`, { method: 'DELETE', headers: { origin: origin(target) } });
}

async function shelfOf(target: Target): Promise<string> {
  const answer = await fetch(`${origin(target)}/api/folios`);
  if (!answer.ok) throw new Error(`the shelf answers ${answer.status}`);
  return ((await answer.json()) as { title: string }[])
    .map((d) => d.title)
    .sort()
    .join(', ');
}
