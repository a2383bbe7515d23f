/** Whether the page can be opened without network here: browsers allow it over https and on this machine itself. */
export const canOpenOffline = (): boolean => window.isSecureContext && 'serviceWorker' in navigator;

/** Lets the walk be opened without network from now on: what it needs is kept by the browser. */
export function openOffline(): void {
  if (canOpenOffline())
    navigator.serviceWorker.register('/walk-offline.js', { scope: '/stocktake/' }).catch(() => undefined);
}
