import type { Request, Response } from 'express';
import type { ServerEvent } from '@elastic-folio/core/api';

/** What may wait for one listener; a window in the background of a phone may not read for hours. */
const MOST_WAITING = 256 * 1024;
const ALIVE_MS = 20_000;

/**
 * A stream of server-sent events (WHATWG HTML 9.2) to one window. Where the window does not read as fast as things happen, what
 * it misses is dropped, and once it reads again it is told to ask for everything anew.
 */
export class EventStream {
  private missing = false;

  constructor(
    req: Request,
    private readonly res: Response,
    closed: () => void,
  ) {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache', Connection: 'keep-alive' });
    res.write(': hello\n\n');
    const alive = setInterval(() => this.write(': alive\n\n'), ALIVE_MS);
    req.on('close', () => {
      clearInterval(alive);
      closed();
    });
  }

  /** `text`: the event as JSON, where somebody has it already. */
  send(event: ServerEvent, text = JSON.stringify(event)): void {
    this.write(`data: ${text}\n\n`);
  }

  end(): void {
    this.res.end();
  }

  private write(text: string): void {
    if (this.missing || this.res.destroyed) return;
    if (this.res.writableLength + text.length <= MOST_WAITING) return void this.res.write(text);
    this.missing = true;
    this.res.once('drain', () => {
      this.missing = false;
      this.send({ type: 'again' });
    });
  }
}
