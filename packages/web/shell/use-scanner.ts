import { useEffect } from 'react';
import { followLive } from '../api/live';
import { burstReader } from './scanner-burst';
import { useScanTarget } from './scan-target';

export const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Listens to a keyboard scanner outside fields and to a networked one, and hands codes to the waiting work. */
export function useScanner(otherwise: (code: string) => void): void {
  useEffect(() => {
    const deliver = (code: string) => (useScanTarget.getState().take ?? otherwise)(code);
    const read = burstReader();
    const onKey = (event: KeyboardEvent) => {
      if (inField(event.target) || event.ctrlKey || event.altKey || event.metaKey) return;
      const code = read(event.key, event.timeStamp);
      if (code === null) return;
      // The Enter belongs to the scan, not to the button that happens to have the focus.
      event.preventDefault();
      event.stopPropagation();
      deliver(code);
    };
    window.addEventListener('keydown', onKey, true);
    const stop = followLive<{ code: string }>('/scanner/events', ({ code }) => deliver(code.trim()));
    return () => {
      window.removeEventListener('keydown', onKey, true);
      stop();
    };
  }, [otherwise]);
}
