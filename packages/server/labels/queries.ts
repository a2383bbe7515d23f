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
