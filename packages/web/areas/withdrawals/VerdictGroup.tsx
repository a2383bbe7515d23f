import type { WithdrawalRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { Button, Checkbox } from 'antd';
import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Barcode } from '../../parts/Barcode';
import type { ListView } from '../../parts/list-view';
import { Mark } from '../../parts/Mark';
import { RowsInSight } from '../../parts/RowsInSight';
import { listColumns, type ScanColumn } from './list-columns';
import type { ListTicks } from './ListPiece';
import { withdrawalsWords as wording } from './words';

/** Whether the copy has left the library already, by this list or another. */
export const hasLeft = ({ reasons }: WithdrawalRow): boolean =>
  reasons.some(({ code }) => code === 'withdrawn-before');

/** The verdicts, what needs a look first; what is withdrawn stands last. */
export const VERDICT_GROUPS = [
  { kind: 'stop', name: wording.stopCannotBeWithdrawn, hint: wording.eachRowSaysWhatPrevents },
  { kind: 'caution', name: wording.cautionCheckFirst, hint: wording.canBeWithdrawnTheTicked },
  { kind: 'clear', name: wording.clear, hint: wording.nothingPreventsIt },
  { kind: 'information', name: wording.withdrawn, hint: wording.theRegisterHasThem },
] as const;

/** The group in which a row stands. */
export const groupOf = (row: WithdrawalRow): (typeof VERDICT_GROUPS)[number]['kind'] =>
  hasLeft(row) ? 'information' : row.verdict;

/** Of more rows only those in sight are drawn. */
const ALL_DRAWN = 100;
/** Height of a row on one line and on two, in pixels. */
const [ONE_LINE, TWO_LINES] = [30, 49];

/** The rows of one verdict, a line each. */
export function VerdictGroup({
  group: { kind, name, hint },
  rows,
  view,
  last,
  ticks,
  mayOverrule,
  onRemove,
  onUse,
}: {
  group: (typeof VERDICT_GROUPS)[number];
  rows: readonly WithdrawalRow[];
  view: ListView;
  /** The code that was scanned last: its row is marked. */
  last: string;
  ticks: ListTicks | null;
  mayOverrule: boolean;
  onRemove: (row: WithdrawalRow) => void;
  /** Another barcode was meant than the one that was read. */
  onUse: (row: WithdrawalRow, code: string) => void;
}) {
  if (rows.length === 0) return null;
  const columns = listColumns().filter((c) => view.columns.includes(c.key));
  const canTick = (r: WithdrawalRow) =>
    r.candidate !== null && !r.again && (kind !== 'stop' || (r.overrulable && mayOverrule));
  const line = (r: WithdrawalRow) => (
    <div
      className={['list-row', view.isDense ? 'dense' : '', r.code === last ? 'marked' : ''].join(' ').trim()}
    >
      {ticks && canTick(r) ? (
        <Checkbox
          aria-label={
            kind === 'stop'
              ? wording.overruleFor(r.candidate?.title ?? '')
              : wording.withdraw2(r.candidate?.title ?? '')
          }
          checked={ticks.isChosen(r)}
          onChange={() => ticks.toggle(r)}
        />
      ) : (
        <span />
      )}
      <Barcode code={r.code} />
      {hasLeft(r) ? (
        <span className="list-left">{r.reasons.map((x) => x.message).join(' ')}</span>
      ) : (
        <>
          <span className="list-title">
            {r.candidate ? (
              <Link to={`/catalogue/${r.candidate.recordId}?copy=${r.candidate.copyId}`}>
                {r.candidate.title}
              </Link>
            ) : (
              <i>{wording.notKnown}</i>
            )}
          </span>
          <Cells row={r} columns={columns} isDense={view.isDense}>
            <span className={`reason ${kind}`}>
              {r.reasons.map((x) => x.message).join(' ')}
              {ticks
                ? r.near.map((code) => (
                    <Button key={code} size="small" className="fix" onClick={() => onUse(r, code)}>
                      {wording.useInstead(groupedBarcode(code))}
                    </Button>
                  ))
                : null}
            </span>
          </Cells>
        </>
      )}
      {ticks ? (
        <Button
          size="small"
          className="fix"
          onClick={() => onRemove(r)}
          aria-label={wording.removeFromTheList(r.code)}
        >
          {wording.remove}
        </Button>
      ) : null}
    </div>
  );
  return (
    <section className="verdict-group" aria-label={name}>
      <h3>
        <Mark kind={kind} name={kind === 'information' ? '' : kind} /> {name}{' '}
        <span className="faded">
          {rows.length.toLocaleString('en-GB')} · {hint}
        </span>
      </h3>
      {rows.length > ALL_DRAWN ? (
        <RowsInSight
          rows={rows}
          keyOf={(r) => r.scan}
          height={view.isDense ? ONE_LINE : TWO_LINES}
          row={line}
        />
      ) : (
        rows.map((r) => <Fragment key={r.scan}>{line(r)}</Fragment>)
      )}
    </section>
  );
}

/** The columns of a row with its reasons: on its line, or what is no code on a line below. */
function Cells({
  row,
  columns,
  isDense,
  children,
}: {
  row: WithdrawalRow;
  columns: readonly ScanColumn[];
  isDense: boolean;
  children: ReactNode;
}) {
  const onLine = columns.filter((c) => isDense || c.isMono);
  const below = isDense ? [] : columns.filter((c) => !c.isMono);
  return (
    <>
      {onLine.map((c) => (
        <span
          key={c.key}
          className={['cell', c.isMono ? 'mono' : '', c.isNumber ? 'num' : 'faded'].join(' ').trim()}
          style={{ flex: `0 ${c.isMono || c.isNumber ? 0 : 1} ${c.width}px` }}
        >
          {c.of(row)}
        </span>
      ))}
      {isDense ? (
        children
      ) : (
        <div className="list-more">
          <span className="faded">
            {below
              .map((c) => {
                const text = c.of(row);
                return text && c.isNumber ? `${c.name} ${text}` : text;
              })
              .filter(Boolean)
              .join(' · ')}
          </span>
          {children}
        </div>
      )}
    </>
  );
}
