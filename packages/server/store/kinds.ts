import { briefOf, type RecordBrief } from '@osier/core/access';
import { callNumberText, shelfKey } from '@osier/core/callnumbers';
import { checkRecord } from '@osier/core/checks';
import type { LabelRoll } from '@osier/core/barcodes';
import type { Delivery, Incoming, IncomingFields, SupplierSheet } from '@osier/core/deliveries';
import { headingText, identityOf, type Distinct, type Heading } from '@osier/core/headings';
import { partKey, type CodeLists, type Copy, type Holding, type Withdrawn } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { describe } from '@osier/core/matching';
import type { Pile, Piled } from '@osier/core/piles';
import type { Recipe } from '@osier/core/recipes';
import type { ScanBatch, Stocktake } from '@osier/core/stocktake';
import { fold } from '@osier/core/text';

/** A list of copies to withdraw, prepared by one person and confirmed by the head. */
export interface WithdrawalListValue {
  readonly name: string;
  readonly branch: string;
  readonly reason: string;
  readonly state: 'open' | 'done';
  readonly by: string;
  readonly madeOn: string;
}

/** A recipe of this library; its number is its id. */
export type KeptRecipe = Omit<Recipe, 'id'>;

/** What each kind of object is. */
export interface Objects {
  record: MarcRecord;
  heading: Heading;
  distinct: Distinct;
  holding: Holding;
  copy: Copy;
  withdrawn: Withdrawn;
  delivery: Delivery;
  incoming: Incoming;
  fields: IncomingFields;
  withdrawlist: WithdrawalListValue;
  stocktake: Stocktake;
  scanbatch: ScanBatch;
  recipe: KeptRecipe;
  sheet: SupplierSheet;
  roll: LabelRoll;
  pile: Pile;
  piled: Piled;
  house: HouseRules;
  lists: CodeLists;
}
export type Kind = keyof Objects;

/** How a kind is stored: its table and the columns that are computed from the value. */
export interface KindStore<K extends Kind> {
  readonly table: string;
  readonly columns: readonly string[];
  /** The computed columns, in the order of `columns`. */
  readonly compute: (value: Objects[K], house: HouseRules) => unknown[];
  /** A removed object's row is kept and marked: its list is kept for ever, or what hangs on it is kept for its coming back. */
  readonly keepsRemoved?: boolean;
  /** Columns that are looked up in SQL when a row is written, from its other columns (`:name`). */
  readonly derived?: Readonly<Record<string, string>>;
  /** What there is only once, each held by a unique index of the table. */
  readonly once?: readonly Once[];
}

/** Columns that no two objects share, among those that a condition on the columns holds for. */
export interface Once {
  readonly columns: readonly string[];
  readonly among?: string;
  /** Letters are the same in either case. */
  readonly anyCase?: boolean;
}
const NAME_ONCE: readonly Once[] = [{ columns: ['name'], anyCase: true }];

const SETTING = { table: 'settings', columns: [], compute: () => [] };
/** Ids of the two settings, which share a table. */
export const HOUSE_ID = 1;
export const LISTS_ID = 2;

export const KINDS: { [K in Kind]: KindStore<K> } = {
  record: {
    table: 'records',
    columns: [
      'title',
      'author',
      'year',
      'isbn',
      'publisher',
      'edition',
      'language',
      'material',
      'sort',
      'matching',
    ],
    compute: (marc) => {
      const b = briefOf(marc);
      return [
        b.title,
        b.author,
        b.year,
        b.isbn,
        b.publisher,
        b.edition,
        b.language,
        b.material,
        sortTitle(marc, b),
        JSON.stringify(describe(marc)),
      ];
    },
  },
  heading: {
    table: 'headings',
    columns: ['kind', 'key', 'text', 'merged_into', 'vocabulary'],
    compute: (h) => {
      const { kind, key, vocabulary } = identityOf(h);
      return [kind, key, headingText(h), h.mergedInto, vocabulary];
    },
    once: [{ columns: ['vocabulary', 'kind', 'key'], among: 'merged_into IS NULL' }],
  },
  distinct: {
    table: 'distinct_pairs',
    columns: ['a', 'b'],
    compute: (d) => [d.a, d.b],
    once: [{ columns: ['a', 'b'] }],
  },
  holding: {
    table: 'holdings',
    columns: ['record', 'branch', 'location', 'call_number', 'shelf_key'],
    compute: (h) => [h.record, h.branch, h.location, callNumberText(h), shelfKey(h)],
    once: [{ columns: ['record', 'branch', 'location', 'call_number'] }],
  },
  copy: {
    table: 'copies',
    columns: ['holding', 'barcode', 'status', 'type', 'last_seen', 'number', 'part'],
    compute: (c) => [c.holding, c.barcode, c.status, c.type, c.lastSeen, c.number, partKey(c.part)],
    derived: { record: '(SELECT h.record FROM holdings h WHERE h.id = :holding)' },
    once: [
      { columns: ['barcode'], anyCase: true },
      { columns: ['record', 'part', 'number'], among: 'number > 0' },
    ],
  },
  withdrawn: {
    table: 'withdrawn',
    columns: ['barcode', 'record', 'withdrawn_on'],
    compute: (w) => [w.copy.barcode, w.record, w.withdrawnOn],
    keepsRemoved: true,
  },
  delivery: {
    table: 'deliveries',
    columns: ['name', 'sha256'],
    compute: (d) => [d.name, d.sha256],
    keepsRemoved: true,
  },
  incoming: {
    table: 'incoming',
    columns: ['delivery', 'seq', 'state', 'decision', 'record', 'copies', 'copy_problems', 'note'],
    compute: (i) => [
      i.delivery,
      i.seq,
      i.state,
      i.decision,
      i.record,
      i.copies.length,
      i.copies.filter((c) => c.problems.length > 0).length,
      i.note,
    ],
  },
  fields: {
    table: 'incoming_fields',
    columns: ['title', 'author', 'isbn', 'year', 'errors', 'warnings', 'advice', 'findings'],
    compute: ({ marc }, house) => {
      const { title, author, isbn, year } = briefOf(marc);
      const findings = checkRecord(marc, house);
      const count = (severity: string) => findings.filter((f) => f.severity === severity).length;
      return [
        title,
        author,
        isbn,
        year,
        count('error'),
        count('warning'),
        count('advice'),
        JSON.stringify(findings),
      ];
    },
  },
  withdrawlist: {
    table: 'withdrawal_lists',
    columns: ['state', 'name'],
    compute: (l) => [l.state, l.name],
    once: [{ columns: ['name'], among: "state = 'open'", anyCase: true }],
  },
  stocktake: { table: 'stocktakes', columns: ['state'], compute: (s) => [s.state] },
  scanbatch: { table: 'scan_batches', columns: ['stocktake'], compute: (b) => [b.stocktake] },
  recipe: { table: 'recipes', columns: ['name'], compute: (r) => [r.name] },
  sheet: { table: 'sheets', columns: ['name'], compute: (s) => [s.name], once: NAME_ONCE },
  roll: { table: 'rolls', columns: ['name'], compute: (r) => [r.name], once: NAME_ONCE },
  pile: {
    table: 'piles',
    columns: ['name'],
    compute: (p) => [p.name],
    keepsRemoved: true,
    once: [{ columns: ['name'], among: 'gone = 0', anyCase: true }],
  },
  piled: {
    table: 'piled',
    columns: ['pile', 'kind', 'object'],
    compute: (p) => [p.pile, p.kind, p.object],
    once: [{ columns: ['pile', 'kind', 'object'] }],
  },
  house: SETTING,
  lists: SETTING,
};

function sortTitle(marc: MarcRecord, brief: RecordBrief): string {
  const title = marc.fields.find((f) => f.tag === '245');
  const skip = title && 'ind2' in title ? Number(title.ind2) || 0 : 0;
  return fold(brief.title.slice(skip));
}
