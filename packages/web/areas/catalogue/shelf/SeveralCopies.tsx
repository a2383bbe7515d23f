import { api, type RecordDetail, type Review } from '@osier/contract';
import { offerCallNumbers } from '@osier/core/callnumbers';
import type { HouseRules } from '@osier/core/house';
import { Button, Checkbox, Popover } from 'antd';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { call } from '../../../api/call';
import { refresh } from '../../../api/queries';
import { problemText, RequestProblem } from '../../../api/request';
import { readKept, writeKept } from '../../../parts/kept-state';
import { ReviewSheet } from '../../../parts/ReviewSheet';
import { useHouse } from '../../../parts/use-house';
import { useMyBranch } from '../../../shell/my-branch';
import { useTakesScans } from '../../../shell/scan-target';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import {
  bodyOf,
  cellProblems,
  filledDown,
  GRID_COLUMNS,
  rowLike,
  rowsAt,
  withScan,
  type GridColumn,
  type GridRow,
} from './copy-grid';
import { CopyGrid } from './CopyGrid';
import { GridTools } from './GridTools';
import { KeepBarcodes } from './KeepBarcodes';
import { shelfWords as wording } from './words';

const COLUMNS_KEPT = 'osier-copy-columns';
const FIRST_COLUMNS: readonly GridColumn[] = [
  'branch',
  'location',
  'class',
  'item',
  'type',
  'barcode',
  'price',
];
const isColumn = (name: string): name is GridColumn => GRID_COLUMNS.some((c) => c === name);
const columnsKept = (): GridColumn[] => {
  const kept = (localStorage.getItem(COLUMNS_KEPT) ?? '').split(' ').filter(isColumn);
  return kept.length ? kept : [...FIRST_COLUMNS];
};

/** The row that the grid begins with: where the title stands already, else one's own branch under the call number that is offered. */
function firstRow(
  record: RecordDetail,
  branch: string,
  type: string,
  house: HouseRules | undefined,
): GridRow {
  const held = record.holdings.find((h) => h.holding.branch === branch) ?? record.holdings[0];
  const number =
    held?.holding ?? (house ? offerCallNumbers(record.marc, house, { branch, type }) : record.offers)[0];
  const { scheme = 'dewey', prefix = '', class: cls = '', item = '', year = '', suffix = '' } = number ?? {};
  return {
    ...{ scheme, prefix, class: cls, item, year, suffix },
    branch: held?.holding.branch ?? branch,
    location: held?.holding.location ?? '',
    ...{ part: '', number: '', barcode: '', price: '', fund: '', supplier: '', acquired: '', note: '' },
    type: held?.copies[0]?.copy.type ?? type,
  };
}

/** Rows that were typed and not sent, over a reload. */
function rowsKept(key: string): GridRow[] | null {
  const kept = readKept(key);
  if (!Array.isArray(kept) || kept.length === 0) return null;
  const isRow = (r: unknown): r is GridRow =>
    typeof r === 'object' && r !== null && GRID_COLUMNS.every((c) => c in r) && 'scheme' in r;
  return kept.every(isRow) ? kept : null;
}

/** Enters several copies of a record at once, a row each: by keyboard, by scanner, from a spreadsheet, or with numbers of a label roll. */
export function SeveralCopies({ record, onClose }: { record: RecordDetail; onClose: () => void }) {
  const lists = useSetUp()?.lists.value;
  const house = useHouse();
  const [mine] = useMyBranch();
  const { say, complain } = useShell();
  const key = `copies of ${record.id}`;
  const begin = () => [
    firstRow(record, mine || (lists?.branches[0]?.code ?? ''), lists?.types[0]?.code ?? '', house),
  ];
  const [rows, setRows] = useState<readonly GridRow[]>(() => rowsKept(key) ?? begin());
  const [shown, setShown] = useState<readonly GridColumn[]>(columnsKept);
  const [roll, setRoll] = useState<number | null>(null);
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  /** Whether barcodes that were refused are used all the same; null where that is not the question. */
  const [keep, setKeep] = useState<boolean | null>(null);
  const [review, setReview] = useState<Review | null>(null);
  const [at, setAt] = useState<{ readonly row: number; readonly column: GridColumn }>({
    row: 0,
    column: 'barcode',
  });
  const grid = useRef<HTMLTableElement>(null);
  const put = useCallback(
    (next: readonly GridRow[]) => {
      setRows(next);
      setProblems({});
      setKeep(null);
      writeKept(key, next);
    },
    [key],
  );
  const focus = useCallback((row: number, column: GridColumn) => {
    // The row may only just be made.
    setTimeout(() =>
      grid.current?.querySelector<HTMLElement>(`[data-cell="${row} ${column}"] input`)?.focus(),
    );
  }, []);
  useEffect(() => focus(0, 'barcode'), [focus]);
  const latest = useRef(rows);
  useEffect(() => {
    latest.current = rows;
  });
  const scan = useCallback(
    (code: string) => {
      const next = withScan(latest.current, code);
      latest.current = next.rows;
      put(next.rows);
      focus(next.at, 'barcode');
    },
    [put, focus],
  );
  useTakesScans(wording.theNewCopies, scan);
  const meant = useMemo(() => rows.filter((r) => !r.isBegun || r.barcode !== ''), [rows]);
  const body = () =>
    bodyOf(record.id, meant, { roll, keepBarcodes: keep === true }, { noNumber: wording.noNumberTyped });
  const show = async () => {
    const { body: sent, problems: own } = body();
    setProblems(own);
    if (Object.keys(own).length) return;
    try {
      setReview(await call(api.copies.reviewSeveral, { body: sent }));
    } catch (e) {
      const cells = e instanceof RequestProblem ? cellProblems(e.problem.fields ?? []) : {};
      setProblems(cells);
      if (e instanceof RequestProblem && e.isOverrulable) setKeep(false);
      if (Object.keys(cells).length === 0) complain(problemText(e));
    }
  };
  const down = (row: number, column: GridColumn) => {
    if (row + 1 < rows.length) return focus(row + 1, column);
    const last = rows.at(-1)!;
    if (column !== 'barcode' || last.barcode === '') return;
    put([...rows, { ...rowLike(last), isBegun: true }]);
    focus(row + 1, column);
  };
  const flip = (column: GridColumn) => {
    const next = GRID_COLUMNS.filter((c) => (c === column ? !shown.includes(c) : shown.includes(c)));
    setShown(next);
    localStorage.setItem(COLUMNS_KEPT, next.join(' '));
  };
  return (
    <>
      <section
        className="several-copies"
        aria-label={wording.severalCopies}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && e.ctrlKey) {
            e.preventDefault();
            void show();
          } else if (e.key === 'd' && e.ctrlKey) {
            e.preventDefault();
            put(filledDown(rows, at.row, at.column));
          }
        }}
      >
        <div className="row spread">
          <h3>{wording.severalCopies}</h3>
          <Popover
            trigger="click"
            content={
              <div className="list-view-menu">
                {GRID_COLUMNS.map((c) => (
                  <Checkbox key={c} checked={shown.includes(c)} onChange={() => flip(c)}>
                    {wording.gridColumns[c]}
                  </Checkbox>
                ))}
              </div>
            }
          >
            <Button size="small">{wording.columns}</Button>
          </Popover>
        </div>
        <GridTools
          copy={rows[0]!}
          roll={roll}
          onRoll={setRoll}
          onRows={(branches, each) => {
            put(rowsAt(rows[0]!, branches, each, lists?.locations ?? []));
            focus(0, 'barcode');
          }}
        />
        <CopyGrid
          rows={rows}
          shown={shown}
          lists={lists}
          problems={problems}
          hasRoll={roll !== null}
          grid={grid}
          onFocus={setAt}
          onRows={put}
          onDown={down}
        />
        {keep === null ? null : <KeepBarcodes keep={keep} onKeep={setKeep} />}
        <div className="kit-bar">
          <Button type="primary" onClick={() => void show()}>
            {wording.reviewCopies(meant.length)} <kbd>Ctrl Enter</kbd>
          </Button>
          <Button onClick={() => put([...rows, rowLike(rows.at(-1)!)])}>{wording.addARow}</Button>
          <Button onClick={() => put(filledDown(rows, at.row, at.column))}>
            {wording.fillDown(wording.gridColumns[at.column])} <kbd>Ctrl D</kbd>
          </Button>
          <Button
            onClick={() => {
              writeKept(key, null);
              onClose();
            }}
          >
            {wording.discard}
          </Button>
        </div>
      </section>
      {review ? (
        <ReviewSheet
          title={wording.severalCopies}
          review={review}
          onClose={() => setReview(null)}
          onAnew={show}
          onDo={async (_, token) => {
            const done = await call(api.copies.addSeveral, { body: { ...body().body, token } });
            writeKept(key, null);
            say(done.sentence, done.entry);
            onClose();
            await refresh();
          }}
        />
      ) : null}
    </>
  );
}
