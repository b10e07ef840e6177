// A step of a build: node dist/lay-out-process.mjs
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { EmbeddedDb } from './database/embedded.ts';
import { emptyDatabase } from './database/emptyDatabase.ts';
import { migrate } from './database/migrate.ts';

await EmbeddedDb.layOut(emptyDatabase());
const db = await EmbeddedDb.open(emptyDatabase());
await migrate(db, join(dirname(dirname(fileURLToPath(import.meta.url))), 'server', 'migrations'));
await db.close();
