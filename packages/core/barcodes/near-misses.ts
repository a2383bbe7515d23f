/**
 * Barcodes in use that a scan may have been meant for: one digit dropped, one misread, one too many, or two
 * neighbours swapped. Tries every such code, so the time does not depend on how many are in use.
 */
export function nearMisses(code: string, inUse: (candidate: string) => boolean): string[] {
  if (!/^\d+$/.test(code)) return [];
  const found = new Set<string>();
  const look = (candidate: string) => {
    if (candidate !== code && inUse(candidate)) found.add(candidate);
  };
  for (let i = 0; i <= code.length; i++) {
    for (let d = 0; d <= 9; d++) {
      look(code.slice(0, i) + d + code.slice(i));
      if (i < code.length) look(code.slice(0, i) + d + code.slice(i + 1));
    }
    if (i < code.length) look(code.slice(0, i) + code.slice(i + 1));
    if (i + 1 < code.length) look(code.slice(0, i) + code[i + 1] + code[i] + code.slice(i + 2));
  }
  return [...found].sort();
}
