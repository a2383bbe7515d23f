import type { StockFindingRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import type { ListColumn, ListView } from '../../parts/list-view';
import { stocktakeWords as wording } from './words';

/** A column whose cells are texts. */
type FindingColumn = Omit<ListColumn<StockFindingRow>, 'of'> & {
  readonly of: (row: StockFindingRow) => string;
};

/** What the findings of a stocktake can show beside barcode and title. */
export const findingColumns = (): readonly FindingColumn[] => [
  { key: 'callNumber', name: wording.callNumber, of: (f) => f.callNumber, width: 130, isMono: true },
  {
    key: 'message',
    name: wording.whatIsSaid,
    of: (f) => [f.message, othersOf(f)].filter(Boolean).join(' '),
    width: 320,
  },
];

export const FIRST_FINDINGS_VIEW: ListView = { isDense: false, columns: ['callNumber', 'message'] };

/** Other barcodes that a finding names. */
function othersOf({ kind, others }: StockFindingRow): string {
  if (others.length === 0) return '';
  const codes = others.slice(0, 5).map(groupedBarcode).join(', ');
  if (kind === 'misread') return wording.takenFor(codes);
  return kind === 'unknown' ? wording.nearly(codes) : wording.together(codes);
}
