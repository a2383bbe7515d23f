import type { PiledKind } from '@osier/core/piles';
import type { Store } from '../store/store';

/** Copies that lie on a pile, or that hang on the records that do. */
export async function copiesOnPile(
  store: Store,
  pile: number,
  of: PiledKind,
  atMost: number,
): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    of === 'copy'
      ? "SELECT c.id FROM piled p JOIN copies c ON c.id = p.object WHERE p.pile = :pile AND p.kind = 'copy' ORDER BY p.id LIMIT :atMost"
      : "SELECT c.id FROM piled p JOIN copies c ON c.record = p.object WHERE p.pile = :pile AND p.kind = 'record' ORDER BY c.id LIMIT :atMost",
    { pile, atMost },
  );
  return rows.map((r) => r.id);
}

/** Copies that were made with the records of a delivery and are still there, by their barcodes. */
export const copiesOfDelivery = async (store: Store, delivery: number, atMost: number): Promise<number[]> =>
  (
    await store.rows<{ id: number }>(
      `SELECT DISTINCT c.id FROM incoming i CROSS JOIN json_each(i.value, '$.copies') v CROSS JOIN copies c ON c.barcode = v.value ->> 'barcode'
        WHERE i.delivery = :delivery AND i.state = 'accepted' AND i.copies > 0 AND v.value ->> 'barcode' <> '' LIMIT :atMost`,
      { delivery, atMost },
    )
  ).map((c) => c.id);

/** The number of the last entry before an instant (ISO 8601, UTC); 0 for none. */
export const entryBefore = async (store: Store, at: string): Promise<number> =>
  (
    await store.row<{ id: number }>(
      'SELECT id FROM daybook WHERE at < :at ORDER BY at DESC, id DESC LIMIT 1',
      { at },
    )
  )?.id ?? 0;

/** Copies that somebody has made in the entries behind one, up to another, and that are still there. */
export const copiesMadeBy = async (
  store: Store,
  of: { readonly person: number; readonly after: number; readonly upTo: number; readonly atMost: number },
): Promise<number[]> =>
  (
    await store.rows<{ id: number }>(
      `SELECT DISTINCT o.object AS id FROM daybook_objects o CROSS JOIN daybook d ON d.id = o.entry
        WHERE o.kind = 'copy' AND o.entry > :after AND o.entry <= :upTo AND d.person = :person AND d.act <> 'first-fill'
          AND (SELECT MIN(e.entry) FROM daybook_objects e WHERE e.kind = 'copy' AND e.object = o.object) = o.entry
          AND EXISTS (SELECT 1 FROM copies c WHERE c.id = o.object)
        ORDER BY o.object LIMIT :atMost`,
      of,
    )
  ).map((r) => r.id);

/** A withdrawn copy of a list, as the register has it. */
export interface WithdrawnLabel {
  readonly copy: number;
  readonly record: number;
  readonly barcode: string;
  readonly callNumber: string;
  readonly title: string;
  readonly name: string;
  readonly withdrawnOn: string;
}

/** The copies of a withdrawal list that were withdrawn since it was made and not restored, in the order in which they were scanned onto it. */
export const withdrawnByList = (store: Store, list: number, atMost: number): Promise<WithdrawnLabel[]> =>
  store.rows<WithdrawnLabel>(
    `SELECT w.value ->> 'copyId' AS copy, w.record, w.barcode, w.call_number AS callNumber, w.value ->> 'title' AS title,
        ifnull(w.value ->> 'author', '') AS name, w.withdrawn_on AS withdrawnOn
       FROM (SELECT code, MIN(id) AS place FROM scans WHERE purpose = 'withdrawal' AND work = :list GROUP BY code) s
       CROSS JOIN withdrawn w ON w.barcode = s.code
       JOIN withdrawal_lists l ON l.id = :list AND w.withdrawn_on >= l.value ->> 'madeOn'
      WHERE w.gone = 0 ORDER BY s.place, w.id LIMIT :atMost`,
    { list, atMost },
  );
