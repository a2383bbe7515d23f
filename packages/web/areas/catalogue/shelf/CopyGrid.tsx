import { DeleteOutlined } from '@ant-design/icons';
import type { SetUp } from '@osier/contract';
import { Button } from 'antd';
import type { Ref } from 'react';
import { pastedInto, withCell, type GridColumn, type GridRow } from './copy-grid';
import { GridCell } from './GridCell';
import { shelfWords as wording } from './words';

/** The grid in which copies to come are entered, a row each; Enter goes down, what is pasted from a spreadsheet goes over several cells. */
export function CopyGrid({
  rows,
  shown,
  lists,
  problems,
  hasRoll,
  grid,
  onFocus,
  onRows,
  onDown,
}: {
  rows: readonly GridRow[];
  shown: readonly GridColumn[];
  lists: SetUp['lists']['value'] | undefined;
  /** By row and column: `2.barcode`. */
  problems: Readonly<Record<string, string>>;
  /** Rows without a barcode take the next number of a label roll. */
  hasRoll: boolean;
  grid?: Ref<HTMLTableElement>;
  onFocus?: (at: { readonly row: number; readonly column: GridColumn }) => void;
  onRows: (rows: readonly GridRow[]) => void;
  onDown: (row: number, column: GridColumn) => void;
}) {
  const change = (row: number, column: GridColumn, value: string) =>
    onRows(rows.map((r, i) => (i === row ? withCell(r, column, value, lists?.locations ?? []) : r)));
  return (
    <>
      <div className="grid-scroll">
        <table ref={grid} className="copy-grid">
          <thead>
            <tr>
              <td />
              {shown.map((c) => (
                <th key={c} scope="col">
                  {wording.gridColumns[c]}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={i}>
                <th scope="row">{i + 1}</th>
                {shown.map((column) => (
                  <GridCell
                    key={column}
                    row={row}
                    at={i}
                    column={column}
                    lists={lists}
                    problem={problems[`${i}.${column}`]}
                    placeholder={column === 'barcode' && hasRoll ? wording.nextOfTheRoll : undefined}
                    onFocus={() => onFocus?.({ row: i, column })}
                    onChange={(value) => change(i, column, value)}
                    onDown={() => onDown(i, column)}
                    onPaste={(text) => {
                      const pasted = pastedInto(rows, shown, { row: i, column }, text);
                      if (pasted) onRows(pasted);
                      return pasted !== null;
                    }}
                  />
                ))}
                <td>
                  <Button
                    size="small"
                    type="text"
                    aria-label={wording.removeRow(i + 1)}
                    icon={<DeleteOutlined />}
                    disabled={rows.length === 1}
                    onClick={() => onRows(rows.filter((_, other) => other !== i))}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {hiddenProblems(problems, shown).map(([cell, message]) => (
        <p key={cell} role="alert" className="field-problem">
          {wording.inRow(Number(cell.split('.')[0]) + 1, message)}
        </p>
      ))}
    </>
  );
}

/** Problems of cells that are not shown. */
const hiddenProblems = (problems: Readonly<Record<string, string>>, shown: readonly GridColumn[]) =>
  Object.entries(problems).filter(([cell]) => !shown.some((c) => cell.endsWith(`.${c}`)));
