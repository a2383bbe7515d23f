import { isBriefRecord } from '@osier/core/editing';
import { controlValue, type MarcRecord } from '@osier/core/marc';
import { refusedMarks } from '@osier/core/neighbours';
import { today } from '../day';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const AT_ONCE = 2000;
/** `isBriefRecord` of a row of `records`. */
const IS_BRIEF = "substr(json_extract(value, '$.leader'), 18, 1) = '3'";

/** Which records are brief, and since when each waits for its full one. What was found for it is kept beside by the asking. */
export const briefRecords: Projection = {
  name: 'brief-records',
  version: 1,
  of: ['record'],
  async apply(store, changes, tx) {
    const records = changes.of('record');
    const wasBrief = records.filter(({ before }) => before !== null && isBriefRecord(before));
    const isNow = records.flatMap(({ id, before, after }) =>
      after !== null && isBriefRecord(after) ? [{ id, before }] : [],
    );
    const over = wasBrief.filter((c) => !isNow.some(({ id }) => id === c.id)).map((c) => c.id);
    if (over.length)
      await store.run(
        'DELETE FROM brief_records WHERE record IN (SELECT value FROM json_each(:over))',
        { over: JSON.stringify(over) },
        tx,
      );
    // A record that was full and is brief again has had its full one taken back: that one is not offered for it once more.
    await keep(
      store,
      isNow.map(({ id, before }) => ({
        id,
        since: today(),
        refused: before === null || isBriefRecord(before) ? [] : refusedMarks(before),
      })),
      tx,
    );
  },
  async rebuild(store) {
    // What was found for those that still wait stays.
    await store.write((tx) =>
      store.run(
        `DELETE FROM brief_records WHERE record NOT IN (SELECT id FROM records WHERE ${IS_BRIEF})`,
        {},
        tx,
      ),
    );
    for (let after = 0; ;) {
      const held = await store.select('record', `id > :after AND ${IS_BRIEF} ORDER BY id LIMIT ${AT_ONCE}`, {
        after,
      });
      const last = held.at(-1);
      if (!last) return;
      const waiting = held.map(({ id, value }) => ({ id, since: entered(value), refused: [] }));
      await store.write((tx) => keep(store, waiting, tx));
      after = last.id;
    }
  },
};

/** The day a record was entered (008/00-05), else today. */
function entered(record: MarcRecord): string {
  const [, yy, mm, dd] = /^(\d\d)(\d\d)(\d\d)/.exec(controlValue(record, '008') ?? '') ?? [];
  const now = today();
  if (!yy || !mm || !dd) return now;
  const day = `20${yy}-${mm}-${dd}`;
  return day <= now ? day : now;
}

async function keep(
  store: Store,
  rows: readonly { readonly id: number; readonly since: string; readonly refused: readonly string[] }[],
  tx: Transaction,
): Promise<void> {
  if (rows.length === 0) return;
  await insertRows(
    store,
    'INSERT OR IGNORE',
    'brief_records',
    ['record', 'since', 'asked', 'state', 'reason', 'neighbour', 'marc', 'refused'],
    rows.map((r) => [r.id, r.since, '', 'waiting', '', 0, null, JSON.stringify(r.refused)]),
    tx,
  );
}
