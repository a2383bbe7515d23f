import type { Store } from '../store/store';

/** A copy as a sentence names it; record and title are null for one that hangs on nothing. */
export interface NamedCopy {
  readonly copy: number;
  readonly version: number;
  readonly record: number | null;
  readonly title: string | null;
  readonly number: number;
  readonly part: string | null;
  readonly branch: string | null;
}

/** The copy with a barcode, letters the same in either case. A copy that hangs on nothing has its barcode all the same. */
export const copyNamed = (store: Store, barcode: string): Promise<NamedCopy | undefined> =>
  store.row<NamedCopy>(
    `SELECT c.id AS copy, c.version, h.record, r.title, c.number, json_extract(c.value, '$.part') AS part, h.branch
       FROM (SELECT * FROM copies WHERE barcode = :barcode UNION SELECT * FROM copies WHERE barcode = :barcode COLLATE NOCASE AND disputed = 0) c
       LEFT JOIN holdings h ON h.id = c.holding LEFT JOIN records r ON r.id = h.record LIMIT 1`,
    { barcode },
  );

/** The highest copy number of a part (by its key) of a record; 0 for none. */
export const lastNumber = async (store: Store, record: number, part: string): Promise<number> =>
  (
    await store.row<{ last: number | null }>(
      'SELECT MAX(number) AS last FROM copies WHERE record = :record AND part = :part',
      { record, part },
    )
  )?.last ?? 0;

/** Another copy of the same title and part with a number. */
export const copyWithNumber = (
  store: Store,
  copy: { readonly id: number; readonly holding: number; readonly part: string; readonly number: number },
): Promise<{ barcode: string } | undefined> =>
  store.row<{ barcode: string }>(
    `SELECT barcode FROM copies WHERE record = (SELECT record FROM holdings WHERE id = :holding) AND part = :part
        AND number = :number AND number > 0 AND id <> :id AND disputed = 0`,
    { ...copy },
  );
