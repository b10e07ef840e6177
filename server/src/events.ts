import { EventEmitter } from 'node:events';
import type { ServerEvent } from '@elastic-folio/core/api';

/** Tells open windows what changed. */
export class EventHub extends EventEmitter<{ event: [ServerEvent] }> {
  constructor() {
    super();
    this.setMaxListeners(0);
  }

  tell(event: ServerEvent): void {
    this.emit('event', event);
  }
}
