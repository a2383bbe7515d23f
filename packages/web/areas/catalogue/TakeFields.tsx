import { fieldBroughtBack } from '@osier/core/editing';
import { compareRecords, type FieldPair, type MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
import { PairText, tagOfPair } from '../../parts/Compare';
import type { RecordDraft } from '../../parts/record-draft/use-record-draft';

/** The fields in which another record differs from the one that is edited, each to be taken from it by itself. */
export function TakeFields({
  from,
  edit,
  verb,
  same,
  isTakeable = () => true,
}: {
  from: MarcRecord;
  edit: RecordDraft;
  verb: string;
  /** What is said when they do not differ. */
  same: string;
  isTakeable?: (pair: FieldPair) => boolean;
}) {
  const pairs = compareRecords(from, edit.marc).filter((p) => p.change !== 'same' && isTakeable(p));
  if (pairs.length === 0) return <p className="faded">{same}</p>;
  return (
    <div className="compare">
      {pairs.map((pair, i) => (
        <div key={i} className={`compare-row ${pair.change} bring-back`}>
          <span className="field-tag">{tagOfPair(pair)}</span>
          <span>
            <PairText pair={pair} />
          </span>
          <Button size="small" onClick={() => edit.become(fieldBroughtBack(edit.marc, from, pair))}>
            {verb}
          </Button>
        </div>
      ))}
    </div>
  );
}
