import { plainPoint } from '../access';
import { callNumberText, shelfKey } from '../callnumbers';
import type { Copy, Holding } from '../holdings';

/** It rises when call numbers sort otherwise; a store then computes the places of all holdings anew. */
export const SHELF_KEY_VERSION = 3;

/** How holdings are found: by branch and location, by the call number from its beginning, in the order of the shelf. */
export const HOLDING_POINTS = [
  plainPoint({ name: 'branch', title: 'Branch', type: 'code', facet: true }, (h: Holding) => h.branch),
  plainPoint({ name: 'location', title: 'Location', type: 'code' }, (h: Holding) => h.location),
  plainPoint({ name: 'call_number', title: 'Call number', type: 'phrase' }, (h: Holding) =>
    callNumberText(h),
  ),
  plainPoint(
    {
      name: 'shelf_key',
      title: 'Place on the shelf',
      type: 'phrase',
      sorts: true,
      version: SHELF_KEY_VERSION,
    },
    (h: Holding) => shelfKey(h),
  ),
];

/** How copies are found: by barcode, status, type, and where they came from when. */
export const COPY_POINTS = [
  plainPoint({ name: 'barcode', title: 'Barcode', type: 'key' }, (c: Copy) => c.barcode),
  plainPoint({ name: 'status', title: 'Status', type: 'code' }, (c: Copy) => c.status),
  plainPoint({ name: 'type', title: 'Type', type: 'code' }, (c: Copy) => c.type),
  plainPoint({ name: 'fund', title: 'Fund', type: 'code' }, (c: Copy) => c.fund),
  plainPoint({ name: 'supplier', title: 'Supplier', type: 'code' }, (c: Copy) => c.supplier),
  plainPoint({ name: 'acquired', title: 'Acquired', type: 'date' }, (c: Copy) => c.acquired),
];
