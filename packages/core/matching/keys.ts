import { found, type AccessPoint } from '../access';
import type { MarcRecord } from '../marc';
import { describe, type Description } from './description';

/** A key under which a record is looked for, by the access point that it is a key of. */
export interface MatchKey {
  readonly kind: 'isbn' | 'issn' | 'lccn' | 'control' | 'number' | 'alike';
  readonly key: string;
}

/** Under these two like records meet, so that not every record is compared with every other. */
export const ALIKE: AccessPoint<MarcRecord, 'alike'> = {
  name: 'alike',
  title: 'Likeness',
  type: 'key',
  version: 1,
  extract: (record) => found(likenessKeys(describe(record))),
  normalise: (key) => key,
};

/**
 * Keys that records which are much alike share in one at least: beginning of the title with author, with year; author with
 * year and first word. Each takes two things, so that general titles (Poems, Annual report) do not make large groups.
 */
export function likenessKeys(d: Description): string[] {
  const keys = new Set<string>();
  const start = d.main.replace(/ /g, '').slice(0, 14);
  const surname = (d.author.split(' ')[0] ?? '').slice(0, 5);
  if (start && surname) keys.add(`ta ${start} ${surname}`);
  if (start && d.year !== null) for (const y of [d.year, d.year + 1]) keys.add(`ty ${start} ${y}`);
  if (start && !surname && d.year === null) keys.add(`t ${d.title.slice(0, 40)}`);
  if (surname && d.year !== null) {
    const words = d.main.split(' ');
    const last = words.at(-1) ?? '';
    for (const y of [d.year, d.year + 1]) keys.add(`ay ${surname} ${y} ${last.slice(0, 6)}`);
    for (const y of [d.year, d.year + 1]) keys.add(`aw ${surname} ${y} ${(words[0] ?? '').slice(0, 4)}`);
  }
  return [...keys];
}

/** All keys under which a record is looked for among others. */
export const matchKeys = (d: Description): MatchKey[] => [
  ...d.isbns.map((i) => ({ kind: 'isbn' as const, key: i.isbn })),
  ...d.issns.map((key) => ({ kind: 'issn' as const, key })),
  ...d.lccns.map((key) => ({ kind: 'lccn' as const, key })),
  ...d.control.map((key) => ({ kind: 'control' as const, key })),
  ...d.numbers.map((key) => ({ kind: 'number' as const, key })),
  ...likenessKeys(d).map((key) => ({ kind: 'alike' as const, key })),
];
