/** Keys closer together than this come from a scanner, not from fingers. */
export const BURST_GAP = 35;
const SHORTEST = 4;

/**
 * Tells a scanner's burst from typing: fed every key with its time (ms), it gives the code when Enter ends a run of at
 * least four keys that came fast on each other, else null. Pure but for what it remembers of the run.
 */
export function burstReader(): (key: string, at: number) => string | null {
  let run = '';
  let last = -Infinity;
  return (key, at) => {
    const fast = at - last <= BURST_GAP;
    last = at;
    if (key === 'Enter') {
      const code = fast && run.length >= SHORTEST ? run : null;
      run = '';
      return code;
    }
    if (key.length !== 1) return null;
    run = fast ? run + key : key;
    return null;
  };
}
