import { useEffect, useRef, type RefObject } from 'react';

const LINES = '[role^=menuitem]:not([aria-disabled=true])';
const STEPS: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1 };
const isForMenu = (e: KeyboardEvent) =>
  !e.ctrlKey && !e.altKey && !e.metaKey && (e.key === 'Enter' || e.key === ' ' || e.key in STEPS);

/**
 * Gives the first line of a menu the focus as soon as the menu has one, which may be long after it opened: its
 * lines may still be read from the server. Enter, space and the arrows that are pressed until then are kept, and
 * obeyed in their order.
 */
export function useMenuFocus(isOpen: boolean): RefObject<HTMLDivElement | null> {
  const popup = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!isOpen) return;
    const early: string[] = [];
    let frame = 0;
    const lines = () => [...(popup.current?.querySelectorAll<HTMLElement>(LINES) ?? [])];
    const focused = () => lines().findIndex((e) => e === document.activeElement);
    const keep = (event: KeyboardEvent) => {
      if (!isForMenu(event)) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      early.push(event.key);
    };
    const obey = (key: string) => {
      const all = lines();
      const step = STEPS[key];
      if (step === undefined) {
        const line = all[focused()];
        (line?.querySelector('a') ?? line)?.click();
      } else all[(focused() + step + all.length) % all.length]?.focus({ preventScroll: true });
    };
    const stop = () => {
      cancelAnimationFrame(frame);
      window.removeEventListener('keydown', keep, true);
    };
    const take = () => {
      lines()[0]?.focus({ preventScroll: true });
      if (focused() < 0) {
        frame = requestAnimationFrame(take);
        return;
      }
      stop();
      early.splice(0).forEach(obey);
    };
    window.addEventListener('keydown', keep, true);
    frame = requestAnimationFrame(take);
    return stop;
  }, [isOpen]);
  return popup;
}
