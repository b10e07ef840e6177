// npm start: installs, builds, and opens the application with its samples.
import { build, install, root } from './prepare.mjs';

install();
build();
process.chdir(root);
process.setSourceMapsEnabled(true);
await import('../dist/server.mjs');
