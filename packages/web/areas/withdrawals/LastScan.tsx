import type { WithdrawalRow } from '@osier/contract';
import { Button } from 'antd';
import { Mark } from '../../parts/Mark';
import { Barcode } from '../../parts/Barcode';
import { withdrawalsWords as wording } from './words';

/** The verdict on the last scan, to be read from a step away. */
export function LastScan({ row, onUndo }: { row: WithdrawalRow; onUndo: () => void }) {
  const { verdict, candidate, callNumber, place, reasons, code } = row;
  return (
    <div className={`last-scan ${verdict}`} role="status" aria-label={wording.lastScan}>
      <div className="last-verdict">
        <Mark kind={verdict} name={verdict} /> {wording.verdicts[verdict]}
      </div>
      <div className="last-title">
        <b>{candidate?.title ?? wording.notKnown}</b>
        <span>
          {[callNumber, place, candidate?.status].filter(Boolean).join(' · ')} <Barcode code={code} />
        </span>
        {reasons.map((r) => (
          <span key={r.code} className={`reason ${r.verdict}`}>
            {r.message}
          </span>
        ))}
      </div>
      <Button data-key="u" onClick={onUndo}>
        {wording.undoLastScan}
      </Button>
    </div>
  );
}
