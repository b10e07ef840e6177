import type { Router } from 'express';
import type { ServerEvent } from '@elastic-folio/core/api';
import type { EventHub } from '../events.ts';

/** Server-sent events (WHATWG HTML 9.2): edits by others, runs, changes of the shelf. */
export function eventRoute(router: Router, events: EventHub): void {
  router.get('/events', (req, res) => {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache', Connection: 'keep-alive' });
    res.write(': hello\n\n');
    const send = (event: ServerEvent): void => void res.write(`data: ${JSON.stringify(event)}\n\n`);
    const alive = setInterval(() => res.write(': alive\n\n'), 20_000);
    events.on('event', send);
    req.on('close', () => {
      clearInterval(alive);
      events.off('event', send);
    });
  });
}
