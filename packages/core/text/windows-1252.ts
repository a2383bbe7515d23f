/** Decodes bytes as Windows-1252, the usual truth behind bytes that claim to be UTF-8 and are not. */
export function decodeWindows1252(bytes: Uint8Array): string {
  return new TextDecoder('windows-1252').decode(bytes);
}
