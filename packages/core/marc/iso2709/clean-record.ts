import type { MarcRecord } from '../record';
import { readOnceMore } from '../twice-encoded';
import type { CleanLayout } from './clean-layout';
import type { FieldCutter } from './cut-fields';

/** The record of a clean layout; null when anything in its fields has to be told or looked at closer. */
export function cleanRecord(layout: CleanLayout, cut: FieldCutter): MarcRecord | null {
  const { bytes, start, end, data, count, tags, ends, utf8 } = layout;
  if (count === 0) return null;
  let sound = true;
  const run = { bytes, from: data, to: end - 1, count, tags, ends };
  const found = cut(run, utf8 ? 'utf8' : 'marc8', () => (sound = false));
  if (!found || !sound) return null;
  const record = { leader: leaderAt(bytes, start), fields: found.fields };
  return found.ascii || readOnceMore(record) === null ? record : null;
}

/** The leader, which from then on says UTF-8. */
function leaderAt(bytes: Uint8Array, start: number): string {
  const text = String.fromCharCode.apply(null, bytes.subarray(start, start + 24) as unknown as number[]);
  return `${text.slice(0, 9)}a${text.slice(10)}`;
}
