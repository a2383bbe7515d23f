import type { StockFindingRow, StocktakeDetail } from '@osier/contract';
import { Button, Checkbox } from 'antd';
import { Link } from 'react-router';
import { Barcode } from '../../parts/Barcode';
import type { ListView } from '../../parts/list-view';
import { Mark } from '../../parts/Mark';
import { findingColumns } from './finding-columns';
import { useFindings } from './use-findings';
import type { TickedFindings } from './use-settling';
import { waysOn } from './ways-on';
import { stocktakeWords as wording } from './words';
import { inWords } from '../../parts/format';

/** Findings of one kind, a page at a time; with `ticks` they can be settled. */
export function FindingGroup({
  stocktake,
  counts: { kind, count, settled },
  view,
  mark,
  isComparing,
  ticks,
}: {
  stocktake: number;
  counts: StocktakeDetail['kinds'][number];
  view: ListView;
  mark: 'stop' | 'caution' | 'information';
  isComparing: boolean;
  ticks: TickedFindings | null;
}) {
  const pages = useFindings(stocktake, kind);
  const rows = pages.data?.pages.flatMap((p) => p.rows) ?? [];
  const name = wording.kinds[kind];
  const all = ticks?.allOf(kind);
  const open = rows.filter((f) => f.settled === null);
  const usual = open[0]?.acts[0];
  const acts = new Set(open.map((f) => f.acts[0]));
  return (
    <section className="verdict-group" aria-label={name}>
      <h3>
        <Mark kind={mark} name={name} /> {name}{' '}
        <span className="faded">
          {settled ? wording.openSettled(inWords(count - settled), inWords(settled)) : inWords(count)}
        </span>
        {ticks && all ? (
          <>
            <span className="faded">{wording.allTicked(inWords(count - settled), wording.acts[all])}</span>
            <Button size="small" className="fix" onClick={() => ticks.tickAll(kind, null)}>
              {wording.untick}
            </Button>
          </>
        ) : null}
        {ticks && !all && usual && acts.size === 1 && count - settled > 1 && !isComparing ? (
          <Button size="small" className="fix" onClick={() => ticks.tickAll(kind, usual)}>
            {wording.tickAll(inWords(count - settled))}
          </Button>
        ) : null}
      </h3>
      {rows.map((f) => (
        <FindingLine key={f.code} finding={f} view={view} mark={mark} ticks={all ? null : ticks} />
      ))}
      {pages.hasNextPage ? (
        <Button size="small" className="fix" onClick={() => void pages.fetchNextPage()}>
          {wording.showMore}
        </Button>
      ) : null}
    </section>
  );
}

function FindingLine({
  finding: f,
  view,
  mark,
  ticks,
}: {
  finding: StockFindingRow;
  view: ListView;
  mark: 'stop' | 'caution' | 'information';
  ticks: TickedFindings | null;
}) {
  const columns = findingColumns().filter((c) => view.columns.includes(c.key));
  const title = f.title || <i>{wording.notKnown}</i>;
  return (
    <div className={view.isDense ? 'verdict-row dense' : 'verdict-row'}>
      <Mark kind={f.settled ? 'clear' : mark} />
      <Barcode code={f.code} />
      <span className="verdict-title">
        <span className="finding-title">
          {f.record && f.copy ? <Link to={`/catalogue/${f.record}?copy=${f.copy}`}>{title}</Link> : title}
        </span>
        {columns.map((c) => (
          <small key={c.key} className={c.isMono ? 'faded' : ''} title={view.isDense ? c.of(f) : undefined}>
            {c.of(f)}
          </small>
        ))}
      </span>
      <span className="row">
        {f.settled ? (
          <small>{wording.settledBy(wording.settledAs[f.settled.how], f.settled.on, f.settled.by)}</small>
        ) : null}
        {ticks && !f.settled
          ? waysOn(f).map(([name, to]) => (
              <Link key={name} to={to}>
                {name}
              </Link>
            ))
          : null}
        {ticks && !f.settled
          ? f.acts.map((act) => (
              <Checkbox key={act} checked={ticks.actOf(f) === act} onChange={() => ticks.toggle(f, act)}>
                {act === 'done' && f.acts.includes('return') ? wording.leaveOnLoan : wording.acts[act]}
              </Checkbox>
            ))
          : null}
      </span>
    </div>
  );
}
