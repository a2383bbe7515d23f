import type { CopyListRow, CopyOrder, LocalFieldRow } from '@osier/contract';
import { costText, localOf, type CodeLists } from '@osier/core/holdings';
import type { ListColumn, ListView } from '../../parts/list-view';
import { copiesWords as wording } from './words';

/** What a code of the lists is called; the code where it is not there. */
export const nameInList = (
  list: readonly { code: string; name: string }[] | undefined,
  code: string,
): string => list?.find((e) => e.code === code)?.name ?? code;

/** What the list of copies can show of each beside its title. */
export const copyColumns = (
  lists: CodeLists | undefined,
  fields: readonly LocalFieldRow[],
): readonly ListColumn<CopyListRow>[] => [
  { key: 'callNumber', name: wording.callNumber, of: (r) => r.callNumber, width: 130, isMono: true },
  {
    key: 'barcode',
    name: wording.barcode,
    of: (r) => r.barcode,
    width: 122,
    isMono: true,
    // Both codes on one line would leave no room for the title on a telephone.
    endOf: 'second',
  },
  { key: 'status', name: wording.status, of: (r) => r.status, width: 80 },
  { key: 'branch', name: wording.branch, of: (r) => nameInList(lists?.branches, r.branch), width: 100 },
  {
    key: 'location',
    name: wording.location,
    of: (r) => nameInList(lists?.locations, r.location),
    width: 110,
  },
  { key: 'type', name: wording.type, of: (r) => nameInList(lists?.types, r.type), width: 80 },
  {
    key: 'part',
    name: wording.partAndCopy,
    of: (r) => [r.part, r.number > 1 ? `c. ${r.number}` : ''].filter(Boolean).join(', '),
    width: 64,
  },
  {
    key: 'price',
    name: wording.price,
    of: costText,
    width: 78,
    isNumber: true,
  },
  { key: 'fund', name: wording.fund, of: (r) => r.fund, width: 60 },
  { key: 'supplier', name: wording.supplier, of: (r) => r.supplier, width: 60 },
  { key: 'acquired', name: wording.acquired, of: (r) => r.acquired, width: 78, isNumber: true },
  { key: 'lastSeen', name: wording.lastSeen, of: (r) => r.lastSeen, width: 78, isNumber: true },
  {
    key: 'loans',
    name: wording.loans,
    of: (r) => (r.loans === null ? '' : String(r.loans)),
    width: 50,
    isNumber: true,
  },
  { key: 'lastLoan', name: wording.lastLoan, of: (r) => r.lastLoan, width: 78, isNumber: true },
  ...fields.map(({ id, field }) => ({
    key: `local-${id}`,
    name: field.name,
    of: (r: CopyListRow) => localOf(r, id),
    width: field.form === 'number' || field.form === 'date' ? 78 : 120,
    isNumber: field.form === 'number' || field.form === 'date',
  })),
];
/** On a narrow screen a row has two lines. */
export const FIRST_VIEW: ListView = {
  isDense: typeof matchMedia === 'function' && matchMedia('(min-width: 761px)').matches,
  columns: ['callNumber', 'barcode', 'status', 'branch', 'location'],
};
export const ORDERS: readonly (readonly [CopyOrder, string])[] = [
  ['shelf', wording.callNumber],
  ['barcode', wording.barcode],
  ['acquired', wording.acquired],
  ['seen', wording.lastSeen],
  ['price', wording.price],
  ['loans', wording.loans],
  ['lent', wording.lastLoan],
];
