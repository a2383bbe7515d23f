/**
 * Barcodes in use that a scan may have been meant for: one character dropped, one misread, one too many, or two
 * neighbours swapped. Tries every such code, so the time does not depend on how many are in use; letters are tried only
 * where the code has some.
 */
export function nearMisses(code: string, inUse: (candidate: string) => boolean): string[] {
  const found = new Set<string>();
  const look = (candidate: string) => {
    if (candidate !== code && inUse(candidate)) found.add(candidate);
  };
  const characters = [
    ...'0123456789',
    ...(/[A-Z]/.test(code) ? LETTERS : []),
    ...(/[a-z]/.test(code) ? LETTERS.map((l) => l.toLowerCase()) : []),
  ];
  for (let i = 0; i <= code.length; i++) {
    for (const char of characters) {
      look(code.slice(0, i) + char + code.slice(i));
      if (i < code.length) look(code.slice(0, i) + char + code.slice(i + 1));
    }
    if (i < code.length) look(code.slice(0, i) + code.slice(i + 1));
    if (i + 1 < code.length) look(code.slice(0, i) + code[i + 1] + code[i] + code.slice(i + 2));
  }
  return [...found].sort();
}

const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
