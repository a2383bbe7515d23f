/** Names where scans come from, so that what is sent again is counted once: this browser, and this walk. */
export function scanSource(): { device: string; run: string } {
  const kept = localStorage.getItem(DEVICE);
  const device = kept ?? name();
  if (!kept) localStorage.setItem(DEVICE, device);
  return { device, run: name() };
}
const DEVICE = 'osier-device';

/** A name that nobody else has. `crypto.randomUUID` is only there over https and on this machine itself. */
const name = (): string =>
  [...crypto.getRandomValues(new Uint8Array(12))].map((n) => n.toString(16).padStart(2, '0')).join('');
