import type { CopyListRow, CopyOrder, CopySearch } from '@osier/contract';
import { isUnreadKey, keyRange, type PrefixOrder } from '@osier/core/callnumbers';
import type { FindPlan } from '@osier/core/find';
import { conditionOf, requiredWords, Values } from '../catalogue/queries.conditions';
import type { Store } from '../store/store';

/** Conditions on copies, and what is bound in them. */
export interface CopyQuery {
  readonly where: string;
  readonly params: Readonly<Record<string, unknown>>;
}

/** What copies have in a local field: anything, just this, this as a part when both are folded, or as it is written where nothing of it is left when it is folded. */
export interface LocalTest {
  readonly field: number;
  readonly is: 'any' | 'whole' | 'part' | 'signs';
  readonly value: string;
}

const like = (text: string) => `%${text.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

/** Of no more records the copies are led to by the words; of more, copies are walked in their order, and looked at. */
const MOST_LED = 5000;

/** Whether the words of a plan lead to few records. */
export async function leadsToFew(store: Store, plan: FindPlan): Promise<boolean> {
  const match = requiredWords(plan);
  if (match === null) return false;
  const more = await store.row(
    `SELECT rowid FROM record_words WHERE record_words MATCH :match LIMIT 1 OFFSET ${MOST_LED}`,
    { match },
  );
  return more === undefined;
}

/** What is known of a search before its conditions are written. */
interface CopyTests {
  /** The words of its plan lead to few records. */
  readonly isLed: boolean;
  readonly local?: LocalTest | null;
  readonly prefixOrder?: PrefixOrder | undefined;
}

/** The copies that are looked for; one that hangs on nothing is not among them. */
export function copiesWhere(
  search: CopySearch,
  plan: FindPlan,
  { isLed, local = null, prefixOrder }: CopyTests,
): CopyQuery {
  const where = ['c.record IS NOT NULL'];
  const params: Record<string, string | number> = {};
  const add = (sql: string, name = '', value: string | number = '') => {
    where.push(sql);
    if (name) params[name] = value;
  };
  for (const column of ['branch', 'location', 'type', 'status', 'fund', 'supplier'] as const) {
    const value = search[column];
    if (value) add(`c.${column} = :${column}`, column, value);
  }
  if (search.barcode) add("c.barcode LIKE :barcode ESCAPE '\\'", 'barcode', like(search.barcode));
  const { from, to } = keyRange(search.numberFrom, search.numberTo, search.scheme, prefixOrder);
  if (from !== null) add('c.shelf_key >= :from', 'from', from);
  if (to !== null) {
    // Behind the last stands what begins with it; nothing that is in range is greater than that.
    add('c.shelf_key < :behind', 'behind', `${to}\uffff`);
    add('(c.shelf_key <= :to OR substr(c.shelf_key, 1, length(:to)) = :to)', 'to', to);
  }
  if (search.acquiredFrom) add('c.acquired >= :acquiredFrom', 'acquiredFrom', search.acquiredFrom);
  if (search.acquiredTo)
    add("c.acquired > '' AND c.acquired <= :acquiredTo", 'acquiredTo', search.acquiredTo);
  if (search.notSeenSince) add('c.last_seen < :notSeenSince', 'notSeenSince', search.notSeenSince);
  if (search.notLentSince)
    add('c.loans IS NOT NULL AND c.last_loan < :notLentSince', 'notLentSince', search.notLentSince);
  if (search.noPrice) add('c.price IS NULL');
  if (search.unread) add("c.shelf_key >= '~'");
  if (search.pile)
    add("c.id IN (SELECT object FROM piled WHERE pile = :pile AND kind = 'copy')", 'pile', search.pile);
  if (local) {
    const tests = {
      any: '',
      whole: 'AND exact = :localValue',
      part: "AND value LIKE :localValue ESCAPE '\\'",
      signs: "AND exact LIKE :localValue ESCAPE '\\'",
    };
    add(
      `c.id IN (SELECT copy FROM local_values WHERE field = :local ${tests[local.is]})`,
      'local',
      local.field,
    );
    if (local.is !== 'any') params.localValue = local.is === 'whole' ? local.value : like(local.value);
  }
  if (search.copies)
    add('c.id IN (SELECT value FROM json_each(:copies))', 'copies', JSON.stringify(search.copies));
  if (plan.type === 'everything') return { where: where.join(' AND '), params };
  const values = new Values('f');
  add(conditionOf(plan, values, 'copy', isLed ? 'c.record' : '+c.record'));
  return { where: where.join(' AND '), params: { ...params, ...values.params } };
}

/** How many copies are found, counted to one more than `most`. */
export const countCopies = async (
  store: Store,
  { where, params }: CopyQuery,
  most: number,
): Promise<number> =>
  (
    await store.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM (SELECT 1 FROM copies c WHERE ${where} LIMIT :most + 1)`,
      { ...params, most },
    )
  )?.n ?? 0;

/** What a list is sorted by; a price that is not known comes first. */
const SORTED: Readonly<Record<CopyOrder, string>> = {
  shelf: 'c.shelf_key',
  barcode: 'c.barcode',
  acquired: 'c.acquired',
  seen: 'c.last_seen',
  price: 'ifnull(c.price, -1)',
  loans: 'ifnull(c.loans, -1)',
  lent: 'c.last_loan',
};

/** Where a page of copies begins: behind what it is sorted by, and a number. */
export type AfterCopy = readonly [sorted: string | number, id: number];
/** A row of a page with its place in the order. */
export type PlacedCopy = Omit<CopyListRow, 'isUnread' | 'local'> & {
  readonly sorted: string | number;
  readonly shelfKey: string;
  /** What it has in local fields, as JSON. */
  readonly locals: string;
};

/** A page of copies with their titles. */
export const pageOfCopies = (
  store: Store,
  { where, params }: CopyQuery,
  page: {
    readonly sort: CopyOrder;
    readonly down: boolean;
    readonly after: AfterCopy | null;
    readonly atMost: number;
  },
): Promise<PlacedCopy[]> => {
  const column = SORTED[page.sort];
  const [compare, way] = page.down ? ['<', 'DESC'] : ['>', 'ASC'];
  const behind = page.after ? `AND (${column}, c.id) ${compare} (:sorted, :id)` : '';
  return store.rows<PlacedCopy>(
    `SELECT c.id, c.record, r.title, r.author, h.call_number AS callNumber, c.branch, c.location, c.barcode, c.shelf_key AS shelfKey,
        ifnull(json_extract(c.value, '$.part'), '') AS part, c.number, c.type, c.status, c.price, ifnull(c.value ->> 'currency', '') AS currency, c.fund, c.supplier, c.acquired,
        c.last_seen AS lastSeen, c.loans, c.last_loan AS lastLoan, ifnull(json_extract(c.value, '$.local'), '[]') AS locals, p.sorted
       FROM (SELECT c.id, ${column} AS sorted FROM copies c WHERE ${where} ${behind} ORDER BY ${column} ${way}, c.id ${way} LIMIT :atMost) p
       JOIN copies c ON c.id = p.id JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = c.record
      ORDER BY p.sorted ${way}, p.id ${way}`,
    { ...params, atMost: page.atMost, ...(page.after && { sorted: page.after[0], id: page.after[1] }) },
  );
};

/** The titles of the copies found, by number, behind one. */
export const titlesFound = async (
  store: Store,
  { where, params }: CopyQuery,
  after: number,
  atMost: number,
): Promise<number[]> =>
  (
    await store.rows<{ record: number }>(
      `SELECT DISTINCT c.record FROM copies c WHERE ${where} AND c.record > :after ORDER BY c.record LIMIT :atMost`,
      { ...params, after, atMost },
    )
  ).map((r) => r.record);

/** The numbers of the copies found of some titles. */
export const foundOfTitles = async (
  store: Store,
  { where, params }: CopyQuery,
  records: readonly number[],
): Promise<Set<number>> =>
  new Set(
    (
      await store.rows<{ id: number }>(
        `SELECT c.id FROM copies c WHERE c.record IN (SELECT value FROM json_each(:records)) AND ${where}`,
        { ...params, records: JSON.stringify(records) },
      )
    ).map((r) => r.id),
  );

/** The copies found, in the order of the shelf. */
export const copiesOnShelf = (
  store: Store,
  { where, params }: CopyQuery,
  atMost: number,
): Promise<{ id: number; barcode: string }[]> =>
  store.rows<{ id: number; barcode: string }>(
    `SELECT c.id, c.barcode FROM copies c WHERE ${where} ORDER BY c.shelf_key, c.id LIMIT :atMost`,
    { ...params, atMost },
  );

/** The numbers of the copies found behind one. */
export const copyIdsBehind = async (
  store: Store,
  { where, params }: CopyQuery,
  after: number,
  atMost: number,
): Promise<number[]> =>
  (
    await store.rows<{ id: number }>(
      `SELECT c.id FROM copies c WHERE ${where} AND c.id > :after ORDER BY c.id LIMIT :atMost`,
      { ...params, after, atMost },
    )
  ).map((r) => r.id);

/** The titles that some copies are of, each once. */
export const recordsWithCopies = async (store: Store, copies: readonly number[]): Promise<number[]> =>
  (
    await store.rows<{ record: number }>(
      'SELECT DISTINCT record FROM copies WHERE id IN (SELECT value FROM json_each(:copies)) AND record IS NOT NULL ORDER BY record',
      { copies: JSON.stringify(copies) },
    )
  ).map((r) => r.record);

/** What titles are called, by number. */
export const titlesOf = async (store: Store, records: readonly number[]): Promise<Map<number, string>> =>
  new Map(
    (
      await store.rows<{ id: number; title: string }>(
        'SELECT id, title FROM record_rows WHERE id IN (SELECT value FROM json_each(:records))',
        { records: JSON.stringify(records) },
      )
    ).map((r) => [r.id, r.title]),
  );

/** The titles that copies are of, by the number of the copy. */
export const copyTitles = async (store: Store, copies: readonly number[]): Promise<Map<number, string>> =>
  new Map(
    (
      await store.rows<{ id: number; title: string }>(
        'SELECT c.id, r.title FROM copies c JOIN record_rows r ON r.id = c.record WHERE c.id IN (SELECT value FROM json_each(:copies))',
        { copies: JSON.stringify(copies) },
      )
    ).map((r) => [r.id, r.title]),
  );

/** Whether a row's call number was read. */
export const isUnread = (row: { readonly shelfKey: string }): boolean => isUnreadKey(row.shelfKey);
