import { useEffect } from 'react';

/** What takes the focus by itself and is no text: keys that are pressed next still mean what they mean everywhere. */
const FOCUSABLE =
  'a[href], button:not(:disabled), [tabindex="0"], input[type="checkbox"]:not(:disabled), input[type="radio"]:not(:disabled)';

/**
 * Where the focus goes when what had it is gone: the nearest place around it that is still there and takes the focus, or the first
 * thing in it that does. `chain` are the element that had it and what is around it, from the inside out.
 */
export function nearestFocus(chain: readonly HTMLElement[]): HTMLElement | null {
  for (const around of chain.filter((e) => e.isConnected)) {
    const found = around.matches(FOCUSABLE) ? around : around.querySelector<HTMLElement>(FOCUSABLE);
    if (found) return found;
  }
  return null;
}

const isSeen = (e: HTMLElement) => typeof e.checkVisibility !== 'function' || e.checkVisibility();

const chainOf = (element: HTMLElement): HTMLElement[] => {
  const chain = [element];
  for (let at = element.parentElement; at && at !== document.body; at = at.parentElement) chain.push(at);
  return chain;
};

/** Long enough for a part to be drawn anew, or for a part to take the focus by itself. */
const PAUSE = 80;

/** Keeps the focus where the work is: when an act takes away what had it, it does not fall to the page. */
export function useKeptFocus(): void {
  useEffect(() => {
    let chain: HTMLElement[] = [];
    /** The same of what had the focus before a sheet came over the page. */
    let under: HTMLElement[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      const [last] = chain;
      if (document.activeElement !== document.body || !last || (last.isConnected && isSeen(last))) return;
      (
        nearestFocus(chain.filter(isSeen)) ??
        nearestFocus(under) ??
        document.querySelector<HTMLElement>('.work-list[tabindex="0"]')
      )?.focus();
    };
    const onFocus = (event: FocusEvent) => {
      if (!(event.target instanceof HTMLElement)) return;
      chain = chainOf(event.target);
      if (!event.target.closest('.ant-drawer, .ant-modal-root')) under = chain;
    };
    // What is removed loses the focus without a sound; the page is looked at when it has changed.
    const changes = new MutationObserver(() => {
      if (document.activeElement !== document.body) return;
      clearTimeout(timer);
      timer = setTimeout(look, PAUSE);
    });
    document.addEventListener('focusin', onFocus);
    changes.observe(document.body, { childList: true, subtree: true });
    return () => {
      document.removeEventListener('focusin', onFocus);
      changes.disconnect();
      clearTimeout(timer);
    };
  }, []);
}
