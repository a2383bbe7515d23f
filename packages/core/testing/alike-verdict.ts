import { alikeForms, gather, type Gathered } from '../headings/alike';
import { field } from '../marc';

/** The verdict on two authority records by themselves, found as in a file: by their buckets first. `heading` is the tag, or tag and first indicator; subfields as `field` takes them. */
export function alikeVerdict(heading: string, a: readonly string[], b: readonly string[]): string {
  const gathered: Gathered = { headings: new Map() };
  for (const subfields of [a, b])
    gather(gathered, {
      leader: '00000nz  a2200000n  4500',
      fields: [field(heading.slice(0, 3), `${heading[3] ?? '1'} `, ...subfields)],
    });
  return alikeForms(gathered)[0]?.verdict ?? 'different';
}
