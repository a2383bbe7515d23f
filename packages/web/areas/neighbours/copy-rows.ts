import { offerCallNumbers } from '@osier/core/callnumbers';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import type { GridColumn, GridRow } from '../catalogue/shelf/copy-grid';

/** What the copies of one book after the other have in common. */
const COMMON = [
  'branch',
  'location',
  'type',
  'fund',
  'supplier',
  'price',
] as const satisfies readonly GridColumn[];
const KEPT = 'osier-last-book';

const EMPTY: GridRow = {
  ...{ scheme: 'dewey', prefix: '', class: '', item: '', year: '', suffix: '' },
  ...{ branch: '', location: '', part: '', number: '', type: '', barcode: '', price: '' },
  ...{ fund: '', supplier: '', acquired: '', note: '' },
};

/** The row with the call number that the house makes for the record at its place. */
export function withOffer(row: GridRow, marc: MarcRecord, house: HouseRules): GridRow {
  const { branch, location, type } = row;
  const [offer] = offerCallNumbers(marc, house, { branch, location, type });
  const {
    scheme = row.scheme,
    prefix = '',
    class: cls = '',
    item = '',
    year = '',
    suffix = '',
  } = offer ?? {};
  return { ...row, scheme, prefix, class: cls, item, year, suffix };
}

/** The first copy of a book: like the last one of the book before, under the call number that is offered. */
export function firstCopy(marc: MarcRecord, house: HouseRules, usual: Partial<GridRow>): GridRow {
  const kept = new URLSearchParams(localStorage.getItem(KEPT) ?? '');
  const common = Object.fromEntries(COMMON.map((c) => [c, kept.get(c) ?? usual[c] ?? '']));
  return withOffer({ ...EMPTY, ...common }, marc, house);
}

/** Keeps what the next book's copies begin with. */
export function keepCommon(row: GridRow): void {
  localStorage.setItem(KEPT, new URLSearchParams(COMMON.map((c) => [c, row[c]])).toString());
}

const CALL = ['prefix', 'class', 'item', 'year', 'suffix'] as const;

/** Rows after a change: where a copy goes elsewhere, and its call number is still the one that was offered, it gets the one of its new place. */
export function followedOffers(
  before: readonly GridRow[],
  after: readonly GridRow[],
  marc: MarcRecord,
  house: HouseRules,
): GridRow[] {
  return after.map((row, i) => {
    const was = before[i];
    if (!was || (was.branch === row.branch && was.location === row.location && was.type === row.type))
      return row;
    const offered = withOffer(was, marc, house);
    return CALL.every((c) => offered[c] === row[c]) ? withOffer(row, marc, house) : row;
  });
}
