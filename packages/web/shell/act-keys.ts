import { useEffect } from 'react';
import type { KeyLine } from './keys';
import { BURST_GAP } from './scanner-burst';
import { inField } from './use-scanner';

/** An act with a key carries it as `data-key`: one small letter. */
const ACT = '[data-key]';
/** A letter waits so long, in milliseconds: when another key follows faster, both are a scanner's. */
const WAITS = BURST_GAP + 20;

const isSeen = (e: HTMLElement) => typeof e.checkVisibility !== 'function' || e.checkVisibility();
const isOff = (e: HTMLElement) => e instanceof HTMLButtonElement && e.disabled;

/** The act of a key that is on screen; a sheet over the page has its own. */
function actOf(key: string): HTMLElement | undefined {
  const covered = [...document.querySelectorAll<HTMLElement>('.ant-drawer-open, .ant-modal-wrap')].filter(
    isSeen,
  );
  const within: ParentNode = covered.at(-1) ?? document;
  return [...within.querySelectorAll<HTMLElement>(ACT)].find(
    (e) => e.dataset.key === key && isSeen(e) && !isOff(e),
  );
}

/** Does the act: a button is pressed, a field or list to choose from gets the focus. */
function doAct(act: HTMLElement): void {
  if (act instanceof HTMLButtonElement || act instanceof HTMLAnchorElement) act.click();
  else (act.querySelector<HTMLElement>('input, button') ?? act).focus();
}

const nameOf = (act: HTMLElement): string =>
  act.getAttribute('aria-label') ??
  act.querySelector('input')?.getAttribute('aria-label') ??
  act.textContent.trim();

/** The keys of what can be done on this page now, as they are told under `?`. */
export const actsOnPage = (): readonly KeyLine[] =>
  [...document.querySelectorAll<HTMLElement>(ACT)]
    .filter((e) => isSeen(e) && !isOff(e))
    .map((e) => [e.dataset.key ?? '', nameOf(e)] as const);

/** Letters that do the acts of the page, outside fields. */
export function useActKeys(): void {
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      clearTimeout(waiting);
      const isPlain = !event.ctrlKey && !event.altKey && !event.metaKey && !event.repeat;
      if (!isPlain || event.defaultPrevented || inField(event.target) || !/^[a-z]$/.test(event.key)) return;
      const { key } = event;
      const act = actOf(key);
      // The piece that it stood in may have given way to the next one meanwhile.
      const standing = () => (act?.isConnected ? act : actOf(key));
      if (act)
        waiting = setTimeout(() => {
          const now = standing();
          if (now) doAct(now);
        }, WAITS);
    };
    window.addEventListener('keydown', onKey);
    return () => {
      clearTimeout(waiting);
      window.removeEventListener('keydown', onKey);
    };
  }, []);
}
