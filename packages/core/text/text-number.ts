/** Letters by which texts lie near each other, and the numbers that one of them may have. */
const [ORDERED, LETTERS] = [4, 32];

/** The hash of a text that goes on behind what is hashed already, a letter of it left out (FNV-1a). */
function hashed(hash: number, text: string, without: number): number {
  let h = hash;
  for (let i = 0; i < text.length; i++) if (i !== without) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h;
}

/** Four letters of the beginning of a text, and of what stands behind it. */
function ordered(text: string, behind: string, without: number): number {
  let [order, n] = [0, 0];
  for (let i = 0; i < text.length && n < ORDERED; i++) {
    if (i === without) continue;
    order = order * LETTERS + (text.charCodeAt(i) % LETTERS);
    n++;
  }
  for (let i = 0; n < ORDERED; i++, n++)
    order = order * LETTERS + (i < behind.length ? behind.charCodeAt(i) % LETTERS : 0);
  return order;
}

/**
 * A number of 52 bits for a text, the same every time: four letters of its beginning, so that an index of the numbers of texts that come in their order is written in few
 * places, and 32 bits of all of it (FNV-1a, stirred as the end of MurmurHash3 does). Two texts have the same number very seldom, not never. Those of another `kind`, a number of 32
 * bits, have others. What stands `behind` the text belongs to it; the letter at `without`, a place in the text, does not.
 */
export function textNumber(text: string, kind = 0, behind = '', without = -1): number {
  let hash = hashed(hashed(0x811c9dc5 ^ kind, text, without), behind, -1);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ordered(text, behind, without) * 2 ** 32 + ((hash ^ (hash >>> 16)) >>> 0);
}
