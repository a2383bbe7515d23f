import { Checkbox } from 'antd';
import type { PiledRow } from '@osier/contract';
import type { PiledKind } from '@osier/core/piles';
import { Link } from 'react-router';
import { Barcode } from '../../parts/Barcode';
import { copiesWords as wording } from './words';

/** One record or copy on a pile. */
export function PiledLine({
  row,
  of,
  ticked,
  onTick,
}: {
  row: PiledRow;
  of: PiledKind;
  ticked: boolean;
  onTick?: () => void;
}) {
  const about =
    of === 'copy'
      ? [row.callNumber, row.place, row.status === 'available' ? '' : row.status]
      : [row.author, row.year, row.callNumber];
  return (
    <div className={of === 'copy' ? 'verdict-row' : 'verdict-row without-code'}>
      {onTick ? (
        <Checkbox
          aria-label={wording.choose(row.title, row.barcode ? `, ${row.barcode}` : '')}
          checked={ticked}
          onChange={onTick}
        />
      ) : (
        <span />
      )}
      {of === 'copy' ? <Barcode code={row.barcode} /> : null}
      <span className="verdict-title">
        <Link to={`/catalogue/${row.record}${of === 'copy' ? `?copy=${row.object}` : ''}`}>
          <bdi>{row.title}</bdi>
        </Link>
        <small className="faded">{about.filter(Boolean).join(' · ')}</small>
      </span>
    </div>
  );
}
