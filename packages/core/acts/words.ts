/** A list of names cut after a few: "A, B and 3 more". */
export function namesInShort(names: readonly string[], most = 3): string {
  if (names.length <= most) return names.join(', ');
  return `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
}

/** A title in quotation marks, short enough for a line. */
export const quoted = (title: string): string => `“${title.length > 60 ? `${title.slice(0, 59)}…` : title}”`;
