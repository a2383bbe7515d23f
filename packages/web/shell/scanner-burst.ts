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

/**
 * Whether a text reads as the code of a label: letters, digits and their marks without blanks, at least four digits, and no date.
 * Text expanders and dictation are as fast as a scanner; what they put into a text is not taken out again.
 */
export const readsAsCode = (text: string): boolean =>
  /^[\p{L}\p{N}/+$%-]{6,}$/u.test(text) &&
  text.replace(/\D/g, '').length >= 4 &&
  !/^\d{4}-\d\d-\d\d$/.test(text);
