import type { SetUp } from '@osier/contract';
import { Input, Tooltip } from 'antd';
import { CodePicker } from '../../../parts/CodePicker';
import type { GridColumn, GridRow } from './copy-grid';
import { shelfWords as wording } from './words';

type Lists = SetUp['lists']['value'];

/** The code list of a column, and whether a cell may be empty; null for a column of text. */
function codesOf(column: GridColumn, row: GridRow, lists: Lists | undefined) {
  switch (column) {
    case 'branch':
      return { list: lists?.branches ?? [], optional: false };
    case 'location':
      return { list: (lists?.locations ?? []).filter((l) => l.branch === row.branch), optional: false };
    case 'type':
      return { list: lists?.types ?? [], optional: false };
    case 'fund':
      return { list: lists?.funds ?? [], optional: true };
    case 'supplier':
      return { list: lists?.suppliers ?? [], optional: true };
    default:
      return null;
  }
}

/** A cell of the grid of copies. Enter goes down; what is pasted from a spreadsheet goes over several. */
export function GridCell({
  row,
  at,
  column,
  lists,
  problem,
  placeholder,
  onFocus,
  onChange,
  onDown,
  onPaste,
}: {
  row: GridRow;
  at: number;
  column: GridColumn;
  lists: Lists | undefined;
  problem: string | undefined;
  placeholder: string | undefined;
  onFocus: () => void;
  onChange: (value: string) => void;
  onDown: () => void;
  /** Gives whether the text went over several cells. */
  onPaste: (text: string) => boolean;
}) {
  const codes = codesOf(column, row, lists);
  const label = `${wording.gridColumns[column]} ${at + 1}`;
  const id = `grid-${at}-${column}`;
  const told = problem ? { 'aria-invalid': true as const, 'aria-describedby': `${id}-problem` } : {};
  return (
    <td
      data-cell={`${at} ${column}`}
      className={problem ? `grid-${column} wrong` : `grid-${column}`}
      onFocus={onFocus}
      onPaste={(e) => {
        if (onPaste(e.clipboardData.getData('text'))) e.preventDefault();
      }}
    >
      {codes ? (
        <CodePicker
          {...told}
          label={label}
          list={codes.list}
          optional={codes.optional}
          isShort
          placeholder=" "
          status={problem ? 'error' : ''}
          value={row[column]}
          onChange={onChange}
        />
      ) : (
        <Input
          {...told}
          aria-label={label}
          data-takes-codes={column === 'barcode' ? 'scan' : undefined}
          className={column === 'barcode' || column === 'class' || column === 'item' ? 'mono' : undefined}
          autoComplete="off"
          placeholder={placeholder}
          status={problem ? 'error' : ''}
          value={row[column]}
          onChange={(e) => onChange(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' || e.ctrlKey) return;
            e.preventDefault();
            onDown();
          }}
        />
      )}
      {problem ? (
        <Tooltip title={problem}>
          <span id={`${id}-problem`} role="alert" className="grid-problem">
            {problem}
          </span>
        </Tooltip>
      ) : null}
    </td>
  );
}
