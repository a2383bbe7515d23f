import { wrong } from './problem';

/** A place in a list, by what it is sorted by, so that a page begins behind it however long the list is. */
export type Place = readonly (string | number)[];

/** A place as it is handed out with a page. */
export const cursorOf = (place: Place): string => Buffer.from(JSON.stringify(place)).toString('base64url');

/** Reads a place that was handed out; `form` has a text or a number for each part. Null for the beginning. */
export function placeIn<P extends Place>(cursor: string | undefined, form: P): P | null {
  if (!cursor) return null;
  const place = parsed(cursor);
  if (
    !Array.isArray(place) ||
    place.length !== form.length ||
    !form.every((part, i) => typeof part === typeof place[i])
  )
    throw wrong('after', 'This is not a place in the list. Begin with its first page.');
  return place as unknown as P;
}

function parsed(cursor: string): unknown {
  try {
    return JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'));
  } catch {
    return null;
  }
}
