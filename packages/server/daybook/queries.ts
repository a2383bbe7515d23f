import type { ActColumns } from '../store/kept-acts';
import type { Store } from '../store/store';

/** The last entry behind another that changed an object, with who made it. */
export const lastEntryOf = (
  store: Store,
  kind: string,
  id: number,
  after: number,
): Promise<(ActColumns & { id: number; name: string | null }) | undefined> =>
  store.row<ActColumns & { id: number; name: string | null }>(
    `SELECT d.id, d.sentence, d.said, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry LEFT JOIN people p ON p.id = d.person
      WHERE o.kind = :kind AND o.object = :id AND d.id > :after ORDER BY d.id DESC LIMIT 1`,
    { kind, id, after },
  );

/** An entry of the daybook with who made it; null for Osier itself. */
export interface EntryRow extends ActColumns {
  readonly id: number;
  readonly at: string;
  readonly name: string | null;
  readonly act: string;
  readonly objects: number;
  readonly undone_by: number | null;
  readonly undoes: number | null;
}
const SELECT =
  'SELECT d.id, d.at, p.name, d.act, d.sentence, d.said, d.objects, d.undone_by, d.undoes FROM daybook d LEFT JOIN people p ON p.id = d.person';

/** Something that entries touched. */
export interface Touched {
  readonly kind: string;
  readonly id: number;
}
/** What narrows a list of entries; `from` and `to` are days of UTC, the last one whole, or instants, the last one no more part of it. */
export interface EntryFilter {
  readonly person?: number | undefined;
  readonly acts?: readonly string[] | undefined;
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  readonly touched?: readonly Touched[] | undefined;
}

/** Entries newest first, before one if so wanted, that a filter lets through. */
export const entriesBefore = (
  store: Store,
  before: number | null,
  { person, acts, from, to, touched }: EntryFilter,
  atMost: number,
): Promise<EntryRow[]> => {
  const conditions = [
    '1',
    ...(before ? ['d.id < :before'] : []),
    ...(person === undefined ? [] : ['d.person = :person']),
    ...(acts ? ['d.act IN (:acts)'] : []),
    ...(from ? ['d.at >= :from'] : []),
    ...(to ? [to.includes('T') ? 'd.at < :to' : "d.at < date(:to, '+1 day')"] : []),
    ...(touched
      ? [
          `d.id IN (SELECT o.entry FROM json_each(:touched) t CROSS JOIN daybook_objects o
             ON o.kind = json_extract(t.value, '$.kind') AND o.object = json_extract(t.value, '$.id'))`,
        ]
      : []),
  ];
  return store.rows<EntryRow>(
    `${SELECT} WHERE ${conditions.join(' AND ')} ORDER BY d.id DESC LIMIT :atMost`,
    { before, person, acts, from, to, touched: JSON.stringify(touched ?? []), atMost },
  );
};

/** The copies on a holding. */
export const copiesOn = (store: Store, holding: number): Promise<{ id: number }[]> =>
  store.rows<{ id: number }>('SELECT id FROM copies WHERE holding = :holding', { holding });

/** The copies that have, or had, a barcode. */
export const copiesThatHad = (store: Store, barcode: string): Promise<{ id: number }[]> =>
  store.rows<{ id: number }>(
    `SELECT id FROM copies WHERE barcode = :barcode
     UNION SELECT json_extract(value, '$.copyId') FROM withdrawn WHERE barcode = :barcode`,
    { barcode },
  );

/** The last fifty entries that touched a record, its holdings or copies, withdrawn copies among them. */
export const entriesOfRecord = (store: Store, record: number): Promise<EntryRow[]> =>
  store.rows<EntryRow>(
    `WITH touched (kind, object) AS (
       SELECT 'record', :record
       UNION SELECT 'holding', id FROM holdings WHERE record = :record
       UNION SELECT 'copy', id FROM copies WHERE record = :record
       UNION SELECT 'copy', json_extract(value, '$.copyId') FROM withdrawn WHERE record = :record)
     ${SELECT} WHERE d.id IN (SELECT o.entry FROM touched t CROSS JOIN daybook_objects o ON o.kind = t.kind AND o.object = t.object)
     ORDER BY d.id DESC LIMIT 50`,
    { record },
  );

/** The last fifty entries that touched a heading. */
export const entriesOfHeading = (store: Store, heading: number): Promise<EntryRow[]> =>
  store.rows<EntryRow>(
    `${SELECT} WHERE d.id IN (SELECT entry FROM daybook_objects WHERE kind = 'heading' AND object = :heading) ORDER BY d.id DESC LIMIT 50`,
    { heading },
  );

/** One entry. */
export const entryWithPerson = (store: Store, id: number): Promise<EntryRow | undefined> =>
  store.row<EntryRow>(`${SELECT} WHERE d.id = :id`, { id });
