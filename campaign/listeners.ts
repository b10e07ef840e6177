import { once } from 'node:events';
import { connect } from 'node:net';
import { setTimeout as after } from 'node:timers/promises';
import type { PhoneAddress, PublishedSite } from '@elastic-folio/core/api';
import { addOutput, clientOf } from '../e2e/ownServer.ts';
import { INSIDE } from './campaign.ts';
import type { Target } from './campaign.ts';
import type { Random } from './random.ts';

/** One of the application's ends that listen, as whoever is not welcome finds it. */
export interface Listener {
  name: string;
  port: number;
  /** By what it is asked for. */
  host: string;
  /** Folders of its addresses behind which files lie. */
  folders: readonly string[];
  /** An address at which it answers in good health. */
  well: string;
}

export interface ListenerReport {
  listener: string;
  asked: number;
  /** By the class of their answers' status; 0: none, the connection was closed. */
  answers: Record<string, number>;
  faults: string[];
}

/** What stands in files that nobody is to have: of the machine, of the database, of the account of a result, of the folder of data. */
const NOWHERE = /root:[x*]:0:0|"outcomes"|PRIVATE KEY|"pid":|"dependencies"/;
const FILES = [
  'etc/passwd',
  'proc/self/environ',
  'ledger.json',
  '../ledger.json',
  '../../folio.lock',
  '../../database/PG_VERSION',
  '../../../package.json',
  '../../backup',
];
/** Ways of writing a step upwards: plain, by RFC 3986 in its encodings, encoded twice, over-long UTF-8, with a backslash. */
const UP = ['../', '..%2f', '%2e%2e/', '%2E%2E%2F', '.%2e/', '%252e%252e%252f', '..%c0%af', '..\\', '..%5c', '....//', '..;/', './../'];
const METHODS = ['PUT', 'DELETE', 'PATCH', 'TRACE', 'OPTIONS', 'CONNECT', 'PROPFIND', 'POST', 'get', 'A'.repeat(4000)];
const NAMES = ['evil.example', '', '127.0.0.1.evil.example', 'localhost@evil.example', '0.0.0.0', '[::]', 'a'.repeat(9000), '../..', '%00'];

const request = (method: string, path: string, host: string, more = ''): string =>
  `${method} ${path} HTTP/1.1\r\nHost: ${host}\r\n${more}Connection: close\r\n\r\n`;

/** Requests against a listener: addresses that leave their folder, other methods and names, and what is no HTTP at all. */
function* attacks({ host, folders, well }: Listener, random: Random): Generator<{ what: string; bytes: string }> {
  for (const folder of folders)
    for (const up of UP)
      for (const file of FILES) {
        const path = `${folder}${up.repeat(1 + random.below(8))}${file}`;
        yield { what: `GET ${path}`, bytes: request('GET', path, host) };
      }
  for (const folder of folders)
    for (const path of [
      '%00',
      'index.html%00.txt',
      '%',
      '%zz',
      '//etc/passwd',
      '\\etc\\passwd',
      '.git/config',
      '.env',
      `${'a/'.repeat(5000)}`,
      '?'.repeat(9000),
      '#',
      '*',
      'LEDGER.JSON',
      'ledger.json/',
      'ledger%2ejson',
      './ledger.json',
      '%6cedger.json',
      'ledger.json%20',
      'x/../ledger.json',
      'ledger.json?a',
      'ledger.json;a',
    ])
      yield { what: `GET ${folder}${path.slice(0, 60)}`, bytes: request('GET', folder + path, host) };
  yield { what: 'an address of another machine', bytes: request('GET', 'http://evil.example/', host) };
  for (const method of METHODS)
    yield { what: `${method.slice(0, 20)} ${well}`, bytes: request(method, well, host, 'Content-Length: 2\r\n') };
  for (const name of NAMES) yield { what: `the name ${name.slice(0, 40)}`, bytes: request('GET', well, name) };
  yield { what: 'no name', bytes: `GET ${well} HTTP/1.1\r\nConnection: close\r\n\r\n` };
  yield { what: 'two names', bytes: request('GET', well, host, 'Host: evil.example\r\n') };
  yield {
    what: 'two lengths',
    bytes: `${request('POST', well, host, 'Content-Length: 4\r\nTransfer-Encoding: chunked\r\n')}0\r\n\r\nGET /etc/passwd HTTP/1.1\r\nHost: ${host}\r\n\r\n`,
  };
  yield { what: 'a head of 200 kB', bytes: request('GET', well, host, `X-Long: ${'a'.repeat(200_000)}\r\n`) };
  yield { what: '5,000 heads', bytes: request('GET', well, host, 'X-Many: a\r\n'.repeat(5000)) };
  yield { what: 'a part that begins beyond the end', bytes: request('GET', well, host, 'Range: bytes=999999999999-\r\n') };
  yield { what: '1,000 parts', bytes: request('GET', well, host, `Range: bytes=${'0-,'.repeat(1000)}0-\r\n`) };
  yield { what: 'HTTP/0.9', bytes: 'GET /\r\n\r\n' };
  yield { what: 'an upgrade', bytes: request('GET', well, host, 'Upgrade: websocket\r\n') };
  for (let n = 0; n < 60; n++)
    yield {
      what: 'nothing that means anything',
      bytes: Array.from({ length: 200 }, () => String.fromCharCode(random.below(256))).join(''),
    };
}

/** Sends all of them, eight at a time, looks at what comes back, and then whether the listener answers as before. */
export async function attacked(listener: Listener, random: Random): Promise<ListenerReport> {
  const report: ListenerReport = { listener: listener.name, asked: 0, answers: {}, faults: [] };
  const fault = (what: string): void => void report.faults.push(`${listener.name}: ${what}`);
  const all = attacks(listener, random);
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      for (const { what, bytes } of all) {
        report.asked++;
        const said = await answerTo(listener.port, bytes);
        const status = Number(/^HTTP\/1\.1 (\d{3})/.exec(said)?.[1] ?? 0);
        const kind = `${Math.floor(status / 100)}xx`;
        report.answers[kind] = (report.answers[kind] ?? 0) + 1;
        if (status >= 500) fault(`${what} is answered ${status}`);
        if (INSIDE.test(said.slice(said.indexOf('\r\n\r\n'))) && status >= 400)
          fault(`${what} is answered in a library's words: ${said.slice(-200)}`);
        if (NOWHERE.test(said)) fault(`${what} gives away ${NOWHERE.exec(said)![0]}`);
      }
    }),
  );
  await heldOpen(listener, fault);
  if (!(await isWell(listener))) fault('it does not answer any more');
  return report;
}

/** 300 connections that begin a request and leave it there: others are answered all the same. */
async function heldOpen(listener: Listener, fault: (what: string) => void): Promise<void> {
  const held = await Promise.all(
    Array.from({ length: 300 }, async () => {
      const socket = connect(listener.port, '127.0.0.1').on('error', () => undefined);
      await Promise.race([once(socket, 'connect'), once(socket, 'close')]);
      socket.write(`GET ${listener.well} HTTP/1.1\r\nHost: ${listener.host}\r\nX-Slow: `);
      return socket;
    }),
  );
  if (!(await isWell(listener))) fault('300 slow connections keep others out');
  for (const socket of held) socket.destroy();
}

const isWell = async (l: Listener): Promise<boolean> => /^HTTP\/1\.1 200/.test(await answerTo(l.port, request('GET', l.well, l.host)));

/** What comes back, up to a megabyte, until the connection is closed or nothing has come for two seconds. */
function answerTo(port: number, bytes: string): Promise<string> {
  return new Promise((resolve) => {
    let said = '';
    const socket = connect(port, '127.0.0.1', () => socket.write(Buffer.from(bytes, 'latin1')));
    const end = (): void => {
      socket.destroy();
      resolve(said);
    };
    socket.setTimeout(2000, end);
    socket.on('data', (d: Buffer) => {
      said += d.toString('latin1');
      if (said.length > 1 << 20) end();
    });
    socket.on('close', end).on('error', end);
  });
}

/** The ends that a running application listens at, each with something behind it: a result, a published edition, a job, an open phone. */
export async function listenersOf({ port, document }: Target): Promise<Listener[]> {
  const [results, guests] = [port + 1, port + 2];
  const { get, post } = clientOf(port);
  await post(`/api/folios/${document}/edits`, addOutput('attacked', 'html'));
  const { id: run } = await post<{ id: string }>(`/api/folios/${document}/runs`, { recipe: 'attacked' });
  while ((await get<{ id: string; state: string }[]>('/api/runs')).find((r) => r.id === run)?.state !== 'done') await after(200);
  const site = await post<PublishedSite>(`/api/folios/${document}/published`, { recipe: 'attacked' });
  const { phone } = await post<{ phone: PhoneAddress }>(`/api/published/${site.id}/phone`, {});
  const person = { kind: 'person', name: 'Ilse Brandt', address: 'ilse@wortwerk.example' };
  await post(`/api/folios/${document}/jobs`, { language: 'de', for: person });
  const [letter] = await get<{ link: string }[]>('/api/outbox');
  const key = new URL(letter!.link).pathname;
  return [
    { name: 'the application', port, host: `127.0.0.1:${port}`, folders: ['/', '/assets/', '/api/folios/'], well: '/api/folios' },
    { name: 'a result', port: results, host: `${run}.localhost:${results}`, folders: ['/', '/pictures/', '/embeds/'], well: '/index.html' },
    {
      name: 'a published edition',
      port: results,
      host: `${site.name}.pages.localhost:${results}`,
      folders: ['/', '/fonts/'],
      well: '/index.html',
    },
    { name: 'a translator’s desk', port: guests, host: `127.0.0.1:${guests}`, folders: ['/', '/assets/', key, `${key}api/`], well: key },
    {
      name: 'phones',
      port: phone.port,
      host: `127.0.0.1:${phone.port}`,
      folders: [`/${phone.code}/`, `/${phone.code}/pictures/`],
      well: `/${phone.code}/`,
    },
  ];
}
