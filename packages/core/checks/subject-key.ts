import type { DataField } from '../marc';
import { fold } from '../text';

/**
 * What makes two subject fields the same heading: tag, subject system and text but for case and punctuation. Where many are
 * compared, `folding` may remember what it gave.
 */
export const subjectKey = (f: DataField, folding: (text: string) => string = fold): string =>
  `${f.tag} ${f.ind2} ${f.subfields.find((s) => s.code === '2')?.value ?? ''} ${f.subfields
    .filter((s) => /[a-z]/.test(s.code))
    .map((s) => `${s.code}${folding(s.value)}`)
    .join('|')}`;

/** Second indicators that name a subject system (MARC 21, 6XX), by the code it has in $2. */
const SYSTEMS: Record<string, string> = {
  '0': 'lcsh',
  '1': 'cyac',
  '2': 'mesh',
  '3': 'nal',
  '5': 'cash',
  '6': 'rvm',
};

/** The code of the subject system of a field; empty when the field names none. */
export const thesaurusOf = (f: DataField): string =>
  f.ind2 === '7' ? (f.subfields.find((s) => s.code === '2')?.value.trim() ?? '') : (SYSTEMS[f.ind2] ?? '');
