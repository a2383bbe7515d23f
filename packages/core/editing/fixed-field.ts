import {
  fieldDefinition,
  formatOf,
  LENGTH_007,
  materialOf,
  positionsOf,
  readPositions,
  type PositionDefinition,
} from '../format';
import { controlValue, isControl, type MarcRecord } from '../marc';

/** A fixed field with a code put at a position; what is shorter is filled up with blanks. */
export const withPosition = (
  value: string,
  { from, to }: Pick<PositionDefinition, 'from' | 'to'>,
  code: string,
): string => {
  const filled = value.padEnd(to);
  return filled.slice(0, from) + code.padEnd(to - from).slice(0, to - from) + filled.slice(to);
};

/** What a position says where nothing is known: a blank where that is defined, else no attempt to code, else the first code. */
function unsaid({ from, to, codes, unit }: PositionDefinition): string {
  const length = to - from;
  const one = unit ?? length;
  const all = Object.keys(codes);
  const repeated = (code: string) => code.repeat(length / one).slice(0, length);
  if (all.length === 0) return ' '.repeat(length);
  if (all.includes(' '.repeat(one)) || all.includes('#')) return ' '.repeat(length);
  if (all.includes('0') && all.includes('1') && length === 1) return '0';
  const fill = '|'.repeat(one);
  return repeated(all.includes(fill) || all.includes('|') ? fill : (all[0] ?? ' ').slice(0, one));
}

/** Lengths of the fixed fields of bibliographic records. */
const lengthOf = (tag: string, value: string): number =>
  tag === '006'
    ? 18
    : tag === '008'
      ? 40
      : tag === '007'
        ? (LENGTH_007[value[0] ?? '']?.at(-1) ?? 1)
        : value.length;

/** A fixed field in which nothing is said yet, for a kind of record: 008, or 006 or 007 that begins with a category. */
export function emptyFixedField(tag: string, leader: string, category = ''): string {
  const positions = positionsOf(tag, category, leader);
  let value = category.padEnd(lengthOf(tag, category));
  for (const p of positions) if (p.from > 0 || category === '') value = withPosition(value, p, unsaid(p));
  return value;
}

/** The categories that 006 or 007 may begin with, with their names. */
export function fixedCategories(
  tag: '006' | '007',
): readonly { readonly code: string; readonly name: string }[] {
  const { positions } = fieldDefinition(tag) ?? {};
  const [first] = (tag === '007' ? positions?.Common : positions?.['All Materials']) ?? [];
  return Object.entries(first?.codes ?? {}).map(([code, name]) => ({ code, name }));
}

/** A position of the old layout that has no place in the new one. */
export interface LostPosition {
  readonly name: string;
  readonly value: string;
  readonly meaning: string | undefined;
}

/** A record of another material, and what of its 008 was lost by that. */
export interface Relaid {
  readonly record: MarcRecord;
  readonly lost: readonly LostPosition[];
}

/**
 * Gives a record another leader. Where that makes it another material, 008/18-34 are laid out anew: what a position of the same
 * name says is carried over when the new layout has that code, the rest is lost and said.
 */
export function withLeader(record: MarcRecord, leader: string): Relaid {
  const value = controlValue(record, '008');
  const isSame =
    formatOf(leader) === formatOf(record.leader) && materialOf(leader) === materialOf(record.leader);
  if (isSame || value?.length !== 40 || formatOf(leader) !== 'bibliographic')
    return { record: { ...record, leader }, lost: [] };
  const own = (of: string) => positionsOf('008', '', of).filter((p) => p.from >= 18 && p.to <= 35);
  const before = own(record.leader).map((p) => ({ ...p, value: value.slice(p.from, p.to) }));
  let laid = withPosition(value, { from: 18, to: 35 }, '');
  const carried = new Set<string>();
  for (const p of own(leader)) {
    const said = before.find((b) => b.name === p.name && b.to - b.from === p.to - p.from);
    const fits = said && codesFit(said.value, p);
    if (fits) carried.add(p.name);
    laid = withPosition(laid, p, fits ? said.value : unsaid(p));
  }
  const lost = readPositions('008', value, record.leader)
    .filter((p) => p.from >= 18 && p.to <= 35 && !carried.has(p.name) && /[^ |0]/.test(p.value))
    .map(({ name, value: was, meaning }) => ({ name, value: was, meaning }));
  const fields = record.fields.map((f) => (f.tag === '008' && isControl(f) ? { ...f, value: laid } : f));
  return { record: { leader, fields }, lost };
}

function codesFit(value: string, { codes, unit }: PositionDefinition): boolean {
  if (Object.keys(codes).length === 0) return true;
  if (codes[value] !== undefined) return true;
  if (!unit) return false;
  for (let i = 0; i < value.length; i += unit) {
    const code = value.slice(i, i + unit);
    if (code.trim() !== '' && codes[code] === undefined) return false;
  }
  return true;
}
