import { windows1252Byte } from './windows-1252';

/**
 * What a text read before UTF-8 bytes were taken for Windows-1252 and encoded once more ("CafÃ©" → "Café"),
 * or null when the text does not read as sensible UTF-8 after one step back.
 */
export function decodedOnce(text: string): string | null {
  if (!/[\u00c2-\u00f4][\u0080-\u00bf\u0152-\u2122]/.test(text)) return null;
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) {
    const byte = windows1252Byte(text.charCodeAt(i));
    if (byte === null) return null;
    bytes[i] = byte;
  }
  try {
    const once = new TextDecoder('utf-8', { fatal: true }).decode(bytes).normalize('NFC');
    return /[\u0080-\u009f\ufffd\ue000-\uf8ff]/.test(once) ? null : once;
  } catch {
    return null;
  }
}
