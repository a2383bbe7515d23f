import type { RecordOrder, RecordRow } from '@osier/contract';
import { codeName } from '@osier/core/format';
import type { ListColumn, ListView } from '../../parts/list-view';
import { catalogueWords as wording } from './words';

/** What the list of records can show of each beside its title. */
export const COLUMNS: readonly ListColumn<RecordRow>[] = [
  { key: 'author', name: wording.name, of: (r) => r.author, width: 150 },
  { key: 'year', name: wording.year, of: (r) => r.year, width: 38 },
  { key: 'publisher', name: wording.publisher, of: (r) => r.publisher, width: 130 },
  { key: 'edition', name: wording.edition, of: (r) => r.edition, width: 90 },
  {
    key: 'language',
    name: wording.language,
    of: (r) => codeName('languages', r.language) ?? r.language,
    width: 80,
  },
  { key: 'material', name: wording.format, of: (r) => r.material, width: 90 },
  { key: 'isbn', name: wording.isbn, of: (r) => r.isbn, width: 120, isMono: true },
  { key: 'callNumber', name: wording.callNumber, of: (r) => r.callNumber, width: 112, isMono: true },
  {
    key: 'copies',
    name: wording.copies,
    of: (r) => (r.copies === 1 ? wording.n1Copy : wording.copies2(r.copies)),
    width: 56,
    isNumber: true,
  },
];
export const FIRST_VIEW: ListView = { isDense: false, columns: ['author', 'year', 'callNumber', 'copies'] };
export const ORDERS: readonly (readonly [RecordOrder, string])[] = [
  ['title', wording.title],
  ['name', wording.name],
  ['year', wording.yearLatestFirst],
  ['callnumber', wording.callNumber],
  ['added', wording.addedLastFirst],
  ['changed', wording.changedLastFirst],
];
