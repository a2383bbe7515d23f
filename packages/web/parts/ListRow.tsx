import type { ReactNode } from 'react';
import type { ListColumn, ListView } from './list-view';

/** Height of a row, in pixels. */
export const rowHeightOf = ({ isDense }: ListView): number => (isDense ? 30 : 46);

/** A row of a work list: what it is called, and the columns that are chosen, on one line or below. */
export function ListRow<T>({
  row,
  title,
  columns,
  view,
}: {
  row: T;
  title: ReactNode;
  columns: readonly ListColumn<T>[];
  view: ListView;
}) {
  const shown = columns.filter((c) => view.columns.includes(c.key));
  const cell = (c: ListColumn<T>, width?: number) => (
    <span
      key={c.key}
      className={[c.isMono ? 'mono' : '', c.isNumber ? 'num' : '', 'cell'].join(' ').trim()}
      // A year, a number or a code is shown whole; names give way.
      style={width ? { flex: `0 ${c.isMono || c.isNumber || width < 50 ? 0 : 1} ${width}px` } : undefined}
    >
      {c.of(row)}
    </span>
  );
  if (view.isDense)
    return (
      <div className="one">
        <span className="main dense">{title}</span>
        {shown.map((c) => cell(c, c.width))}
      </div>
    );
  const endOf = (c: ListColumn<T>) => c.endOf ?? (c.isMono ? 'first' : c.isNumber ? 'second' : null);
  const at = (end: 'first' | 'second' | null) => shown.filter((c) => endOf(c) === end);
  return (
    <>
      <div className="one">
        <b>{title}</b>
        {at('first').map((c) => cell(c))}
      </div>
      <div className="two">
        <span className="main">
          {at(null)
            .map((c) => c.of(row))
            .filter(Boolean)
            .map((text, i) => (
              <span key={i}>
                {i ? ' · ' : ''}
                {text}
              </span>
            ))}
        </span>
        {at('second').map((c) => cell(c))}
      </div>
    </>
  );
}
