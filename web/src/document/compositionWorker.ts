/// <reference lib="webworker" />
import type { ToWorker } from './compositionMessages.ts';

// Messages that come before the typesetter has loaded are kept: with a static import they would be lost.
const early: ToWorker[] = [];
self.onmessage = (e: MessageEvent<ToWorker>) => void early.push(e.data);

void import('./compositionWork.ts').then(({ handle }) => {
  self.onmessage = (e: MessageEvent<ToWorker>) => void handle(e.data);
  for (const message of early) void handle(message);
});
