// Which share of all tests an ordinary run takes: said by the day, and by what was changed of late.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const DAY_MS = 86_400_000;
/** Long test files have their turn one day out of so many. */
const DAYS = 3;
/** A test file that takes so many seconds is a long one. */
const LONG_S = 7;
/** Where more outputs or long test files than this were changed, everything was, and each is as worth a look as any other. */
const MOST_TOUCHED = 3;
const LONG_FILES = join(root, 'scripts', 'longTests.json');

const git = (...args) => spawnSync('git', args, { cwd: root, encoding: 'utf8' }).stdout ?? '';

/** Files that were changed within a day, committed or not. */
function changedOfLate() {
  const committed = git('log', '--since=1 day ago', '--name-only', '--pretty=format:').split('\n');
  const waiting = git('status', '--porcelain')
    .split('\n')
    .map((line) => line.slice(3));
  return new Set([...committed, ...waiting].filter(Boolean));
}

const fewOf = (touched) => (touched.length <= MOST_TOUCHED ? touched : []);

/**
 * Environment variables that tests read (`core/test/support/ofToday.ts`), and the long test files that have their turn on another day.
 * The turns are about as long as one another: the longest file that is left goes to the day with the least to do.
 */
export function shareOfToday(now = Date.now()) {
  const day = Math.floor(now / DAY_MS);
  const changed = changedOfLate();
  const outputs = readdirSync(join(root, 'core', 'src', 'write')).filter((name) => !name.endsWith('.ts'));
  const touched = outputs.filter((id) => [...changed].some((file) => file.startsWith(`core/src/write/${id}/`)));
  const long = Object.entries(longFiles()).sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1));
  const turns = Array.from({ length: DAYS }, () => ({ seconds: 0, files: [] }));
  for (const [file, seconds] of long) {
    const turn = turns.reduce((least, t) => (t.seconds < least.seconds ? t : least));
    turn.files.push(file);
    turn.seconds += seconds;
  }
  const changedLong = fewOf(long.map(([file]) => file).filter((file) => changed.has(file)));
  const others = turns.flatMap((turn, i) => (i === day % DAYS ? [] : turn.files));
  return {
    env: { FOLIO_TEST_DAY: String(day), FOLIO_TEST_TOUCHED: fewOf(touched).join(',') },
    another: others.filter((file) => !changedLong.includes(file)),
  };
}

const longFiles = () => (existsSync(LONG_FILES) ? JSON.parse(readFileSync(LONG_FILES, 'utf8')) : {});

/** Keeps how long the test files of a run took; called where all of them were run. */
export function keepTimes(times) {
  const long = [...times].map(([file, seconds]) => [file, Math.round(seconds)]).filter(([, seconds]) => seconds >= LONG_S);
  writeFileSync(LONG_FILES, `${JSON.stringify(Object.fromEntries(long.sort(([a], [b]) => (a < b ? -1 : 1))), null, 2)}\n`);
}
