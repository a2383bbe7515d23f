import { controlValue, isData, type MarcRecord } from '../marc';

const spaceless = (text: string): string => text.trim().replace(/\s+/g, ' ');

const numbersAt = (marc: MarcRecord, codes: string): string[] => {
  const [control, agency] = [controlValue(marc, '001'), controlValue(marc, '003')].map(
    (v) => v?.trim() ?? '',
  );
  const others = marc.fields.flatMap((f) =>
    isData(f) && (f.tag === '010' || f.tag === '035')
      ? f.subfields.flatMap((s) => (codes.includes(s.code) && s.value.trim() ? [spaceless(s.value)] : []))
      : [],
  );
  return [...new Set([...(control && agency ? [`(${agency})${control}`] : []), ...others])];
};

/**
 * The numbers by which an authority record is known elsewhere (MARC 21 Authority): 001 with the agency of 003 before it, 010 and 035 with
 * what was cancelled ($z). Each once; 001 without an agency is known to nobody else and left out.
 */
export const authorityNumbers = (marc: MarcRecord): string[] => numbersAt(marc, 'az');

/** The same without those that were cancelled. */
export const currentNumbers = (marc: MarcRecord): string[] => numbersAt(marc, 'a');
