import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, request } from 'node:http';
import type { IncomingHttpHeaders } from 'node:http';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ServerEvent } from '@elastic-folio/core/api';
import { preparedShelf } from '../../../scripts/preparedShelf.mjs';

const root = dirname(dirname(dirname(dirname(fileURLToPath(import.meta.url)))));

export interface Answer {
  status: number;
  headers: IncomingHttpHeaders;
  body: Buffer;
  json<T>(): T;
}

/** Three free ports that follow one another: the application's, the results' and the guests'. */
async function freePorts(): Promise<number> {
  const listen = (port: number): Promise<number | null> =>
    new Promise((resolve) => {
      const s = createServer();
      s.once('error', () => resolve(null));
      s.listen(port, '127.0.0.1', () => {
        const got = (s.address() as { port: number }).port;
        s.close(() => resolve(got));
      });
    });
  for (;;) {
    const port = await listen(0);
    if (port && port < 65_000 && (await listen(port + 1)) && (await listen(port + 2))) return port;
  }
}

/** The built server in a process and a data folder of its own, spoken to over HTTP as a browser would. */
export class RunningServer {
  private constructor(
    readonly port: number,
    private readonly child: ChildProcess,
    readonly data: string,
  ) {}

  static async start(): Promise<RunningServer> {
    const data = join(await mkdtemp(join(tmpdir(), 'folio-server-')), 'data');
    await preparedShelf(data);
    const port = await freePorts();
    const child = spawn(process.execPath, [join(root, 'dist', 'server.mjs')], {
      env: { ...process.env, PORT: String(port), FOLIO_DATA: data, DATABASE_URL: '' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise<void>((resolve, reject) => {
      child.stdout.on('data', (d: Buffer) => d.includes('Everything is on the shelf') && resolve());
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
    return new RunningServer(port, child, data);
  }

  /** One request; own origin and host unless `headers` says otherwise. */
  ask(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    port = this.port,
    cutAfter?: number,
  ): Promise<Answer> {
    const bytes = body === undefined ? undefined : Buffer.isBuffer(body) ? body : Buffer.from(JSON.stringify(body));
    return new Promise((resolve, reject) => {
      const req = request(
        {
          host: '127.0.0.1',
          port,
          method,
          path,
          headers: {
            ...(method !== 'GET' && { origin: `http://127.0.0.1:${this.port}` }),
            ...(bytes && { 'content-type': 'application/json', 'content-length': bytes.length }),
            ...headers,
          },
        },
        (res) => {
          const chunks: Buffer[] = [];
          res.on('data', (c: Buffer) => chunks.push(c));
          res.on('end', () => {
            const all = Buffer.concat(chunks);
            resolve({ status: res.statusCode!, headers: res.headers, body: all, json: <T>() => JSON.parse(all.toString()) as T });
          });
        },
      );
      req.on('error', reject);
      if (bytes && cutAfter !== undefined) {
        req.write(bytes.subarray(0, cutAfter));
        setTimeout(() => req.destroy(), 100);
      } else req.end(bytes);
    });
  }

  get = (path: string, headers?: Record<string, string>): Promise<Answer> => this.ask('GET', path, undefined, headers);
  post = (path: string, body: unknown = {}, headers?: Record<string, string>): Promise<Answer> => this.ask('POST', path, body, headers);

  /** Sends a file as a browser's form does. `cutAfter` breaks the connection after so many bytes. */
  upload(name: string, bytes: Buffer, cutAfter?: number): Promise<Answer> {
    return this.uploadTo('/api/folios', name, bytes, cutAfter);
  }

  uploadTo(path: string, name: string, bytes: Buffer, cutAfter?: number): Promise<Answer> {
    const edge = 'edge-of-a-part';
    const body = Buffer.concat([
      Buffer.from(
        `--${edge}\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\ncontent-type: application/octet-stream\r\n\r\n`,
      ),
      bytes,
      Buffer.from(`\r\n--${edge}--\r\n`),
    ]);
    return this.ask('POST', path, body, { 'content-type': `multipart/form-data; boundary=${edge}` }, this.port, cutAfter);
  }

  /** Listens to a stream of events; gives what ends it. */
  listen(path: string, heard: (event: ServerEvent) => void, port = this.port): Promise<() => void> {
    return new Promise((resolve, reject) => {
      const req = request({ host: '127.0.0.1', port, path, headers: { host: `127.0.0.1:${port}` } }, (res) => {
        let text = '';
        res.on('data', (chunk: Buffer) => {
          text += chunk.toString();
          const whole = text.split('\n\n');
          text = whole.pop()!;
          for (const line of whole) if (line.startsWith('data: ')) heard(JSON.parse(line.slice(6)) as ServerEvent);
        });
        res.on('error', () => undefined);
        resolve(() => req.destroy());
      });
      req.on('error', reject);
      req.end();
    });
  }

  async stop(): Promise<void> {
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    this.child.kill('SIGTERM');
    await gone;
    await rm(dirname(this.data), { recursive: true, force: true });
  }
}
