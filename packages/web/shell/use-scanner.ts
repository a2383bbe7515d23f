import { useEffect } from 'react';
import { followLive } from '../api/live';
import { BURST_GAP, burstReader, readsAsCode } from './scanner-burst';
import { useScanTarget } from './scan-target';
import { useShell } from './shell-store';
import { shellWords as wording } from './words';

const isText = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  inField(target) && (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement);

/** Inputs into which nothing is typed: the focus may come to rest on them, and keys mean what they mean everywhere. */
const TAKES_NO_TEXT = /^(checkbox|radio|button|submit|reset|file|image|range|color)$/;

/** Whether keys go into a field where the focus is. */
export const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
  !(target instanceof HTMLInputElement && TAKES_NO_TEXT.test(target.type));

/** What a field does with scans: `scan` hands them on itself, `text` keeps them as its text, else they are not for it. */
const codesIn = (target: EventTarget | null): string | undefined =>
  target instanceof HTMLElement ? target.dataset.takesCodes : undefined;

/** A text as it stood before a run of keys that may prove to be a scan. */
interface Before {
  readonly field: HTMLInputElement | HTMLTextAreaElement;
  readonly value: string;
}

/** Puts a text back as it was, so that the page learns of it as of typing. */
function restore({ field, value }: Before): void {
  const of = field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  Object.getOwnPropertyDescriptor(of, 'value')!.set!.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/**
 * Tells scans from typing, everywhere on the page. A scan never stays in a text that takes no codes, and its Enter presses and
 * saves nothing there; it goes to the work that waits for scans.
 */
export function scanListener(deliver: (code: string) => void): (event: KeyboardEvent) => void {
  const burst = burstReader();
  let before: Before | null = null;
  let last = -Infinity;
  return (event) => {
    if (event.ctrlKey || event.altKey || event.metaKey || codesIn(event.target) === 'scan') return;
    const { target, key, timeStamp } = event;
    // Every key that does not follow fast on another may begin a scan.
    if (!burst.isRunning(timeStamp) && (timeStamp - last > BURST_GAP || before?.field !== target))
      before = isText(target) ? { field: target, value: target.value } : null;
    last = timeStamp;
    const code = burst.read(key, timeStamp);
    if (code === null && key.length === 1 && burst.isRunning(timeStamp) && !inField(target)) {
      // A letter or mark within a scan is no key of the page.
      event.preventDefault();
      event.stopPropagation();
    }
    if (code === null || (inField(target) && !readsAsCode(code))) return;
    // The Enter belongs to the scan, not to the button or the form that happens to have the focus.
    event.preventDefault();
    event.stopPropagation();
    if (codesIn(target) === 'text') return;
    if (before) restore(before);
    deliver(code);
  };
}

/** Whether a sheet or dialog lies over the page: a scan changes nothing behind it. */
const isCovered = (): boolean =>
  [...document.querySelectorAll<HTMLElement>('.ant-drawer-open, .ant-modal-wrap')].some((e) =>
    typeof e.checkVisibility === 'function' ? e.checkVisibility() : e.style.display !== 'none',
  );

/** Listens to a keyboard scanner and to a networked one, and hands codes to the waiting work. */
export function useScanner(otherwise: (code: string) => void): void {
  useEffect(() => {
    const deliver = (code: string) => {
      const { take, editing } = useScanTarget.getState();
      if (isCovered()) useShell.getState().complain(wording.wasScannedAndNotUsedClose(code));
      else if (take) take(code);
      else if (editing) useShell.getState().complain(wording.wasScannedAndNotUsed(code, editing));
      else otherwise(code);
    };
    const onKey = scanListener(deliver);
    window.addEventListener('keydown', onKey, true);
    const stop = followLive<{ code: string }>('/scanner/events', ({ code }) => deliver(code.trim()));
    return () => {
      window.removeEventListener('keydown', onKey, true);
      stop();
    };
  }, [otherwise]);
}
