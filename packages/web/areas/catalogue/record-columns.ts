import type { RecordOrder, RecordRow } from '@osier/contract';
import { codeName } from '@osier/core/format';
import type { ListColumn, ListView } from '../../parts/list-view';

/** What the list of records can show of each beside its title. */
export const COLUMNS: readonly ListColumn<RecordRow>[] = [
  { key: 'author', name: 'Name', of: (r) => r.author, width: 150 },
  { key: 'year', name: 'Year', of: (r) => r.year, width: 42 },
  { key: 'publisher', name: 'Publisher', of: (r) => r.publisher, width: 130 },
  { key: 'edition', name: 'Edition', of: (r) => r.edition, width: 90 },
  {
    key: 'language',
    name: 'Language',
    of: (r) => codeName('languages', r.language) ?? r.language,
    width: 80,
  },
  { key: 'material', name: 'Format', of: (r) => r.material, width: 90 },
  { key: 'isbn', name: 'ISBN', of: (r) => r.isbn, width: 120, isMono: true },
  { key: 'callNumber', name: 'Call number', of: (r) => r.callNumber, width: 130, isMono: true },
  {
    key: 'copies',
    name: 'Copies',
    of: (r) => (r.copies === 1 ? '1 copy' : `${r.copies} copies`),
    width: 64,
    isNumber: true,
  },
];
export const FIRST_VIEW: ListView = { isDense: false, columns: ['author', 'year', 'callNumber', 'copies'] };
export const ORDERS: readonly (readonly [RecordOrder, string])[] = [
  ['title', 'Title'],
  ['name', 'Name'],
  ['year', 'Year, latest first'],
  ['added', 'Added, last first'],
];
