import { randomInt, timingSafeEqual } from 'node:crypto';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import express from 'express';
import type { PhoneAddress } from '@elastic-folio/core/api';
import { lastAnswer } from '../lastAnswer.ts';

/** Open for so long, and no longer. */
const OPEN_MS = 30 * 60_000;
/** So many wrong codes, and it closes: somebody is guessing. */
const WRONG = 30;
/** Letters and digits that are not taken for one another. */
const ALPHABET = '23456789abcdefghjkmnpqrstuvwxyz';
const CODE_LENGTH = 8;

interface Open {
  server: Server;
  code: string;
  until: number;
  timer: NodeJS.Timeout;
}

/**
 * Lets phones in the same network open one version of one site for a while. It is the only part of the program that answers to
 * other machines; it is opened by hand, shows nothing without the code, and closes by itself.
 */
export class PhoneListener {
  private readonly open = new Map<string, Open>();
  /** Sites whose listener was closed because somebody guessed at its code, until it is opened again. */
  private readonly closedForWrongCodes = new Set<string>();

  /** Opens it for a site's folder, at an address that it has not had before. */
  async start(site: string, folder: string): Promise<void> {
    const known = this.open.get(site);
    if (known) await this.stop(site);
    this.closedForWrongCodes.delete(site);
    const code = Array.from({ length: CODE_LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('');
    const server = createServer(
      phoneSite(folder, code, () => {
        this.closedForWrongCodes.add(site);
        void this.stop(site);
      }),
    );
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(0, '0.0.0.0', resolve);
    });
    const timer = setTimeout(() => void this.stop(site), OPEN_MS);
    timer.unref();
    this.open.set(site, { server, code, until: Date.now() + OPEN_MS, timer });
  }

  address(site: string): PhoneAddress | null {
    const known = this.open.get(site);
    if (!known) return null;
    const { port } = known.server.address() as { port: number };
    return {
      code: known.code,
      until: new Date(known.until).toISOString(),
      port,
      addresses: ownAddresses().map((a) => `http://${a}:${port}/${known.code}/`),
    };
  }

  wasClosedForWrongCodes(site: string): boolean {
    return this.closedForWrongCodes.has(site);
  }

  async stop(site: string): Promise<void> {
    const known = this.open.get(site);
    if (!known) return;
    this.open.delete(site);
    clearTimeout(known.timer);
    known.server.closeAllConnections();
    await new Promise<void>((resolve) => known.server.close(() => resolve()));
  }

  async close(): Promise<void> {
    await Promise.all([...this.open.keys()].map((site) => this.stop(site)));
  }
}

function phoneSite(folder: string, code: string, tooMany: () => void): express.Express {
  const app = express();
  app.disable('x-powered-by');
  let wrong = 0;
  app.use((req, res, next) => {
    const [, given = ''] = req.path.split('/');
    const right = given.length === code.length && timingSafeEqual(Buffer.from(given), Buffer.from(code));
    if (!right || (req.method !== 'GET' && req.method !== 'HEAD')) {
      if (!right && given !== '' && given !== 'favicon.ico' && ++wrong > WRONG) tooMany();
      return void res.status(404).type('text').send('There is nothing here without the right code.');
    }
    res.setHeader('X-Content-Type-Options', 'nosniff');
    res.setHeader('Referrer-Policy', 'no-referrer');
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use(`/${code}`, express.static(folder, { dotfiles: 'deny', index: 'index.html', redirect: true }));
  app.use((_req, res) => void res.status(404).end());
  app.use(lastAnswer);
  return app;
}

/** This machine's addresses in its networks. */
const ownAddresses = (): string[] =>
  Object.values(networkInterfaces()).flatMap((all) => (all ?? []).filter((a) => a.family === 'IPv4' && !a.internal).map((a) => a.address));
