import type { HoldingListRow } from '@osier/contract';
import type { FindPlan } from '@osier/core/find';
import { conditionOf, Values } from '../catalogue/queries.conditions';
import type { Store } from '../store/store';

/** Which holdings are looked for, as conditions on `h`. */
export interface HoldingQuery {
  readonly where: string;
  readonly params: Readonly<Record<string, unknown>>;
}

/** The holdings that a plan finds, at a branch and a location; '' for all. `isLed`: the words of the plan lead to few records. */
export function holdingsWhere(
  plan: FindPlan,
  { branch, location }: { readonly branch: string; readonly location: string },
  isLed: boolean,
): HoldingQuery {
  const values = new Values('f');
  const place = { branch, location };
  const conditions = [
    ...(branch ? ['h.branch = :branch'] : []),
    ...(location ? ['h.location = :location'] : []),
    conditionOf(plan, values, 'holding', isLed ? 'h.record' : '+h.record'),
  ];
  return { where: conditions.join(' AND '), params: { ...values.params, ...place } };
}

/** How many holdings are found, counted to one more than `most`. */
export const countHoldings = async (
  store: Store,
  { where, params }: HoldingQuery,
  most: number,
): Promise<number> =>
  (
    await store.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM (SELECT 1 FROM holdings h WHERE ${where} LIMIT :most + 1)`,
      { ...params, most },
    )
  )?.n ?? 0;

/** Where a page of holdings begins: behind a place on the shelf, a record and a number. */
export type AfterHolding = readonly [shelfKey: string, record: number, id: number];
/** A row of a page with its place on the shelf. */
export type PlacedHolding = Omit<HoldingListRow, 'isUnread'> & { readonly shelfKey: string };

/** A page of holdings with their titles, in the order of the shelf. */
export const pageOfHoldings = (
  store: Store,
  { where, params }: HoldingQuery,
  { after, atMost }: { readonly after: AfterHolding | null; readonly atMost: number },
): Promise<PlacedHolding[]> => {
  const [shelfKey, record, id] = after ?? ['', 0, 0];
  const behind = after ? ' AND (h.shelf_key, h.record, h.id) > (:shelfKey, :record, :id)' : '';
  return store.rows<PlacedHolding>(
    `SELECT h.id, h.record, r.title, r.author, h.call_number AS callNumber, h.branch, h.location, h.shelf_key AS shelfKey,
        (SELECT COUNT(*) FROM copies c WHERE c.holding = h.id) AS copies
       FROM (SELECT h.id FROM holdings h WHERE ${where}${behind} ORDER BY h.shelf_key, h.record, h.id LIMIT :atMost) p
       CROSS JOIN holdings h ON h.id = p.id CROSS JOIN record_rows r ON r.id = h.record
      ORDER BY h.shelf_key, h.record, h.id`,
    { ...params, shelfKey, record, id, atMost },
  );
};
