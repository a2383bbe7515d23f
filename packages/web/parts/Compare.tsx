import { Button } from 'antd';
import { compareRecords, fieldText, type MarcRecord } from '@osier/core/marc';
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
        if (p.change === 'changed')
          return (
            <div key={i} className="compare-row changed">
              <span className="field-tag">{p.after.tag}</span>
              <span>
                {p.parts.map((t, k) =>
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
                )}
              </span>
            </div>
          );
        const text = fieldText(p.field).slice(4);
        return (
          <div key={i} className={`compare-row ${p.change}`}>
            <span className="field-tag">{p.field.tag}</span>
            {p.change === 'lost' ? (
              <del className="whole">{text}</del>
            ) : p.change === 'new' ? (
              <ins className="whole">{text}</ins>
            ) : (
              <span>{text}</span>
            )}
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
