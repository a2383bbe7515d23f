import { fieldsIdOf, type IncomingRecord } from '@osier/core/deliveries';
import type { StoredObject } from '@osier/core/kinds';
import type { Store } from '../store/store';
import { incomingBehind } from './queries';

/** Incoming records with their fields, in the order given. */
export async function withTheirFields(
  store: Store,
  rows: readonly StoredObject<'incoming'>[],
): Promise<IncomingRecord[]> {
  const fields = new Map(
    (
      await store.readMany(
        'fields',
        rows.map((r) => fieldsIdOf(r.id)),
      )
    ).map((f) => [f.id, f]),
  );
  return rows.map((row) => ({ ...row, fields: fields.get(fieldsIdOf(row.id))! }));
}

/** One incoming record of a delivery with its fields; null when it is not there. */
export async function readIncoming(
  store: Store,
  delivery: number,
  id: number,
): Promise<IncomingRecord | null> {
  const row = await store.read('incoming', id);
  return row?.value.delivery === delivery ? (await withTheirFields(store, [row]))[0]! : null;
}

/** The waiting records of a delivery with their fields, in the order of the file, a piece at a time. */
export async function* waitingRecords(store: Store, delivery: number): AsyncGenerator<IncomingRecord[]> {
  for (let seq = 0; ;) {
    const rows = await incomingBehind(store, delivery, { waits: true, after: seq, atMost: PIECE });
    if (rows.length === 0) return;
    yield withTheirFields(store, rows);
    seq = rows.at(-1)!.value.seq;
  }
}
const PIECE = 200;
