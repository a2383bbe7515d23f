import { useCallback, useEffect, useRef } from 'react';

/** A handler that stays the same one from drawing to drawing and does what the last one given does, so that a part that is given it need not be drawn anew. */
export function useStable<A extends readonly unknown[], R>(handler: (...args: A) => R): (...args: A) => R {
  const last = useRef(handler);
  useEffect(() => {
    last.current = handler;
  });
  return useCallback((...args: A) => last.current(...args), []);
}
