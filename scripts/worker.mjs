// npm run worker: one more process that takes runs from the queue of a PostgreSQL server.
import { build, install, root } from './prepare.mjs';

install();
build();
process.chdir(root);
await import('../dist/worker-process.mjs');
