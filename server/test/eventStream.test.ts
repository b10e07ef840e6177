import { describe, expect, test } from '@jest/globals';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import type { LogRow } from '@elastic-folio/core';
import { EventHub } from '../src/events.ts';
import { eventRoute } from '../src/http/eventRoute.ts';

const row = (seq: number, text: string): LogRow =>
  ({
    seq,
    base: seq - 1,
    actor: 'a',
    at: '',
    group: 'b',
    edit: { kind: 'document.metadata', args: { title: text } },
    patches: [{ op: 'replace', path: ['head', 'metadata', 'title'], value: text }],
    inverse: [],
    touched: ['head/metadata/title'],
  }) as unknown as LogRow;

describe('streams of events', () => {
  test('300 listeners that never read cost a bounded amount, and hear that they should ask again', async () => {
    const hub = new EventHub();
    const app = express();
    const open: express.Response[] = [];
    app.use((_req, res, next) => {
      open.push(res);
      next();
    });
    const router = express.Router();
    eventRoute(router, hub);
    app.use('/api', router);
    const server = createServer(app);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const responses = await Promise.all(
      Array.from(
        { length: 300 },
        () =>
          new Promise<import('node:http').IncomingMessage>((resolve, reject) =>
            request({ host: '127.0.0.1', port, path: '/api/events' }, (res) => {
              res.pause();
              resolve(res);
            })
              .on('error', reject)
              .end(),
          ),
      ),
    );
    // 3,000 edits, 12 kB each as they are told: 36 MB for each listener, 10 GB for all of them.
    for (let seq = 1; seq <= 3000; seq++) {
      hub.edited('f', [row(seq, 'x'.repeat(6_000))]);
      if (seq % 100 === 0) await new Promise((r) => setImmediate(r));
    }
    const waiting = open.map((res) => res.writableLength);
    expect(waiting).toHaveLength(300);
    expect(Math.max(...waiting)).toBeLessThanOrEqual(256 * 1024);
    // They are full: what came after was not kept for them.
    expect(Math.min(...waiting)).toBeGreaterThan(200 * 1024);
    // Whoever begins to read is told that something was left out.
    const text = await new Promise<string>((resolve) => {
      let all = '';
      responses[0]!.on('data', (d: Buffer) => {
        all += d.toString();
        if (all.includes('"type":"again"')) resolve(all);
      });
      responses[0]!.resume();
    });
    expect(text).toContain('"type":"again"');
    for (const r of responses) r.destroy();
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  });

  test('a large edit is told of by its number alone', async () => {
    const hub = new EventHub();
    const heard: string[] = [];
    hub.on('event', (_event, text) => heard.push(text));
    hub.edited('f', [row(1, 'small')]);
    hub.edited('f', [row(2, 'x'.repeat(1_000_000))]);
    expect(heard.map((t) => t.length < 1000)).toEqual([true, true]);
    expect(heard.map((t) => 'rows' in (JSON.parse(t) as object))).toEqual([true, false]);
    expect(heard[0]).not.toContain('inverse');
  });
});
