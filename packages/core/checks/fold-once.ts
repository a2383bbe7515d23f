import { fold } from '../text';

const MOST = 20_000;
const known = new Map<string, string>();

/** `fold`, remembered: subdivisions, places and terms come again and again. */
export function foldOnce(text: string): string {
  let folded = known.get(text);
  if (folded === undefined) {
    folded = fold(text);
    if (known.size < MOST) known.set(text, folded);
  }
  return folded;
}
