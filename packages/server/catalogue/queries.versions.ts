import type { ActColumns } from '../store/kept-acts';
import type { Store } from '../store/store';

/** An entry that changed a record. */
export interface VersionEntry extends ActColumns {
  readonly id: number;
  readonly at: string;
  readonly name: string | null;
}

/** The entries that changed a record itself, newest first, before one if so wanted. */
export const entriesOfVersions = (
  store: Store,
  record: number,
  before: number | null,
  atMost: number,
): Promise<VersionEntry[]> =>
  store.rows<VersionEntry>(
    `SELECT d.id, d.at, d.sentence, d.said, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry LEFT JOIN people p ON p.id = d.person
      WHERE o.kind = 'record' AND o.object = :record ${before === null ? '' : 'AND o.entry < :before'} ORDER BY o.entry DESC LIMIT :atMost`,
    { record, before, atMost },
  );

/** The entry behind another that changed a record next. */
export const nextEntryOf = async (store: Store, record: number, entry: number): Promise<number | undefined> =>
  (
    await store.row<{ entry: number }>(
      "SELECT entry FROM daybook_objects WHERE kind = 'record' AND object = :record AND entry > :entry ORDER BY entry LIMIT 1",
      { record, entry },
    )
  )?.entry;

/** The first part of an entry in which a record was changed, as it is kept. */
export const partWithRecord = async (
  store: Store,
  record: number,
  entry: number,
): Promise<string | undefined> =>
  (
    await store.row<{ changes: string }>(
      'SELECT changes FROM daybook_parts WHERE entry = :entry AND instr(changes, :begins) > 0 ORDER BY part LIMIT 1',
      { entry, begins: `{"kind":"record","id":${record},` },
    )
  )?.changes;
