import { useEffect } from 'react';
import type { ServerEvent } from '@elastic-folio/core/api';
import { API_ROOT } from './root.ts';

type Listener = (event: ServerEvent) => void;
interface Subscription {
  listener: Listener;
  onConnected: (() => void) | undefined;
}
const subscriptions = new Set<Subscription>();
let source: EventSource | null = null;

/**
 * One stream of events for the whole window, opened with the first listener. `onConnected` is called
 * whenever the stream is up, at first and after an interruption: what happened before was not heard.
 */
export function listen(listener: Listener, onConnected?: () => void): () => void {
  const subscription = { listener, onConnected };
  subscriptions.add(subscription);
  if (source?.readyState === EventSource.OPEN) onConnected?.();
  source ??= Object.assign(new EventSource(`${API_ROOT}/events`), {
    onopen: () => subscriptions.forEach((s) => s.onConnected?.()),
    onmessage: (e: MessageEvent<string>) => subscriptions.forEach((s) => s.listener(JSON.parse(e.data) as ServerEvent)),
  });
  return () => {
    subscriptions.delete(subscription);
    if (subscriptions.size) return;
    source?.close();
    source = null;
  };
}

export function useServerEvents(listener: Listener): void {
  useEffect(() => listen(listener), [listener]);
}
