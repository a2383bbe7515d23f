import { fieldBroughtBack } from '@osier/core/editing';
import { compareRecords, fieldText, type FieldPair, type MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
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
          <span className="field-tag">{tagOf(pair)}</span>
          <span>{textOf(pair)}</span>
          <Button size="small" onClick={() => edit.become(fieldBroughtBack(edit.marc, from, pair))}>
            {verb}
          </Button>
        </div>
      ))}
    </div>
  );
}

/** The tag of the field that a pair is about. */
export const tagOf = (pair: FieldPair): string =>
  pair.change === 'changed' ? pair.after.tag : pair.field.tag;

function textOf(pair: FieldPair) {
  if (pair.change === 'changed')
    return pair.parts.map((t, k) =>
      t.change === 'lost' ? (
        <del key={k} className="lost">
          {t.text}
        </del>
      ) : t.change === 'new' ? (
        <ins key={k} className="new">
          {t.text}
        </ins>
      ) : (
        <span key={k}>{t.text}</span>
      ),
    );
  const text = fieldText(pair.field).slice(4);
  return pair.change === 'lost' ? <del className="whole">{text}</del> : <ins className="whole">{text}</ins>;
}
