/** Windows-1252's own characters in 0x80–0x9F, by code point; the five unassigned bytes stand for themselves. */
const CP1252: Record<number, number> = {
  0x20ac: 0x80, 0x201a: 0x82, 0x0192: 0x83, 0x201e: 0x84, 0x2026: 0x85, 0x2020: 0x86, 0x2021: 0x87, 0x02c6: 0x88,
  0x2030: 0x89, 0x0160: 0x8a, 0x2039: 0x8b, 0x0152: 0x8c, 0x017d: 0x8e, 0x2018: 0x91, 0x2019: 0x92, 0x201c: 0x93,
  0x201d: 0x94, 0x2022: 0x95, 0x2013: 0x96, 0x2014: 0x97, 0x02dc: 0x98, 0x2122: 0x99, 0x0161: 0x9a, 0x203a: 0x9b,
  0x0153: 0x9c, 0x017e: 0x9e, 0x0178: 0x9f,
};

/**
 * What a text read before UTF-8 bytes were taken for Windows-1252 and encoded once more ("CafÃ©" → "Café"),
 * or null when the text does not read as sensible UTF-8 after one step back.
 */
export function decodedOnce(text: string): string | null {
  if (!/[\u00c2-\u00f4][\u0080-\u00bf\u0152-\u2122]/.test(text)) return null;
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const byte = code <= 0xff ? code : CP1252[code];
    if (byte === undefined) return null;
    bytes[i] = byte;
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).normalize('NFC');
  } catch {
    return null;
  }
}
