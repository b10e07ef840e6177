import { createServer } from 'node:http';
import type { Server } from 'node:http';
import { startDailyBackup } from './backup/dailyBackup.ts';
import { readConfig } from './config.ts';
import { lockData } from './dataLock.ts';
import { loadSamples } from './documents/loadSamples.ts';
import { sweep } from './documents/sweep.ts';
import { createApp } from './http/app.ts';
import { guestSite } from './http/guestSite.ts';
import { resultSite } from './http/resultSite.ts';
import { startServices } from './services.ts';

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', (e: NodeJS.ErrnoException) =>
      reject(
        e.code === 'EADDRINUSE'
          ? new Error(
              `Port ${port} is taken by another program. Stop that one, or set PORT to another number (the two next ones are used too).`,
            )
          : e,
      ),
    );
    server.listen(port, '127.0.0.1', () => resolve());
  });

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const unlock = config.databaseUrl ? async () => undefined : await lockData(config.data);
  const services = await startServices(config);
  await loadSamples(services);
  const app = createServer(createApp(services));
  const results = createServer(resultSite(services, config));
  const guests = createServer(guestSite(services));
  await listen(app, config.port);
  await listen(results, config.resultPort);
  await listen(guests, config.guestPort);
  await services.service.start();
  console.log(`Elastic Folio is open at http://127.0.0.1:${config.port}`);
  const stopBackups = startDailyBackup(services.db, config.data);
  void sweep(services.db, config.data).catch((e: Error) => console.error(`Clearing up did not work: ${e.message}`));

  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    stopBackups();
    for (const server of [app, results, guests]) {
      server.close();
      server.closeAllConnections();
    }
    await services.close();
    await unlock();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
}

main().catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
