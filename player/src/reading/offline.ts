/** Lets the browser keep the edition, where it stands on a server that is secure (W3C Service Workers, 6.1); shown in a frame it is only looked at. */
export function keepOffline(file: string): void {
  if (!isSecureContext || window.top !== window || !('serviceWorker' in navigator)) return;
  const { serviceWorker } = navigator;
  // What came before the worker was there is asked for once more, from the browser's own cache, so that it is kept as well.
  if (!serviceWorker.controller)
    serviceWorker.addEventListener(
      'controllerchange',
      () => {
        for (const { name } of performance.getEntriesByType('resource')) void fetch(name, { cache: 'force-cache' }).catch(() => undefined);
      },
      { once: true },
    );
  void serviceWorker.register(file).catch(() => undefined);
}
