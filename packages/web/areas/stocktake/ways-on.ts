import type { StockFindingRow } from '@osier/contract';
import { isCoverNumber } from '@osier/core/stocktake';
import { stocktakeWords as wording } from './words';

/** Where a finding is seen to that is not settled by a tick: the name of the link and its address. */
export function waysOn({
  kind,
  code,
  copy,
  record,
}: StockFindingRow): readonly (readonly [string, string])[] {
  if (kind === 'unknown')
    return isCoverNumber(code)
      ? [[wording.catalogueIt, `/catalogue/brief?isbn=${code}`]]
      : [[wording.catalogueIt, `/catalogue/brief?barcode=${encodeURIComponent(code)}`]];
  if (copy === null) return [];
  // From the list of copies it goes on to a withdrawal list.
  if (kind === 'found' || kind === 'missing')
    return [[wording.toWithdraw, `/copies/all?barcode=${encodeURIComponent(code)}`]];
  // Two things with one barcode: one of them gets another at the copy.
  if (kind === 'repeated' && record !== null)
    return [[wording.openCopy, `/catalogue/${record}?copy=${copy}`]];
  return kind === 'misplaced' || kind === 'misread' || kind === 'elsewhere'
    ? [[wording.label, `/copies/labels?copies=${copy}`]]
    : [];
}
