// npm test: on a fresh machine, everything: installs, checks, builds, unit tests, tests in a browser. Of the full matrices (every output,
// every sample, every setting) a share that moves on each day and what was changed of late; all of them with --all (npm run test:all).
// Ends with one line that sums all runners up.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { runChecks } from './checks.mjs';
import { postgres } from './postgres.mjs';
import { build, install, root } from './prepare.mjs';
import { keepTimes, shareOfToday } from './shareOfToday.mjs';

const total = { passed: 0, failed: 0, skipped: 0 };
const all = process.argv.includes('--all');
const only = process.argv.slice(2).filter((a) => a !== '--all');
const { env: share, another } = all ? { env: {}, another: [] } : shareOfToday();
const wants = (name) => !only.length || only.includes(name);
/** Seconds that each test file took. */
const times = new Map();
const asPattern = (file) => `/${file.replaceAll('.', '[.]')}$`;
const secondsOf = ({ specs = [], suites = [] }) =>
  specs.flatMap((s) => s.tests.flatMap((t) => t.results)).reduce((sum, r) => sum + r.duration / 1000, 0) +
  suites.reduce((sum, suite) => sum + secondsOf(suite), 0);
const bin = (name) => join(root, 'node_modules', '.bin', name);

function step(name, command, args, env = {}) {
  console.log(`\n== ${name}`);
  const began = Date.now();
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...share, ...env } });
  console.log(`== ${name}: ${status === 0 ? 'well' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(1)} s`);
  return status === 0;
}

/** Programs that tests look through, from Debian's packages where they are missing and may be installed. */
function systemTools() {
  const needed = {
    chromium: '/usr/bin/chromium',
    'poppler-utils': '/usr/bin/pdfinfo',
    qpdf: '/usr/bin/qpdf',
    epubcheck: '/usr/share/java/epubcheck.jar',
    postgresql: '/usr/lib/postgresql',
    'python3-docx': '/usr/lib/python3/dist-packages/docx/__init__.py',
    'translate-toolkit': '/usr/lib/python3/dist-packages/translate/__init__.py',
  };
  const missing = Object.entries(needed)
    .filter(([, file]) => !existsSync(file))
    .map(([name]) => name);
  if (!missing.length) return;
  const root = process.getuid?.() === 0;
  if (!existsSync('/usr/bin/apt-get') || !root)
    return console.log(`${missing.join(', ')} missing and cannot be installed here; the tests that need them are skipped.`);
  console.log(`Installing ${missing.join(', ')} …`);
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'ignore' });
  const { status } = spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (status !== 0) console.log('That did not work; the tests that need them are skipped.');
}

install();
systemTools();
const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const checked = await runChecks(wants);
total.passed += checked.passed;
total.failed += checked.failed;
build();
const server = await postgres();
if (!server) console.log('There is no PostgreSQL server here; what runs on both databases is tested on the embedded one.');
if (wants('unit')) {
  const file = join(results, 'unit.json');
  const ok = step(
    'unit tests',
    process.execPath,
    [
      '--experimental-vm-modules',
      '--no-warnings',
      join(root, 'node_modules', 'jest', 'bin', 'jest.js'),
      '--json',
      `--outputFile=${file}`,
      ...['/node_modules/', '/dist/', '/e2e/', ...another.map(asPattern)].flatMap((p) => ['--testPathIgnorePatterns', p]),
    ],
    server?.database('unit'),
  );
  const json = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
  if (json) {
    total.passed += json.numPassedTests;
    total.failed += json.numFailedTests + json.numRuntimeErrorTestSuites;
    total.skipped += json.numPendingTests + json.numTodoTests;
    for (const { name, startTime, endTime } of json.testResults) times.set(relative(root, name), (endTime - startTime) / 1000);
  }
  if (!ok && !(json?.numFailedTests || json?.numRuntimeErrorTestSuites)) total.failed++;
}
if (wants('browser')) {
  if (!existsSync('/usr/bin/chromium')) {
    console.log('\n== browser tests: skipped, there is no Chromium');
    total.skipped++;
  } else {
    const file = join(results, 'browser.json');
    const ok = step('browser tests', bin('playwright'), ['test'], {
      ...server?.database('browser'),
      PLAYWRIGHT_JSON_OUTPUT_FILE: file,
      FOLIO_TEST_ANOTHER: another.join(','),
    });
    const json = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
    const stats = json?.stats;
    if (stats) {
      for (const suite of json.suites) times.set(`e2e/${suite.file}`, secondsOf(suite));
      total.passed += stats.expected;
      total.failed += stats.unexpected + stats.flaky;
      total.skipped += stats.skipped;
    }
    if (!ok && !(stats?.unexpected || stats?.flaky)) total.failed++;
  }
}
server?.stop();
if (all && !only.length) keepTimes(times);
else if (!all) console.log(`\n${another.length} long test files have their turn on another day; npm run test:all runs everything.`);
console.log(`\n${total.passed} passed, ${total.failed} failed, ${total.skipped} skipped`);
process.exitCode = total.failed ? 1 : 0;
