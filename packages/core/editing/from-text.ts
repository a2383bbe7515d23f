import { materialOf } from '../format';
import { controlValue, dataFields, firstValue, isControl, values, type MarcRecord } from '../marc';

/** What the texts of a record say about positions of its 008 and leader, by where they begin. */
type Said = ReadonlyMap<number, string>;

/** Dates as they are typed: `2019`, `[2019]`, `©2019`, `2017-2019`. */
function datesSaid(record: MarcRecord): readonly [type: string, one: string, two: string] | null {
  const written = dataFields(record, /^26[04]$/)
    .filter((f) => f.tag === '260' || f.ind2 !== '4')
    .flatMap((f) => values(f, 'c'))
    .join(' ');
  const copyright = dataFields(record, '264')
    .filter((f) => f.ind2 === '4')
    .flatMap((f) => values(f, 'c'))
    .join(' ');
  const years = [...new Set(written.match(/\d{4}/g) ?? [])];
  const [one, two] = years;
  if (!one) return null;
  if (two) return ['m', one, two];
  const [protectedBy] = copyright.match(/\d{4}/) ?? [];
  return protectedBy && protectedBy !== one ? ['t', one, protectedBy] : ['s', one, '    '];
}

/** Positions of 008 that follow from what is typed (MARC 21, 008: books and all materials). */
function positionsSaid(record: MarcRecord): Said {
  const said = new Map<number, string>();
  const dates = datesSaid(record);
  if (dates && materialOf(record.leader) !== 'Continuing Resources') said.set(6, dates.join(''));
  const language = firstValue(record, '041', 'a');
  if (language && /^[a-z]{3}$/.test(language)) said.set(35, language);
  if (materialOf(record.leader) !== 'Books') return said;
  const shown = dataFields(record, '300')
    .flatMap((f) => values(f, 'b'))
    .join(' ');
  const pictures = `${/\bill(us|\.|\b)/i.test(shown) ? 'a' : ''}${/\bmaps?\b/i.test(shown) ? 'b' : ''}`;
  if (pictures) said.set(18, pictures.padEnd(4));
  const notes = dataFields(record, /^50[04]$/)
    .flatMap((f) => values(f, 'a'))
    .join(' ');
  if (dataFields(record, '504').length && /bibliogra/i.test(notes)) said.set(24, 'b   ');
  if (/\bindex\b/i.test(notes)) said.set(31, '1');
  return said;
}

/**
 * Fills positions of 008 from what was typed: those that follow from the texts now and did not before. What somebody coded by hand
 * stays, as long as the texts say the same.
 */
export function filledFromText(before: MarcRecord, after: MarcRecord): MarcRecord {
  const fixed = controlValue(after, '008');
  if (fixed?.length !== 40) return after;
  const was = positionsSaid(before);
  let value = fixed;
  for (const [at, text] of positionsSaid(after))
    if (was.get(at) !== text) value = value.slice(0, at) + text + value.slice(at + text.length);
  if (value === fixed) return after;
  return {
    ...after,
    fields: after.fields.map((f) => (f.tag === '008' && isControl(f) ? { ...f, value } : f)),
  };
}
