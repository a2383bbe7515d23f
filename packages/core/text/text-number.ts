/** Letters by which texts lie near each other, and the numbers that one of them may have. */
const [ORDERED, LETTERS] = [4, 32];

/**
 * A number of 52 bits for a text, the same every time: four letters of its beginning, so that an index of the numbers of texts that come in their order is written in few
 * places, and 32 bits of all of it (FNV-1a, stirred as the end of MurmurHash3 does). Two texts have the same number very seldom, not never.
 */
export function textNumber(text: string): number {
  let order = 0;
  for (let i = 0; i < ORDERED; i++)
    order = order * LETTERS + (i < text.length ? text.charCodeAt(i) % LETTERS : 0);
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return order * 2 ** 32 + ((hash ^ (hash >>> 16)) >>> 0);
}
