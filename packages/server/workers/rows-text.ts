/** Digits of the greatest whole number that is exact (2^53), and characters of a row: two numbers, their quotes, a colon and a comma. */
const [DIGITS, ROW] = [16, 36];
/** Of a number that is longer the last digits are written by themselves: whole numbers of 32 bits are divided faster. */
const [LOW, LOW_DIGITS] = [1e8, 8];
const ZERO = 0x30;

function writtenDigits(bytes: Uint8Array, end: number, number: number, atLeast: number): number {
  let [at, left] = [end, number | 0];
  do {
    const rest = (left / 10) | 0;
    bytes[--at] = ZERO + left - rest * 10;
    left = rest;
  } while (left > 0 || end - at < atLeast);
  return at;
}

/** Puts a whole number, written in digits, behind what is there; gives where it ends. */
function withNumber(bytes: Uint8Array, at: number, number: number, digits: Uint8Array): number {
  const high = Math.floor(number / LOW);
  let begin = writtenDigits(digits, DIGITS, number - high * LOW, high > 0 ? LOW_DIGITS : 1);
  if (high > 0) begin = writtenDigits(digits, begin, high, 1);
  bytes.set(digits.subarray(begin), at);
  return at + DIGITS - begin;
}

/** Makes the text of a JSON object of up to so many rows, each a key and a value, both whole numbers below 10^16; a key may come more than once. */
export function rowsText(atMost: number): { add(key: number, value: number): void; text(): string } {
  const bytes = Buffer.allocUnsafe(atMost * ROW + 2);
  const digits = new Uint8Array(DIGITS);
  let at = bytes.write('{');
  return {
    add(key, value) {
      if (at > 1) bytes[at++] = 0x2c;
      bytes[at++] = 0x22;
      at = withNumber(bytes, at, key, digits);
      bytes[at++] = 0x22;
      bytes[at++] = 0x3a;
      at = withNumber(bytes, at, value, digits);
    },
    text() {
      bytes[at] = 0x7d;
      return bytes.toString('latin1', 0, at + 1);
    },
  };
}
