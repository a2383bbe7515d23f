import { controlValue, isData, values, type DataField, type MarcRecord } from '../../marc';
import { keptForm, type Heading } from '../heading';
import { vocabularyOfAuthority } from '../vocabulary';
import { formIn, gather, headingName, type Form, type FormUse, type Gathered } from './forms';

/** A heading with what its records say of it. */
export interface SeenHeading {
  readonly id: number;
  readonly form: Form;
  readonly use: FormUse;
  /** First and last year of publication; null where none is known. */
  readonly years: readonly [number, number] | null;
  /** Codes of 008/35, and relators, the most frequent first. */
  readonly languages: readonly string[];
  readonly roles: readonly string[];
  /** Sources of its authority record (670 $a). */
  readonly sources: readonly string[];
}

const MOST = 4;
const frequent = (found: readonly string[]): string[] => {
  const n = new Map<string, number>();
  for (const one of found) n.set(one, (n.get(one) ?? 0) + 1);
  return [...n]
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .slice(0, MOST)
    .map(([one]) => one);
};

/** Some headings as the records that carry them show them; those without a form that can be compared are left out. */
export function seenInRecords(
  headings: readonly { readonly id: number; readonly heading: Heading }[],
  records: readonly MarcRecord[],
): SeenHeading[] {
  const gathered: Gathered = { headings: new Map() };
  // The form of the catalogue, whatever its authority record says of itself.
  for (const { heading } of headings) gather(gathered, { ...heading.marc, leader: AUTHORITY });
  for (const record of records) gather(gathered, record, true);
  return headings.flatMap(({ id, heading }) => {
    const form = formIn(keptForm(heading), vocabularyOfAuthority(heading.marc));
    const use = form && gathered.headings.get(headingName(form))?.use;
    if (!form || !use) return [];
    const own = records.flatMap((record) => {
      const fields = record.fields.filter((f): f is DataField => isData(f) && formIn(f)?.key === form.key);
      return fields.length ? [{ record, fields }] : [];
    });
    const years = [...use.years].sort((a, b) => a - b);
    return {
      id,
      form,
      use,
      years: years.length ? ([years[0]!, years.at(-1)!] as const) : null,
      languages: frequent(
        own
          .map((o) => controlValue(o.record, '008')?.slice(35, 38) ?? '')
          .filter((l) => /^[a-z]{3}$/.test(l)),
      ),
      roles: frequent(
        own.flatMap((o) => o.fields.flatMap((f) => values(f, 'e')).map((e) => e.replace(/[\s.,;]+$/, ''))),
      ),
      sources: heading.marc.fields
        .flatMap((f) => (isData(f) && f.tag === '670' ? values(f, 'a') : []))
        .slice(0, MOST),
    };
  });
}
const AUTHORITY = '00000nz  a2200000n  4500';
