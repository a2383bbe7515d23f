import { useEffect, type RefObject } from 'react';

/** Where lists were left, by their name and address, as long as the page lives. */
const places = new Map<string, number>();

/** Keeps how far a box is scrolled for when one comes back to the same address. */
export function useKeptPlace(box: RefObject<HTMLElement | null>, name: string, isFilled: boolean): void {
  useEffect(() => {
    const element = box.current;
    if (!element || !isFilled) return;
    const query = new URLSearchParams(window.location.search);
    for (const own of ['record', 'copy']) query.delete(own);
    const key = `${name} ${window.location.pathname.split('/')[1]} ${query.toString()}`;
    element.scrollTop = places.get(key) ?? element.scrollTop;
    const onScroll = () => places.set(key, element.scrollTop);
    element.addEventListener('scroll', onScroll, { passive: true });
    return () => element.removeEventListener('scroll', onScroll);
  }, [box, name, isFilled]);
}
