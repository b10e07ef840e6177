// npm run check [-- NAME …]: all that is checked without running anything; under a minute where little has changed.
import { runChecks } from './checks.mjs';
import { install } from './prepare.mjs';

install();
const only = process.argv.slice(2);
const { passed, failed } = await runChecks((name) => !only.length || only.includes(name));
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed ? 1 : 0;
