import { useEffect } from 'react';
import type { ServerEvent } from '@elastic-folio/core/api';

type Listener = (event: ServerEvent) => void;
const listeners = new Set<Listener>();
let source: EventSource | null = null;

/** One stream of events for the whole window, opened with the first listener. */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  source ??= Object.assign(new EventSource('/api/events'), {
    onmessage: (e: MessageEvent<string>) => listeners.forEach((l) => l(JSON.parse(e.data) as ServerEvent)),
  });
  return () => {
    listeners.delete(listener);
    if (listeners.size) return;
    source?.close();
    source = null;
  };
}

export function useServerEvents(listener: Listener): void {
  useEffect(() => listen(listener), [listener]);
}
