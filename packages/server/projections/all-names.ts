import limited from 'p-limit';
import type { BucketColumns, BucketIndex, LookAlike } from '@osier/core/headings';
import type { Store } from '../store/store';
import { forgetNames, type NameSeen } from './alike-names';

/** Names that were read for comparing all with all. */
export interface NamesRead {
  /** The headings that are compared, in the order of everything else. */
  readonly ids: Uint32Array;
  /** All that were read, those too that are compared with none. */
  readonly seen: NamesSeen;
  /** What is kept of them: JSON of an object, by heading. */
  readonly kept: string;
  /** The buckets that they were in until now; see `bucketsBefore`. */
  readonly before: string;
  readonly columns: BucketColumns;
}

/** All names, numbered through, with the buckets that they are in, where every thread sees them. */
export interface NamesIndexed {
  readonly ids: Uint32Array;
  readonly index: BucketIndex;
  /** Numbers of names in an order in which those that are compared with each other are mostly close together. */
  readonly order: Uint32Array;
}

/** Some of the names in their order; without the end. */
export interface NamesAsked extends NamesIndexed {
  readonly from: number;
  readonly to: number;
}

/** Headings, and by each of them the others that it is to be compared with: those from its start up to, without, the next one. Each two meet once. */
export interface NamesMet {
  /** Where it ended: before the end that was asked for when very many meet. */
  readonly until: number;
  readonly headings: Uint32Array;
  readonly starts: Uint32Array;
  readonly others: Uint32Array;
  /** All headings that meet, each once, as JSON. */
  readonly who: string;
}

/** Some of the buckets, or of what lies near words, by place; without the end. */
export interface RowsAsked extends Pick<NamesIndexed, 'ids' | 'index'> {
  readonly of: 'buckets' | 'near';
  readonly from: number;
  readonly to: number;
}

/** How all names are read and compared in threads. */
export interface AllNamesWork {
  /** Headings as JSON of `[id, version, heading, what was kept of it before or null]`: one text goes to a thread sooner than thousands of rows. */
  readAll(headings: string): Promise<NamesRead>;
  indexAll(read: readonly Pick<NamesRead, 'ids' | 'columns'>[]): Promise<NamesIndexed>;
  meetingOf(asked: NamesAsked): Promise<NamesMet>;
  /** Names as JSON of `ComparedHeading`s. */
  compareMet(met: NamesMet, names: string): Promise<LookAlike[]>;
  /** Rows as they are kept: JSON of an object, in which a name may stand more than once. */
  nameRows(asked: RowsAsked): Promise<string>;
}

/** Headings, and their versions when they were read, as pairs of numbers: a million take eight megabytes. */
export type NamesSeen = Uint32Array;
/** The same as objects. */
export const seenNames = (numbers: NamesSeen): NameSeen[] =>
  Array.from({ length: numbers.length / 2 }, (_, i) => ({
    id: numbers[2 * i]!,
    version: numbers[2 * i + 1]!,
  }));

/** What was found when all names were compared; the names in pieces. */
export interface AllCompared {
  readonly names: readonly NamesSeen[];
  readonly pairs: readonly LookAlike[];
}

/** Headings that are read in one piece, names that are compared in one, and rows that are kept in one: none takes a thread, or the store, for long. */
const [READ, COMPARED, KEPT] = [4000, 10_000, 40_000];
/** Pieces that are worked at side by side: two threads, and what the store reads and keeps for them. */
const AT_ONCE = 4;

/** Marks every heading as one that waits: what is broken off begins anew. */
async function markAll(store: Store, highest: number): Promise<void> {
  for (let from = 1; from <= highest; from += KEPT)
    await store.write((tx) =>
      store.run(
        'INSERT OR IGNORE INTO alike_dirty (heading, place) SELECT id, substr(key, 1, 24) FROM headings WHERE id >= :from AND id < :to AND merged_into IS NULL',
        { from, to: from + KEPT },
        tx,
      ),
    );
}

/** Where pieces of about so many rows begin; the last one is where all end. */
function piecesOf(starts: Uint32Array, rows: number): number[] {
  const found = [0];
  for (let i = 1; i < starts.length; i++)
    if (starts[i]! - starts[found.at(-1)!]! >= rows || i === starts.length - 1) found.push(i);
  return found;
}

/** All headings in a range of numbers, without the end, with what was kept of them until now; see `readAll`. */
async function headingsFrom(store: Store, from: number, to: number): Promise<string> {
  const found = await store.row<{ headings: string | null }>(
    `SELECT group_concat('[' || h.id || ',' || h.version || ',' || h.value || ',' || COALESCE(n.name, 'null') || ']') AS headings
       FROM headings h LEFT JOIN alike_names n ON n.heading = h.id WHERE h.id >= :from AND h.id < :to AND h.merged_into IS NULL`,
    { from, to },
  );
  return `[${found?.headings ?? ''}]`;
}

/** What is kept of the names that meet. */
async function namesOf(store: Store, { who }: NamesMet): Promise<string> {
  const found = await store.row<{ names: string | null }>(
    'SELECT group_concat(name) AS names FROM alike_names WHERE heading IN (SELECT value FROM json_each(:who))',
    { who },
  );
  return `[${found?.names ?? ''}]`;
}

const KEEP = {
  names:
    'INSERT OR REPLACE INTO alike_names (heading, name) SELECT CAST(key AS INTEGER), value FROM json_each($1)',
  buckets:
    'INSERT OR IGNORE INTO alike_buckets (bucket, heading) SELECT CAST(key AS INTEGER), value FROM json_each($1)',
  near: 'INSERT OR IGNORE INTO alike_near (near, bucket) SELECT CAST(key AS INTEGER), value FROM json_each($1)',
};

/**
 * Reads all names, keeps them with their buckets, and compares them: every name is read once, and rows are kept in the order of their index. Null when it was broken off; every heading
 * still waits then, and does so too when all went well: who keeps the pairs says that they do no longer.
 */
export async function compareAllNames(
  store: Store,
  work: AllNamesWork,
  isStopped: () => boolean,
): Promise<AllCompared | null> {
  const limit = limited(AT_ONCE);
  let failed = false;
  // When one piece fails, those that have not begun are left.
  const eachPiece = async (count: number, piece: (i: number) => Promise<void>): Promise<void> => {
    const begun = Array.from({ length: count }, (_, i) =>
      limit(async () => {
        if (failed || isStopped()) return;
        try {
          await piece(i);
        } catch (error) {
          failed = true;
          throw error;
        }
      }),
    );
    for (const done of await Promise.allSettled(begun)) if (done.status === 'rejected') throw done.reason;
  };
  const keep = (table: RowsAsked['of'], json: string) =>
    store.write((tx) => store.bind(KEEP[table], [json], tx));

  const { highest } = (await store.row<{ highest: number }>(
    'SELECT COALESCE(MAX(id), 0) AS highest FROM headings',
  ))!;
  await markAll(store, highest);
  const read: Pick<NamesRead, 'ids' | 'columns'>[] = [];
  const names: NamesSeen[] = [];
  await eachPiece(Math.ceil(highest / READ), async (i) => {
    const headings = await headingsFrom(store, i * READ + 1, (i + 1) * READ + 1);
    const { kept, before, ids, seen, columns } = await work.readAll(headings);
    // Until then those that stand are found where they were: who saves a heading is told what it looks like all the time.
    await store.write(async (tx) => {
      await forgetNames(store, before, tx);
      await store.bind(KEEP.names, [kept], tx);
    });
    read[i] = { ids, columns };
    names[i] = seen;
  });
  if (isStopped()) return null;
  const indexed = await work.indexAll(read);
  read.length = 0;
  const rows = [
    { of: 'buckets' as const, pieces: piecesOf(indexed.index.members.starts, KEPT) },
    { of: 'near' as const, pieces: piecesOf(indexed.index.wordsOf.starts, KEPT) },
  ].flatMap(({ of, pieces }) => pieces.slice(1).map((to, i) => ({ of, from: pieces[i]!, to })));
  const found: LookAlike[][] = [];
  const keeping = async () => {
    for (const { of, from, to } of rows) {
      if (failed || isStopped()) return;
      await keep(of, await work.nameRows({ ...indexed, of, from, to }));
    }
  };
  // Rows are kept one piece after the other, in their order, while names are compared in both threads.
  const count = Math.ceil(indexed.order.length / COMPARED);
  await eachPiece(count + 1, async (i) => {
    if (i === 0) return keeping();
    const to = Math.min(i * COMPARED, indexed.order.length);
    for (let from = (i - 1) * COMPARED; from < to && !isStopped();) {
      const met = await work.meetingOf({ ...indexed, from, to });
      found.push(await work.compareMet(met, await namesOf(store, met)));
      from = met.until;
    }
  });
  return isStopped() ? null : { names, pairs: found.flat() };
}
