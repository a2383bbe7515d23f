import { found, type AccessPoint } from '../access';
import { callNumberText, shelfKey } from '../callnumbers';
import type { Copy, Holding } from '../holdings';

/** The branch that a holding is at. */
export const BRANCH: AccessPoint<Holding, 'branch'> = {
  name: 'branch',
  title: 'Branch',
  type: 'code',
  version: 1,
  extract: (h) => found([h.branch]),
  normalise: (code) => code,
  facet: true,
};

/** The location of a holding within its branch. */
export const LOCATION: AccessPoint<Holding, 'location'> = {
  name: 'location',
  title: 'Location',
  type: 'code',
  version: 1,
  extract: (h) => found([h.location]),
  normalise: (code) => code,
};

/** The call number as it is read, looked for from its beginning. */
export const CALL_NUMBER: AccessPoint<Holding, 'call_number'> = {
  name: 'call_number',
  title: 'Call number',
  type: 'phrase',
  version: 1,
  extract: (h) => found([callNumberText(h)]),
  normalise: (text) => text,
};

/** The call number as it is shelved. */
export const SHELF_KEY: AccessPoint<Holding, 'shelf_key'> = {
  name: 'shelf_key',
  title: 'Place on the shelf',
  type: 'phrase',
  version: 1,
  extract: (h) => found([shelfKey(h)]),
  normalise: (key) => key,
  sorts: true,
};

/** The barcode of a copy. */
export const BARCODE: AccessPoint<Copy, 'barcode'> = {
  name: 'barcode',
  title: 'Barcode',
  type: 'key',
  version: 1,
  extract: (c) => found([c.barcode]),
  normalise: (code) => code,
};

/** The status of a copy. */
export const STATUS: AccessPoint<Copy, 'status'> = {
  name: 'status',
  title: 'Status',
  type: 'code',
  version: 1,
  extract: (c) => found([c.status]),
  normalise: (code) => code,
};

/** The type of a copy. */
export const COPY_TYPE: AccessPoint<Copy, 'type'> = {
  name: 'type',
  title: 'Type',
  type: 'code',
  version: 1,
  extract: (c) => found([c.type]),
  normalise: (code) => code,
};
