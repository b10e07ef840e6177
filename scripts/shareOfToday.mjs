// Which share of the full test matrices an ordinary run takes: said by the day, and by what was changed of late.
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const DAY_MS = 86_400_000;
/** Where more outputs than this were changed, everything was, and each is as worth a look as any other. */
const MOST_TOUCHED = 3;

/** Environment variables that tests read (`core/test/support/ofToday.ts`). */
export function shareOfToday(now = Date.now()) {
  const git = (...args) => spawnSync('git', args, { cwd: root, encoding: 'utf8' }).stdout ?? '';
  const changed = [
    ...git('log', '--since=1 day ago', '--name-only', '--pretty=format:').split('\n'),
    ...git('status', '--porcelain')
      .split('\n')
      .map((line) => line.slice(3)),
  ];
  const outputs = new Set(readdirSync(join(root, 'core', 'src', 'write')).filter((name) => !name.endsWith('.ts')));
  const touched = new Set(changed.map((file) => /^core\/src\/write\/([^/]+)\//.exec(file)?.[1]).filter((id) => outputs.has(id)));
  return {
    FOLIO_TEST_DAY: String(Math.floor(now / DAY_MS)),
    FOLIO_TEST_TOUCHED: touched.size <= MOST_TOUCHED ? [...touched].join(',') : '',
  };
}
