/** Keys closer together than this come from a scanner, in milliseconds; few fingers are so fast, and none for long. */
export const BURST_GAP = 60;
/** A pause within a burst that is bridged: the computer was busy, the scanner was not. */
const BRIDGED = 250;
const SHORTEST = 4;
/** One pause in so many keys is bridged. */
const KEYS_A_PAUSE = 5;

/** Keys that make a capital or a mark of the next one. */
const WITHIN_A_SCAN = new Set(['Shift', 'AltGraph', 'CapsLock', 'NumLock']);

interface Key {
  readonly key: string;
  /** Since the key before it. */
  readonly gap: number;
}

/** Tells a scanner's burst from typing. */
export interface BurstReader {
  /**
   * Fed every key with its time (milliseconds), gives the code when Enter ends a run of at least four keys that came fast on each
   * other, with few pauses; else null. What was typed just before is no part of it.
   */
  read(key: string, at: number): string | null;
  /** Whether keys were coming so fast that they are a scan's, up to shortly before this time (milliseconds). */
  isRunning(at: number): boolean;
}

/** Begins to read; pure but for what it remembers of the run. */
export function burstReader(): BurstReader {
  let run: Key[] = [];
  let last = -Infinity;
  return {
    read(key, at) {
      const gap = at - last;
      if (WITHIN_A_SCAN.has(key)) return null;
      if (key !== 'Enter' && key.length !== 1) {
        // Whoever goes on by Tab or an arrow has ended what was typed.
        run = [];
        return null;
      }
      last = at;
      if (key === 'Enter') {
        const code = gap <= BRIDGED ? scannedAtEnd(run) : null;
        run = [];
        return code;
      }
      run = gap <= BRIDGED ? [...run, { key, gap }] : [{ key, gap: 0 }];
      return null;
    },
    isRunning: (at) =>
      at - last <= BRIDGED && run.length > 2 && run.slice(-2).every((k) => k.gap <= BURST_GAP),
  };
}

/** The longest end of a run that a scanner may have sent. */
function scannedAtEnd(run: readonly Key[]): string | null {
  for (let from = 0; run.length - from >= SHORTEST; from++) {
    const gaps = run.slice(from + 1).map((k) => k.gap);
    const pauses = gaps.filter((gap) => gap > BURST_GAP).length;
    // The first and the last keys of a scan come fast: a pause there stands between typing and a scan.
    const isFirm = gaps[0]! <= BURST_GAP && gaps.at(-1)! <= BURST_GAP;
    if (isFirm && pauses * KEYS_A_PAUSE <= gaps.length)
      return run
        .slice(from)
        .map((k) => k.key)
        .join('');
  }
  return null;
}

/**
 * Whether a text reads as the code of a label: letters, digits and their marks without blanks, at least four digits, and no date.
 * Text expanders and dictation are as fast as a scanner; what they put into a text is not taken out again.
 */
export const readsAsCode = (text: string): boolean =>
  /^[\p{L}\p{N}/+$%-]{6,}$/u.test(text) &&
  text.replace(/\D/g, '').length >= 4 &&
  !/^\d{4}-\d\d-\d\d$/.test(text);
