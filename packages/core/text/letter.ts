/** Whether a text begins with a letter of ASCII: a look that costs less than an expression. */
export function startsWithLetter(text: string): boolean {
  const c = text.charCodeAt(0) | 0x20;
  return c >= 0x61 && c <= 0x7a;
}
