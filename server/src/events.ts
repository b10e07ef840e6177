import { EventEmitter } from 'node:events';
import { heardRow } from '@elastic-folio/core';
import type { LogRow } from '@elastic-folio/core';
import type { ServerEvent } from '@elastic-folio/core/api';

/** Rows go along with an event up to so many characters of JSON; larger ones are asked for by those who want them. */
const MOST_ROWS = 16_000;

/** Tells open windows what changed; the same event goes to many, and is written out once. */
export class EventHub extends EventEmitter<{ event: [event: ServerEvent, text: string] }> {
  constructor() {
    super();
    this.setMaxListeners(0);
  }

  tell(event: ServerEvent): void {
    this.emit('event', event, JSON.stringify(event));
  }

  /** Tells of new rows of a document; none are no news. */
  edited(folio: string, rows: readonly LogRow[]): void {
    const last = rows[rows.length - 1];
    if (!last) return;
    const event: ServerEvent = { type: 'edits', folio, seq: last.seq, rows: rows.map(heardRow) };
    const text = JSON.stringify(event);
    if (text.length <= MOST_ROWS) this.emit('event', event, text);
    else this.tell({ type: 'edits', folio, seq: last.seq });
  }
}
