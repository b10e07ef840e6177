/** Lets the browser keep the edition, where it stands on a server that is secure (W3C Service Workers, 6.1); shown in a frame it is only looked at. */
export function keepOffline(file: string): void {
  if (!isSecureContext || window.top !== window || !('serviceWorker' in navigator)) return;
  void navigator.serviceWorker.register(file).catch(() => undefined);
}
