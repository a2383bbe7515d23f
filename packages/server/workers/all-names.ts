import {
  alikeAmong,
  bucketColumns,
  formsInOrder,
  indexBuckets,
  matesFinder,
  type ComparedHeading,
  type Heading,
  type IndexRoom,
  type LookAlike,
} from '@osier/core/headings';
import { bucketsBefore } from '../projections/alike-names';
import type { NamesAsked, NamesIndexed, NamesMet, NamesRead, RowsAsked } from '../projections/all-names';
import { keptJson } from '../store/kept-json';
import { readForm } from './read-forms';
import { resting } from './resting';
import { rowsText } from './rows-text';

/** Where every thread sees it. */
const SHARED: IndexRoom = {
  places: (count) => new Uint32Array(new SharedArrayBuffer(count * Uint32Array.BYTES_PER_ELEMENT)),
  numbers: (count) => new Float64Array(new SharedArrayBuffer(count * Float64Array.BYTES_PER_ELEMENT)),
};

type ReadHeading = readonly [id: number, version: number, heading: Heading, before: ComparedHeading | null];

/** Names as they are compared, for comparing all with all; headings as JSON, see `AllNamesWork`. */
export function readAll(headings: string): NamesRead {
  const all = keptJson<ReadHeading[]>(headings);
  const read = Array.from(resting(all), ([id, , heading, before]) => readForm(id, heading, before));
  const own = read.flatMap(({ id, name, buckets }) => (name === null ? [] : [{ id, name, buckets }]));
  return {
    ids: Uint32Array.from(own, (n) => n.id),
    seen: Uint32Array.from(all.flatMap(([id, version]) => [id, version])),
    kept: `{${own.map(({ id, name }) => `"${id}":${name}`).join()}}`,
    before: bucketsBefore(read),
    columns: bucketColumns(own.map((n) => n.buckets)),
  };
}

/** Names that were read in pieces as one, by their buckets. */
export function indexAll(read: readonly Pick<NamesRead, 'ids' | 'columns'>[]): NamesIndexed {
  const ids = SHARED.places(read.reduce((n, r) => n + r.ids.length, 0));
  let at = 0;
  for (const r of read) {
    ids.set(r.ids, at);
    at += r.ids.length;
  }
  const index = indexBuckets(
    read.map((r) => r.columns),
    SHARED,
  );
  const order = SHARED.places(ids.length);
  order.set(formsInOrder(index.own));
  return { ids, index, order };
}

/** How many may meet at one go: where thousands share a bucket, memory is not to grow with their square. */
const MEETING = 1_000_000;

/** Which names meet some of them; each two at the one with the lower number. */
export function meetingOf({ ids, index, order, from, to }: NamesAsked, atMost = MEETING): NamesMet {
  const matesOf = matesFinder(index);
  const headings: number[] = [];
  const starts = [0];
  const others: number[] = [];
  let until = from;
  while (until < to && others.length < atMost) {
    const form = order[until++]!;
    const later = matesOf(form).filter((other) => other > form);
    if (later.length === 0) continue;
    headings.push(ids[form]!);
    for (const other of later) others.push(ids[other]!);
    starts.push(others.length);
  }
  return {
    until,
    headings: Uint32Array.from(headings),
    starts: Uint32Array.from(starts),
    others: Uint32Array.from(others),
    who: JSON.stringify([...new Set(headings.concat(others))]),
  };
}

/** Pairs among names that meet. */
export function compareMet({
  met: { headings, starts, others },
  names,
}: {
  readonly met: NamesMet;
  readonly names: string;
}): LookAlike[] {
  const byId = new Map(keptJson<ComparedHeading[]>(names).map((n) => [n.id, n]));
  return Array.from(resting(headings), (heading, i) => {
    const one = byId.get(heading);
    const some = [...others.subarray(starts[i], starts[i + 1])].flatMap((id) => byId.get(id) ?? []);
    return one ? alikeAmong(one, some) : [];
  }).flat();
}

/** Rows of buckets with the headings in them, or of what lies near words with the words. */
export function nameRows({ ids, index, of, from, to }: RowsAsked): string {
  const [keys, { starts, values }] =
    of === 'buckets' ? [index.buckets, index.members] : [index.near, index.wordsOf];
  const rows = rowsText(starts[to]! - starts[from]!);
  for (let place = from; place < to; place++)
    for (let i = starts[place]!; i < starts[place + 1]!; i++)
      rows.add(keys[place]!, of === 'buckets' ? ids[values[i]!]! : index.buckets[values[i]!]!);
  return rows.text();
}
