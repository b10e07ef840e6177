import { readConfig } from './config.ts';
import { startServices } from './services.ts';

// Another process that takes runs from the same queue; it needs a database that several may use.
const config = readConfig(process.env);
if (!config.databaseUrl) {
  console.error('A worker needs DATABASE_URL: the embedded database belongs to one process alone.');
  process.exit(1);
}
const services = await startServices(config);
console.log('Waiting for runs.');
const stop = (): void => void services.close().then(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
