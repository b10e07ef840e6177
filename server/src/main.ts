import { createServer } from 'node:http';
import type { RequestListener, Server } from 'node:http';
import { startDailyBackup } from './backup/dailyBackup.ts';
import { readConfig } from './config.ts';
import { lockData } from './dataLock.ts';
import { inPlainWords } from './diskFaults.ts';
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

/** A server that takes its port at once, and holds requests until what answers them is there. */
function holding(): { server: Server; answer: (with_: RequestListener) => void } {
  let answer!: (listener: RequestListener) => void;
  const ready = new Promise<RequestListener>((resolve) => (answer = resolve));
  return { server: createServer((req, res) => void ready.then((listener) => listener(req, res))), answer };
}

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const [app, results, guests] = [holding(), holding(), holding()];
  const servers = [app.server, results.server, guests.server];
  // A port that is taken is said before anything else is begun.
  await listen(app.server, config.listensAt);
  await listen(results.server, config.resultPort);
  await listen(guests.server, config.guestPort);
  let stop = async (code: number): Promise<void> => process.exit(code);
  const unlock = config.databaseUrl
    ? async () => undefined
    : await lockData(config.data, {
        onLost: (why) => {
          console.error(why);
          void stop(1);
        },
      });
  const services = await startServices(config);
  // Nothing of this program's own is under way yet: what lies half done was left by one that was stopped.
  await sweep(services.db, config.data, { alone: !config.databaseUrl }).catch((e: Error) =>
    console.error(`Clearing up did not work: ${e.message}`),
  );
  app.answer(createApp(services));
  results.answer(resultSite(services, config));
  guests.answer(guestSite(services));
  await services.service.start();
  const stopBackups = startDailyBackup(services.db, config.data);
  console.log(`Elastic Folio is open at http://127.0.0.1:${config.port}`);

  let stopping = false;
  stop = async (code) => {
    if (stopping) return;
    stopping = true;
    stopBackups();
    for (const server of servers) {
      server.close();
      server.closeAllConnections();
    }
    await services.close();
    await unlock();
    process.exit(code);
  };
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  await services.loading.begin(services).then(
    () => console.log('Everything is on the shelf.'),
    (e: Error) => stopping || console.error(`The sample documents could not be brought in: ${inPlainWords(e)} The next start tries again.`),
  );
}

main().catch((error: Error) => {
  console.error(inPlainWords(error));
  process.exit(1);
});
