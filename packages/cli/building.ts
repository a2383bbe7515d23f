import { encodeUtf8 } from '@osier/core/marc';

/** Bytes put one behind another; text is encoded into place. */
export interface Building {
  put(part: string | Uint8Array): void;
  /** Lets `write` fill `room` bytes from `at` and give the place after what it wrote, or -1 for nothing. */
  fill(room: number, write: (buffer: Uint8Array, at: number) => number): boolean;
  bytes(): Uint8Array;
}

export function building(size = 1 << 20): Building {
  let buffer = Buffer.allocUnsafeSlow(size);
  let used = 0;
  const ensure = (room: number) => {
    if (used + room <= buffer.length) return;
    const larger = Buffer.allocUnsafeSlow(Math.max(buffer.length * 2, used + room));
    buffer.copy(larger, 0, 0, used);
    buffer = larger;
  };
  return {
    put(part) {
      // UTF-8 takes at most three bytes a UTF-16 unit.
      if (typeof part === 'string' && part.length < 1 << 16) {
        ensure(part.length * 3);
        used += buffer.write(part, used);
        return;
      }
      const bytes = typeof part === 'string' ? encodeUtf8(part) : part;
      ensure(bytes.length);
      buffer.set(bytes, used);
      used += bytes.length;
    },
    fill(room, write) {
      ensure(room);
      const after = write(buffer, used);
      if (after < 0) return false;
      used = after;
      return true;
    },
    bytes: () => buffer.subarray(0, used),
  };
}
