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

/** What an entry did to a record, or to what hangs on it. */
export interface HistoryEntry extends VersionEntry {
  /** It changed the record itself. */
  readonly isVersion: 0 | 1;
}

/** The entries that changed a record, its holdings, or copies that hang on it or were withdrawn from it, newest first, before one if so wanted. */
export const historyOfRecord = (
  store: Store,
  record: number,
  before: number | null,
  atMost: number,
): Promise<HistoryEntry[]> =>
  store.rows<HistoryEntry>(
    `SELECT d.id, d.at, d.sentence, d.said, p.name,
        EXISTS (SELECT 1 FROM daybook_objects r WHERE r.kind = 'record' AND r.object = :record AND r.entry = d.id) AS isVersion
       FROM (SELECT DISTINCT o.entry FROM (
               SELECT 'record' AS kind, :record AS object
               UNION ALL SELECT 'holding', id FROM holdings WHERE record = :record
               UNION ALL SELECT 'copy', id FROM copies WHERE record = :record
               UNION ALL SELECT 'copy', CAST(value ->> 'copyId' AS INTEGER) FROM withdrawn WHERE record = :record) t
             CROSS JOIN daybook_objects o ON o.kind = t.kind AND o.object = t.object ${before === null ? '' : 'WHERE o.entry < :before'}
             ORDER BY o.entry DESC LIMIT :atMost) e
       JOIN daybook d ON d.id = e.entry LEFT JOIN people p ON p.id = d.person ORDER BY d.id DESC`,
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
