import { field, type DataField } from '../marc';

/** The notes and links that are added in one small form, by the field that each is written as. */
export const QUICK_ADDITIONS = {
  summary: { tag: '520', indicators: '  ', codes: ['a'] },
  contents: { tag: '505', indicators: '0 ', codes: ['a'] },
  'reading level': { tag: '521', indicators: '0 ', codes: ['a'] },
  'course programme': { tag: '526', indicators: '0 ', codes: ['a', 'b', 'c', 'd'] },
  'local note': { tag: '590', indicators: '  ', codes: ['a'] },
  link: { tag: '856', indicators: '42', codes: ['u', 'y', 'z'] },
  cover: { tag: '856', indicators: '42', codes: ['u', '3'] },
} as const;
export type QuickAddition = keyof typeof QUICK_ADDITIONS;

/** The field that a quick addition writes: its texts by code, without those left empty; null when nothing was typed. */
export function quickField(which: QuickAddition, texts: Readonly<Record<string, string>>): DataField | null {
  const { tag, indicators, codes } = QUICK_ADDITIONS[which];
  const typed = codes.flatMap((code) => (texts[code]?.trim() ? [code, texts[code].trim()] : []));
  return typed.length ? field(tag, indicators, ...typed) : null;
}
