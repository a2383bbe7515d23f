/** Text of a file in the encoding that it says or shows: UTF-8 and UTF-16 by their marks, UTF-8 where it is right, else Windows-1252. */
export function decodedText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).replace(/^\ufeff/, '');
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
