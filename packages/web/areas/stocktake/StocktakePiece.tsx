import { api, type StocktakeDetail } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { CloseSheet } from './CloseSheet';
import { FindingGroup } from './FindingGroup';
import { findingColumns, FIRST_FINDINGS_VIEW } from './finding-columns';
import { GROUPS } from './finding-groups';
import { LoadScans } from './LoadScans';
import { PaceChart } from './PaceChart';
import { Progress } from './Progress';
import { Runs } from './Runs';
import { SettleSheet } from './SettleSheet';
import { ShelfStrip } from './ShelfStrip';
import { useSettling } from './use-settling';
import { stocktakeWords as wording } from './words';
import { inWords } from '../../parts/format';

/** A stocktake: its progress, the shelf as it was scanned, and what shelf and records do not agree on. */
export function StocktakePiece({ id }: { id: number }) {
  const { data: s, error } = useApi(api.stocktakes.read, { params: { id } });
  const ticks = useSettling(id, s);
  const [view, setView] = useListView('findings', FIRST_FINDINGS_VIEW);
  const [sheet, setSheet] = useState<'settle' | 'close' | null>(null);
  const [maySettle, mayManage, mayScan] = [
    useMay('edit copies'),
    useMay('manage stocktakes'),
    useMay('scan'),
  ];
  if (error) return <p role="alert">{error.message}</p>;
  if (!s) return null;
  const open = s.stocktake.state === 'open';
  return (
    <div className="stack">
      <PieceHead
        stocktake={s}
        mayScan={open && mayScan}
        onClose={open && mayManage ? () => setSheet('close') : null}
      />
      <Notes stocktake={s} />
      <Tallies stocktake={s} />
      {open && mayScan ? <LoadScans stocktake={s} /> : null}
      <ShelfStrip stocktake={s} />
      <Runs stocktake={s} />
      <PaceChart id={id} />
      {s.kinds.length ? (
        <div className="row findings-view">
          <ListViewMenu view={view} onView={setView} columns={findingColumns()} />
        </div>
      ) : null}
      {GROUPS.map(({ kind, mark }) => {
        const of = s.kinds.find((k) => k.kind === kind);
        return of ? (
          <FindingGroup
            key={kind}
            stocktake={id}
            counts={of}
            view={view}
            mark={mark}
            isComparing={s.comparing}
            ticks={open && maySettle ? ticks : null}
          />
        ) : null;
      })}
      {s.scans === 0 ? <p className="faded">{wording.nothingScannedYetEverythingIn}</p> : null}
      {open && maySettle ? (
        <div className="settle-bar">
          <Button type="primary" data-key="s" disabled={ticks.count === 0} onClick={() => setSheet('settle')}>
            {ticks.count
              ? wording.settle(inWords(ticks.count), ticks.count === 1 ? 'finding' : 'findings')
              : wording.settleFindings}
          </Button>
        </div>
      ) : null}
      {sheet === 'settle' ? (
        <SettleSheet stocktake={s} asked={ticks.asked} onClose={() => setSheet(null)} onDone={ticks.clear} />
      ) : null}
      {sheet === 'close' ? <CloseSheet stocktake={s} onClose={() => setSheet(null)} /> : null}
    </div>
  );
}

function PieceHead({
  stocktake: s,
  mayScan,
  onClose,
}: {
  stocktake: StocktakeDetail;
  mayScan: boolean;
  onClose: (() => void) | null;
}) {
  const { seenSince, startedOn, closedOn } = s.stocktake;
  return (
    <div className="piece-head">
      <div>
        <h2>{s.stocktake.name}</h2>
        <p className="faded">
          {wording.started(s.placeName, startedOn, closedOn ? wording.closed(closedOn) : '')}
          {seenSince ? wording.seenSince(seenSince) : ''}
        </p>
      </div>
      <span className="row">
        {mayScan ? <Link to={`/stocktake/${s.id}/walk`}>{wording.walkTheShelf}</Link> : null}
        <Link to={`/stocktake/${s.id}/report`}>{wording.report}</Link>
        {onClose ? <Button onClick={onClose}>{wording.closeTheStocktake}</Button> : null}
      </span>
    </div>
  );
}

function Notes({ stocktake: { stocktake, loans, toTell, comparing } }: { stocktake: StocktakeDetail }) {
  return (
    <>
      {stocktake.state === 'closing' ? <p className="note information">{wording.beingClosed}</p> : null}
      {loans && loans.asked < loans.of ? (
        <p className="note caution" role="status">
          <Mark kind="caution" /> {wording.loansAsked(inWords(loans.asked), inWords(loans.of))}
        </p>
      ) : null}
      {toTell.waiting ? (
        <p className="note information" role="status">
          {wording.deskToTell(toTell.waiting)}
        </p>
      ) : null}
      {toTell.refused.length ? (
        <p className="note caution" role="status">
          <Mark kind="caution" /> {wording.deskRefused(toTell.refused.map(groupedBarcode).join(', '))}
        </p>
      ) : null}
      <p className="unseen" role="status">
        {comparing ? wording.comparing : ''}
      </p>
    </>
  );
}

const SHOWN = ['stood', 'missing', 'skipped', 'on loan', 'seen since', 'other'] as const;

/** How many copies of the stretch have which outcome. */
function Tallies({ stocktake: s }: { stocktake: StocktakeDetail }) {
  const all = Object.values(s.outcomes).reduce((sum, n) => sum + n, 0);
  const accounted = all - (s.outcomes.missing ?? 0) - (s.outcomes.skipped ?? 0);
  return (
    <div>
      <div className="tallies">
        {SHOWN.filter((name) => name === 'stood' || name === 'missing' || s.outcomes[name]).map((name) => (
          <span key={name}>
            <b>{inWords(s.outcomes[name] ?? 0)}</b> {wording.outcomes[name]}
          </span>
        ))}
        <span>
          <b>{inWords(s.scans)}</b> {wording.scans}
        </span>
        {s.comparing ? <span className="faded">{wording.comparing}</span> : null}
      </div>
      <Progress part={accounted} whole={all} name={s.stocktake.name} />
    </div>
  );
}
