import {
  alikeAmong,
  bucketColumns,
  formsInOrder,
  indexBuckets,
  matesFinder,
  type ComparedHeading,
  type IndexRoom,
  type LookAlike,
} from '@osier/core/headings';
import type { WaitingName } from '../projections/alike-names';
import type { NamesAsked, NamesIndexed, NamesRead, NameTexts, RowsAsked } from '../projections/all-names';
import { keptJson } from '../store/kept-json';
import { readForms } from './read-forms';
import { rowsText } from './rows-text';

/** Where every thread sees it. */
const SHARED: IndexRoom = {
  places: (count) => new Uint32Array(new SharedArrayBuffer(count * Uint32Array.BYTES_PER_ELEMENT)),
  numbers: (count) => new Float64Array(new SharedArrayBuffer(count * Float64Array.BYTES_PER_ELEMENT)),
};

function textsOf(names: readonly string[]): NameTexts {
  const text = Buffer.from(names.join(''));
  const bytes = new Uint8Array(new SharedArrayBuffer(text.length));
  bytes.set(text);
  const starts = SHARED.places(names.length + 1);
  names.forEach((name, i) => (starts[i + 1] = starts[i]! + Buffer.byteLength(name)));
  return { bytes, starts };
}

/** Names as they are compared, for comparing all with all. */
export function readAll(waiting: readonly WaitingName[]): NamesRead {
  const own = readForms(waiting).flatMap(({ id, name, buckets }) =>
    name === null ? [] : [{ id, name, buckets }],
  );
  return {
    ids: Uint32Array.from(own, (n) => n.id),
    kept: `{${own.map(({ id, name }) => `"${id}":${name}`).join()}}`,
    texts: textsOf(own.map((n) => n.name)),
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

/** A function that reads a name by its number; what was read is kept at hand. */
function nameReader(texts: readonly NameTexts[]): (form: number) => ComparedHeading {
  const before = [0];
  for (const { starts } of texts) before.push(before.at(-1)! + starts.length - 1);
  const read = new Map<number, ComparedHeading>();
  return (form) => {
    const there = read.get(form);
    if (there) return there;
    let [piece, behind] = [0, texts.length];
    while (behind - piece > 1) {
      const middle = (piece + behind) >>> 1;
      if (before[middle]! <= form) piece = middle;
      else behind = middle;
    }
    const { bytes, starts } = texts[piece]!;
    const at = form - before[piece]!;
    const name = keptJson<ComparedHeading>(
      Buffer.from(bytes.buffer, starts[at], starts[at + 1]! - starts[at]!).toString(),
    );
    read.set(form, name);
    return name;
  };
}

/** Pairs of which one is among some names, and has the lower number. */
export function compareSome({ texts, index, order, from, to }: NamesAsked): LookAlike[] {
  const matesOf = matesFinder(index);
  const nameOf = nameReader(texts);
  const found: LookAlike[] = [];
  for (const form of order.subarray(from, to)) {
    const later = matesOf(form).filter((other) => other > form);
    if (later.length) found.push(...alikeAmong(nameOf(form), later.map(nameOf)));
  }
  return found;
}

/** Rows of buckets with the headings in them, or of what lies near words with the words. */
export function rowsOf({ ids, index, of, from, to }: RowsAsked): string {
  const [keys, { starts, values }] =
    of === 'buckets' ? [index.buckets, index.members] : [index.near, index.wordsOf];
  const rows = rowsText(starts[to]! - starts[from]!);
  for (let place = from; place < to; place++)
    for (let i = starts[place]!; i < starts[place + 1]!; i++)
      rows.add(keys[place]!, of === 'buckets' ? ids[values[i]!]! : index.buckets[values[i]!]!);
  return rows.text();
}
