import { groupedBarcode } from '../barcodes';
import { callNumberText, shelfKey } from '../callnumbers';
import { partKey, type Copy, type Holding, type Withdrawn } from '../holdings';
import { columnsAt } from '../access';
import { registerColumns } from '../withdrawals';
import { COPY_POINTS, HOLDING_POINTS } from './holding-access';
import { describeKind } from './kind';

/** A title at a branch and location under a call number. */
export const holding = describeKind<Holding>()({
  kind: 'holding',
  noun: ['holding', 'holdings'],
  label: callNumberText,
  table: 'holdings',
  columns: { record: 'integer', branch: 'text', location: 'text', call_number: 'text', shelf_key: 'text' },
  compute: (h, { house }) => ({
    record: h.record,
    ...columnsAt(HOLDING_POINTS, h),
    // The point knows only the alphabet of prefixes; the house may have an order of its own.
    shelf_key: shelfKey(h, house.prefixOrder),
  }),
  access: { columns: HOLDING_POINTS },
  parents: [{ kind: 'record', field: 'record', column: 'record', whenGone: 'holds' }],
  once: [{ columns: ['record', 'branch', 'location', 'call_number'] }],
});

/** One barcoded thing. */
export const copy = describeKind<Copy>()({
  kind: 'copy',
  noun: ['copy', 'copies'],
  label: (c) => groupedBarcode(c.barcode),
  table: 'copies',
  columns: {
    holding: 'integer',
    barcode: 'text',
    status: 'text',
    type: 'text',
    fund: 'text',
    supplier: 'text',
    acquired: 'text',
    price: 'integer',
    last_seen: 'text',
    loans: 'integer',
    last_loan: 'text',
    number: 'integer',
    part: 'text',
  },
  compute: (c) => ({
    holding: c.holding,
    ...columnsAt(COPY_POINTS, c),
    price: c.price,
    last_seen: c.lastSeen,
    loans: c.loans ?? null,
    last_loan: c.lastLoan ?? '',
    number: c.number,
    part: partKey(c.part),
  }),
  inherited: {
    record: { from: 'holding', column: 'record' },
    branch: { from: 'holding', column: 'branch' },
    location: { from: 'holding', column: 'location' },
    shelf_key: { from: 'holding', column: 'shelf_key' },
  },
  access: { columns: COPY_POINTS },
  parents: [{ kind: 'holding', field: 'holding', column: 'holding', whenGone: 'holds' }],
  once: [
    { columns: ['barcode'], anyCase: true },
    { columns: ['record', 'part', 'number'], among: { column: 'number', above: 0 } },
  ],
});

/** A row of the register of withdrawn copies, which is kept for ever. */
export const withdrawn = describeKind<Withdrawn>()({
  kind: 'withdrawn',
  noun: ['withdrawn copy', 'withdrawn copies'],
  label: (w) => groupedBarcode(w.copy.barcode),
  table: 'withdrawn',
  columns: {
    barcode: 'text',
    record: 'integer',
    withdrawn_on: 'text',
    branch: 'text',
    reason: 'text',
    price: 'integer',
    currency: 'text',
    filing: 'text',
    call_number: 'text',
    words: 'text',
    holding: 'integer',
  },
  compute: (w) => ({
    barcode: w.copy.barcode,
    record: w.record,
    withdrawn_on: w.withdrawnOn,
    ...registerColumns(w),
  }),
  parents: [],
  keepsRemoved: true,
});
