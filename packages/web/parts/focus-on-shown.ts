import { useEffect, useRef, type RefObject } from 'react';

/** What has just appeared takes the focus, so that it is read and its buttons are the next things reached. */
export function useFocusOnShown<E extends HTMLElement>(): RefObject<E | null> {
  const shown = useRef<E>(null);
  useEffect(() => {
    shown.current?.focus();
  }, []);
  return shown;
}
