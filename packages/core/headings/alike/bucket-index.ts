import type { BucketColumns, NumberLists } from './bucket-columns';

/** Which forms are in which buckets, and which words lie near which, all by place: small enough that a million forms are at hand. */
export interface BucketIndex {
  /** All buckets, each once, the lowest first. */
  readonly buckets: Float64Array;
  /** By form: places of its buckets, those of its words last. */
  readonly own: NumberLists;
  /** By place of a bucket: the forms in it. */
  readonly members: NumberLists;
  /** All that lies near a word, each once, the lowest first. */
  readonly near: Float64Array;
  /** By place of a bucket: places of what lies near that word; none for one that is no word. */
  readonly nearOf: NumberLists;
  /** By place of a near one: places of the words that it lies near. */
  readonly wordsOf: NumberLists;
}

/** Makes room for what an index keeps: so many places, or numbers, all nought. */
export interface IndexRoom {
  places(count: number): Uint32Array;
  numbers(count: number): Float64Array;
}
const OWN_ROOM: IndexRoom = {
  places: (count) => new Uint32Array(count),
  numbers: (count) => new Float64Array(count),
};

/** Numbers in order, each once. */
function eachOnce(numbers: Float64Array, room: IndexRoom): Float64Array {
  const sorted = numbers.slice().sort();
  let n = 0;
  for (let i = 0; i < sorted.length; i++)
    if (i === 0 || sorted[i] !== sorted[i - 1]) sorted[n++] = sorted[i]!;
  const once = room.numbers(n);
  once.set(sorted.subarray(0, n));
  return once;
}

/** The place of a number among sorted ones in which it is. */
function placeOf(number: number, sorted: Float64Array): number {
  let [low, high] = [0, sorted.length - 1];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! < number) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Lists the other way round: by value the lists, in their order, in which it is. */
function turned({ starts, values }: NumberLists, count: number, room: IndexRoom): NumberLists {
  const turnedStarts = room.places(count + 1);
  for (let i = 0; i < values.length; i++) turnedStarts[values[i]! + 1]!++;
  for (let i = 0; i < count; i++) turnedStarts[i + 1]! += turnedStarts[i]!;
  const next = Uint32Array.from(turnedStarts);
  const lists = room.places(values.length);
  for (let list = 0; list < starts.length - 1; list++)
    for (let i = starts[list]!; i < starts[list + 1]!; i++) lists[next[values[i]!]!++] = list;
  return { starts: turnedStarts, values: lists };
}

/** By form: the places of its buckets. */
function placedForms(columns: readonly BucketColumns[], buckets: Float64Array, room: IndexRoom): NumberLists {
  const starts = room.places(columns.reduce((n, { own }) => n + own.starts.length - 1, 0) + 1);
  const values = room.places(columns.reduce((n, { own }) => n + own.values.length, 0));
  let [form, at] = [0, 0];
  for (const { own } of columns) {
    for (let i = 1; i < own.starts.length; i++) starts[++form] = at + own.starts[i]!;
    for (let i = 0; i < own.values.length; i++) values[at++] = placeOf(own.values[i]!, buckets);
  }
  return { starts, values };
}

/** By place of a bucket that is a word: what lies near it. A word that several columns have is taken once. */
function nearLists(
  columns: readonly BucketColumns[],
  buckets: Float64Array,
  room: IndexRoom,
): NumberLists<Float64Array> {
  const starts = room.places(buckets.length + 1);
  const taken = columns.map(({ words, near }) => {
    const places = new Uint32Array(words.length);
    for (let i = 0; i < words.length; i++) {
      places[i] = placeOf(words[i]!, buckets) + 1;
      if (starts[places[i]!] === 0) starts[places[i]!] = near.starts[i + 1]! - near.starts[i]!;
      // Another column has it, and what lies near a word is the same everywhere.
      else places[i] = 0;
    }
    return places;
  });
  for (let i = 0; i < buckets.length; i++) starts[i + 1]! += starts[i]!;
  const values = new Float64Array(starts[buckets.length]!);
  columns.forEach(({ near }, column) =>
    taken[column]!.forEach((place, i) => {
      if (place > 0) values.set(near.values.subarray(near.starts[i], near.starts[i + 1]), starts[place - 1]);
    }),
  );
  return { starts, values };
}

/** All numbers of some columns one behind the other. */
function inOne(some: readonly Float64Array[]): Float64Array {
  const all = new Float64Array(some.reduce((n, { length }) => n + length, 0));
  let at = 0;
  for (const numbers of some) {
    all.set(numbers, at);
    at += numbers.length;
  }
  return all;
}

/** The index of forms whose buckets are in columns, numbered through in their order. */
export function indexBuckets(columns: readonly BucketColumns[], room = OWN_ROOM): BucketIndex {
  const buckets = eachOnce(inOne(columns.map((c) => c.own.values)), room);
  const own = placedForms(columns, buckets, room);
  const lists = nearLists(columns, buckets, room);
  const near = eachOnce(lists.values, room);
  const values = room.places(lists.values.length);
  for (let i = 0; i < values.length; i++) values[i] = placeOf(lists.values[i]!, near);
  const nearOf = { starts: lists.starts, values };
  return {
    ...{ buckets, own, members: turned(own, buckets.length, room) },
    ...{ near, nearOf, wordsOf: turned(nearOf, near.length, room) },
  };
}

/** A function that gives for a form, by its number, the other ones that it is to be compared with, in no order. */
export function matesFinder({
  buckets,
  own,
  members,
  nearOf,
  wordsOf,
}: BucketIndex): (form: number) => number[] {
  // The turn in which a form or a bucket was met last: what was met in this one is not taken again.
  const metForm = new Uint32Array(own.starts.length - 1);
  const metBucket = new Uint32Array(buckets.length);
  let turn = 0;
  return (form) => {
    const found: number[] = [];
    metForm[form] = ++turn;
    const take = (bucket: number) => {
      if (metBucket[bucket] === turn) return;
      metBucket[bucket] = turn;
      for (let i = members.starts[bucket]!; i < members.starts[bucket + 1]!; i++) {
        const other = members.values[i]!;
        if (metForm[other] === turn) continue;
        metForm[other] = turn;
        found.push(other);
      }
    };
    for (let i = own.starts[form]!; i < own.starts[form + 1]!; i++) {
      const bucket = own.values[i]!;
      take(bucket);
      for (let k = nearOf.starts[bucket]!; k < nearOf.starts[bucket + 1]!; k++) {
        const near = nearOf.values[k]!;
        for (let w = wordsOf.starts[near]!; w < wordsOf.starts[near + 1]!; w++) take(wordsOf.values[w]!);
      }
    }
    return found;
  };
}

/** Numbers of forms in an order in which those that are compared with each other are mostly close together: of their last buckets. */
export function formsInOrder(own: NumberLists): Uint32Array {
  const count = own.starts.length - 1;
  const keys = new Float64Array(count);
  for (let form = 0; form < count; form++) {
    const last = own.starts[form + 1]! - 1;
    keys[form] = (last >= own.starts[form]! ? own.values[last]! : 0) * count + form;
  }
  keys.sort();
  const order = new Uint32Array(count);
  for (let i = 0; i < count; i++) order[i] = keys[i]! % count;
  return order;
}
