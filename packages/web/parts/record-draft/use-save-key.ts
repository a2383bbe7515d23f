import { useEffect, useRef } from 'react';

/** Ctrl S saves from anywhere on the page, whether capitals are locked or not. */
export function useSaveKey(save: () => void): void {
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'KeyS' || !event.ctrlKey) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
