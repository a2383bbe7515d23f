import { Button } from 'antd';
import { compareRecords, fieldText, type FieldPair, type MarcRecord } from '@osier/core/marc';
import { useMemo, useState } from 'react';
import { partWords as wording } from './words';

/** Two records as one list: lost text struck, new text marked, what stayed folded away. */
export function Compare({
  before,
  after,
  showSame = false,
}: {
  before: MarcRecord;
  after: MarcRecord;
  showSame?: boolean;
}) {
  const [all, setAll] = useState(showSame);
  const pairs = useMemo(() => compareRecords(before, after), [before, after]);
  const same = pairs.filter((p) => p.change === 'same').length;
  return (
    <div className="compare">
      {pairs.map((p, i) => {
        if (p.change === 'same' && !all) return null;
        return (
          <div key={i} className={`compare-row ${p.change}`}>
            <span className="field-tag">{tagOfPair(p)}</span>
            <span>
              <PairText pair={p} />
            </span>
          </div>
        );
      })}
      {same > 0 ? (
        <Button size="small" className="fix" onClick={() => setAll(!all)}>
          {all
            ? wording.hideUnchangedFields
            : same === 1
              ? wording.n1UnchangedField
              : wording.unchangedFields(same)}
        </Button>
      ) : null}
    </div>
  );
}

/** The tag of the field that a pair is about. */
export const tagOfPair = (pair: FieldPair): string =>
  pair.change === 'changed' ? pair.after.tag : pair.field.tag;

/** A field as two records have it: what was lost struck, what is new marked. */
export function PairText({ pair }: { pair: FieldPair }) {
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
  if (pair.change === 'same') return text;
  return pair.change === 'lost' ? <del className="whole">{text}</del> : <ins className="whole">{text}</ins>;
}
