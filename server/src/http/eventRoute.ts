import type { Router } from 'express';
import type { ServerEvent } from '@elastic-folio/core/api';
import type { EventHub } from '../events.ts';
import { EventStream } from './eventStream.ts';

/** Edits by others, runs, changes of the shelf. */
export function eventRoute(router: Router, events: EventHub): void {
  router.get('/events', (req, res) => {
    const send = (event: ServerEvent, text: string): void => stream.send(event, text);
    const stream = new EventStream(req, res, () => void events.off('event', send));
    events.on('event', send);
  });
}
