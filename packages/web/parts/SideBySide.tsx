import { fieldText, type Field, type MarcRecord } from '@osier/core/marc';
import { useMemo } from 'react';
import { FieldBody } from './field-editor/FieldBody';
import './side-by-side.css';
import { partWords as wording } from './words';

export interface RecordColumn {
  readonly name: string;
  readonly record: MarcRecord;
}

/** Records beside each other, like fields on one line; what is not the same in the column before is marked. */
export function SideBySide({ columns }: { columns: readonly RecordColumn[] }) {
  const rows = useMemo(() => aligned(columns.map((c) => c.record)), [columns]);
  return (
    <div
      className="side-by-side"
      role="table"
      aria-label={wording.recordsSideBySide}
      style={{ gridTemplateColumns: `44px repeat(${columns.length}, minmax(150px, 1fr))` }}
    >
      <div role="row" className="side-row head">
        <span role="columnheader" className="unseen">
          {wording.field2}
        </span>
        {columns.map((c) => (
          <b key={c.name} role="columnheader">
            {c.name}
          </b>
        ))}
      </div>
      {rows.map((row, i) => (
        <div role="row" className="side-row" key={i}>
          <span role="rowheader" className="field-tag">
            {row.find((f) => f !== null)!.tag}
          </span>
          {row.map((f, k) => (
            <div key={k} role="cell" className={k > 0 ? stateOf(row[k - 1]!, f) : ''}>
              {f ? (
                <FieldBody field={f} leader={columns[k]!.record.leader} />
              ) : (
                <span className="unseen">{wording.missing}</span>
              )}
            </div>
          ))}
        </div>
      ))}
    </div>
  );
}

function stateOf(before: Field | null, now: Field | null): string {
  if (now === null) return before === null ? '' : 'gone';
  if (before === null) return 'new';
  return fieldText(before) === fieldText(now) ? 'same' : 'changed';
}

/** One row for each field: the same text on one line, then the others of a tag in their order. */
function aligned(records: readonly MarcRecord[]): (Field | null)[][] {
  const tags = [...new Set(records.flatMap((r) => r.fields.map((f) => f.tag)))].sort();
  return tags.flatMap((tag) => {
    const lists = records.map((r) => r.fields.filter((f) => f.tag === tag));
    const texts = [...new Set(lists.flat().map(fieldText))];
    const shared = texts.filter((t) => lists.filter((l) => l.some((f) => fieldText(f) === t)).length > 1);
    const rows: (Field | null)[][] = shared.map((t) =>
      lists.map((l) => l.find((f) => fieldText(f) === t) ?? null),
    );
    const rest = lists.map((l) => l.filter((f) => !shared.includes(fieldText(f))));
    for (let i = 0; i < Math.max(...rest.map((l) => l.length)); i++) {
      const row = rest.map((l) => l[i] ?? null);
      // What differs stands beside a shared text that lacks it, rather than on a line of its own.
      const open = rows.find(
        (r) => r.every((f, k) => f === null || row[k] === null) && r.some((f, k) => f === null && row[k]),
      );
      if (open) row.forEach((f, k) => f && (open[k] = f));
      else rows.push(row);
    }
    return rows;
  });
}
