/** What a hand scanner makes of a barcode: mostly right, now and then with a letter, a blank or a digit lost. */
export function misread(code: string, chance: () => number): string {
  const at = chance();
  const place = 1 + Math.floor(chance() * (code.length - 2));
  if (at < 0.9) return code;
  if (at < 0.93) return `A${code}B`;
  if (at < 0.95) return ` ${code}`;
  if (at < 0.98) return code.slice(0, place) + code.slice(place + 1);
  return (
    code.slice(0, place) +
    String((Number(code[place]) + 1 + Math.floor(chance() * 8)) % 10) +
    code.slice(place + 1)
  );
}
