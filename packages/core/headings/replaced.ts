import { controlValue, isData, type DataField, type MarcRecord, type Subfield } from '../marc';
import { standingAlone } from './normal-form';

const of = (marc: MarcRecord, tag: string): DataField[] =>
  marc.fields.filter((f): f is DataField => isData(f) && f.tag === tag);
const texts = (fields: readonly DataField[], codes: string): string[] =>
  fields.flatMap((f) => f.subfields.flatMap((s) => (codes.includes(s.code) ? [s.value.trim()] : [])));

/** The number by which others know an authority record: of its agency, with the code of that before it. */
function numberOf(marc: MarcRecord): string | null {
  const [own] = texts(of(marc, '010'), 'a');
  const control = controlValue(marc, '001')?.trim();
  const agency = controlValue(marc, '003')?.trim();
  return own ?? (control ? (agency ? `(${agency})${control}` : control) : null);
}

/** Whether somebody has established a heading that is lost: it has sources of its own. */
const isSourced = (marc: MarcRecord): boolean => of(marc, '670').length > 0;

/** The field behind which one with a tag stands. */
const inOrder = (fields: MarcRecord['fields'], added: DataField): MarcRecord['fields'] => {
  const at = fields.findIndex((f) => f.tag > added.tag);
  return at < 0 ? [...fields, added] : [...fields.slice(0, at), added, ...fields.slice(at)];
};

/**
 * A kept authority record that answers to the numbers of the lost ones: as cancelled numbers in 010 $z and 035 $z (MARC 21 Authority, 010 and
 * 035), each once.
 */
export function withLostNumbers(kept: MarcRecord, lost: readonly MarcRecord[]): MarcRecord {
  let fields = kept.fields;
  const known = new Set(texts([...of(kept, '010'), ...of(kept, '035')], 'az'));
  for (const other of lost)
    for (const tag of ['010', '035'] as const)
      for (const number of texts(of(other, tag), 'az')) {
        if (number === '' || known.has(number)) continue;
        known.add(number);
        const subfield: Subfield = { code: 'z', value: number };
        const held =
          tag === '010' ? fields.find((f): f is DataField => isData(f) && f.tag === '010') : undefined;
        fields = held
          ? fields.map((f) => (f === held ? { ...held, subfields: [...held.subfields, subfield] } : f))
          : inOrder(fields, { tag, ind1: ' ', ind2: ' ', subfields: [subfield] });
      }
  return fields === kept.fields ? kept : { ...kept, fields };
}

/**
 * A lost authority record as it is from then on: deleted and replaced (leader 05 `x`), with the heading that takes its place in 682 and that one's
 * number in $0 (MARC 21 Authority, leader and 682).
 */
export function asReplaced(lost: MarcRecord, kept: MarcRecord): MarcRecord {
  const heading = kept.fields.find((f): f is DataField => isData(f) && f.tag[0] === '1');
  const text = standingAlone(heading?.subfields.filter((s) => /[a-z]/.test(s.code)) ?? [])
    .map((s) => s.value)
    .join(' ');
  const number = numberOf(kept);
  const note: DataField = {
    ...{ tag: '682', ind1: ' ', ind2: ' ' },
    subfields: [
      { code: 'i', value: 'Replaced by' },
      { code: 'a', value: text },
      ...(number ? [{ code: '0', value: number }] : []),
    ],
  };
  const leader = lost.leader.length > 5 ? `${lost.leader.slice(0, 5)}x${lost.leader.slice(6)}` : lost.leader;
  return { leader, fields: inOrder(lost.fields, note) };
}

/** A heading that takes the place of a deleted one. */
export interface Replacement {
  /** As it is written; its parts are not told apart. */
  readonly text: string;
  /** Its authority numbers, if they are given. */
  readonly numbers: readonly string[];
}

/** What takes the place of a deleted authority record (MARC 21 Authority, 682: $a a replacement heading, with its number in $0 behind it), in its order. */
export function replacementsOf(marc: MarcRecord): Replacement[] {
  const found: { text: string; numbers: string[] }[] = [];
  for (const { subfields } of of(marc, '682'))
    for (const { code, value } of subfields) {
      if (code === 'a' && value.trim()) found.push({ text: value.trim(), numbers: [] });
      if (code === '0' && value.trim()) found.at(-1)?.numbers.push(value.trim().replace(/\s+/g, ' '));
    }
  return found;
}

/** A see-from of an established form that was valid before (MARC 21 Authority, tracings: $w nne, an earlier established form of heading). */
export const earlierForm = (tracing: DataField, marc: MarcRecord): DataField =>
  isSourced(marc) && !tracing.subfields.some((s) => s.code === 'w')
    ? { ...tracing, subfields: [{ code: 'w', value: 'nne' }, ...tracing.subfields] }
    : tracing;
