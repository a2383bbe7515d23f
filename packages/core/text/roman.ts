const ROMAN: Record<string, number> = { i: 1, v: 5, x: 10, l: 50, c: 100 };

/** A roman numeral of small letters as a number; null when it is none. */
export function romanNumber(text: string): number | null {
  if (!/^(?=.)(x?c|x?l|l?x{0,3})?(ix|iv|v?i{0,3})$/.test(text)) return null;
  let sum = 0;
  for (let i = 0; i < text.length; i++) {
    const [here, next] = [ROMAN[text[i]!]!, ROMAN[text[i + 1]!] ?? 0];
    sum += here < next ? -here : here;
  }
  return sum;
}
