import { decodedOnce } from '../text';
import { isControl, type MarcRecord } from './record';
import type { Repair } from './repair';

/** Every lead character of UTF-8 read as Windows-1252, with one that can follow it. */
const SUSPECT = /[\u00c2-\u00f4][\u0080-\u00bf\u0152-\u2122]/;

/**
 * The record as it was before its UTF-8 was taken for Windows-1252 and encoded once more, when that is certain: every
 * text of it that is not ASCII reads as sensible UTF-8 after one step back. Null when it is not.
 */
export function readOnceMore(record: MarcRecord): MarcRecord | null {
  let found = false;
  const all = record.fields.every((f) =>
    (isControl(f) ? [f.value] : f.subfields.map((s) => s.value)).every((text) => {
      if (!NOT_ASCII.test(text)) return true;
      found = true;
      return SUSPECT.test(text) && decodedOnce(text) !== null;
    }),
  );
  if (!found || !all) return null;
  const once = (text: string) => (NOT_ASCII.test(text) ? decodedOnce(text)! : text);
  return {
    ...record,
    fields: record.fields.map((f) =>
      isControl(f)
        ? { ...f, value: once(f.value) }
        : { ...f, subfields: f.subfields.map((s) => ({ ...s, value: once(s.value) })) },
    ),
  };
}

const NOT_ASCII = /[^\u0000-\u007f]/;

/** What to tell about it. */
export const twiceEncodedRepair = (offset: number): Repair => ({
  code: 'twice-encoded',
  offset,
  message: 'The text was encoded twice as UTF-8; it was decoded twice.',
  repaired: true,
});
