import type { Format } from '../format';
import type { Placed } from './view';

const MOST = 20_000;

/**
 * Remembers of which fields a rule has nothing to say: fields with the same tag and the same subfield codes are alike to
 * it, and the same few come again and again.
 */
export function soundShapes(
  isSound: (p: Placed, format: Format) => boolean,
): (p: Placed, format: Format) => boolean {
  const known: Record<Format, Map<string, boolean>> = {
    bibliographic: new Map(),
    authority: new Map(),
    holdings: new Map(),
  };
  return (p, format) => {
    let sound = known[format].get(p.shape);
    if (sound === undefined) {
      sound = isSound(p, format);
      if (known[format].size < MOST) known[format].set(p.shape, sound);
    }
    return sound;
  };
}
