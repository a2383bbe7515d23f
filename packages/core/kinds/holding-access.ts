import { plainPoint } from '../access';
import { callNumberText, shelfKey } from '../callnumbers';
import type { Copy, Holding } from '../holdings';

/** How holdings are found: by branch and location, by the call number from its beginning, in the order of the shelf. */
export const HOLDING_POINTS = [
  plainPoint({ name: 'branch', title: 'Branch', type: 'code', facet: true }, (h: Holding) => h.branch),
  plainPoint({ name: 'location', title: 'Location', type: 'code' }, (h: Holding) => h.location),
  plainPoint({ name: 'call_number', title: 'Call number', type: 'phrase' }, (h: Holding) =>
    callNumberText(h),
  ),
  plainPoint({ name: 'shelf_key', title: 'Place on the shelf', type: 'phrase', sorts: true }, (h: Holding) =>
    shelfKey(h),
  ),
];

/** How copies are found: by barcode, status and type. */
export const COPY_POINTS = [
  plainPoint({ name: 'barcode', title: 'Barcode', type: 'key' }, (c: Copy) => c.barcode),
  plainPoint({ name: 'status', title: 'Status', type: 'code' }, (c: Copy) => c.status),
  plainPoint({ name: 'type', title: 'Type', type: 'code' }, (c: Copy) => c.type),
];
