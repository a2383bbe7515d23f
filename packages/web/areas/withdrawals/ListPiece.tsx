import { api, type WithdrawalList, type WithdrawalRow } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh, setRead, useCalmApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Facets } from '../../parts/Facets';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { Mark } from '../../parts/Mark';
import { ScanField } from '../../parts/ScanField';
import { chime, type Signal } from '../../parts/sound';
import { useTicks } from '../../parts/ticks';
import { useAddress } from '../../parts/use-address';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { ChangeList } from './ChangeList';
import { FromPile } from './FromPile';
import { LastScan } from './LastScan';
import { FIRST_LIST_VIEW, inListOrder, listColumns, LIST_ORDERS } from './list-columns';
import { OtherBranch } from './OtherBranch';
import { SlipList } from './SlipList';
import { groupOf, hasLeft, VerdictGroup, VERDICT_GROUPS } from './VerdictGroup';
import './withdrawals.css';
import { pauseOfList, withoutScan, withScanned } from './with-scanned';
import { useConfirmer } from './use-confirmers';
import { WithdrawSheet } from './WithdrawSheet';
import { withdrawalsWords as wording } from './words';

/** What is heard at a scan. */
const signalOf = ({ verdict, candidate, again }: WithdrawalRow): Signal => {
  if (again) return 'scanned before';
  if (!candidate) return 'unknown';
  return verdict === 'clear' ? 'in place' : verdict === 'caution' ? 'look' : 'should-not-be-here';
};

/** A withdrawal list: scan, see the verdicts, tick, withdraw. */
export function ListPiece({ id }: { id: number }) {
  const place = { params: { id } };
  const { data: list, error } = useCalmApi(api.withdrawals.read, place, pauseOfList);
  const confirmer = useConfirmer(list?.confirmer);
  const ticks = useListTicks(id);
  const [last, setLast] = useState<WithdrawalRow | null>(null);
  const [said, setSaid] = useState('');
  const [sheet, setSheet] = useState<'withdraw' | 'change' | null>(null);
  const [reason, setReason] = useState<string>();
  const [mayPrepare, mayConfirm, mayScan] = [
    useMay('prepare withdrawals'),
    useMay('confirm withdrawals'),
    useMay('scan'),
  ];
  const { complain } = useShell();
  const [query, changeAddress] = useAddress();
  const [view, setView] = useListView('withdrawal list', FIRST_LIST_VIEW);
  const order = LIST_ORDERS.find(([key]) => key === query.get('sort'))?.[0] ?? 'scanned';
  if (error) return <p role="alert">{error.message}</p>;
  if (!list) return null;
  const scan = async (codes: string[]) => {
    try {
      const { verdicts } = await call(api.withdrawals.scan, { params: { id }, body: { codes } });
      const one = verdicts.at(-1);
      setSaid(codes.length > 1 ? wording.barcodesAdded(codes.length) : '');
      setLast(codes.length === 1 ? (one ?? null) : null);
      if (one && codes.length === 1) chime(signalOf(one));
      setRead(api.withdrawals.read, place, (read) => withScanned(read, verdicts));
      // The next scan does not wait until everything on screen is read again.
      void refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const undoLast = async () => {
    try {
      const { code } = await call(api.withdrawals.undoScan, { params: { id } });
      if (last && last.code === code)
        setRead(api.withdrawals.read, place, (read) => withoutScan(read, last.scan));
      setLast(null);
      setSaid(code === null ? wording.noScanToUndo : wording.scanUndone(code));
      chime('undone');
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const takeOff = async (row: WithdrawalRow) => {
    await call(api.withdrawals.takeOff, { params: { id, scan: row.scan } });
    setRead(api.withdrawals.read, place, (read) => withoutScan(read, row.scan));
    await refresh();
  };
  const use = async (row: WithdrawalRow, code: string) => {
    try {
      await call(api.withdrawals.scan, { params: { id }, body: { codes: [code] } });
      await takeOff(row);
    } catch (e) {
      complain(problemText(e));
    }
  };
  const toPull = list.verdicts.filter((v) => v.pulled !== null && !v.again);
  const chosen = list.verdicts.filter(ticks.isChosen);
  const open = list.state === 'open';
  const hasWithdrawn = !open || list.verdicts.some(hasLeft);
  const shown = reason
    ? list.verdicts.filter((v) => v.reasons.some((r) => r.code === reason))
    : list.verdicts;
  const scanning = (
    <>
      {open && mayScan ? (
        <div className="list-scans no-print">
          <ScanField
            label={wording.scanOrPasteBarcodes}
            name={list.name}
            said={said}
            onScan={scan}
            takesFiles
          />
          {mayPrepare ? <FromPile list={id} /> : null}
        </div>
      ) : null}
      {last ? <LastScan row={last} onUndo={() => void undoLast()} /> : null}
    </>
  );
  if (query.has('slips'))
    return (
      <SlipList id={id} name={list.name}>
        {scanning}
      </SlipList>
    );
  return (
    <div className="stack">
      <div className="piece-head">
        <div>
          <h2>{list.name}</h2>
          <p className="faded">
            {wording.startedByOn(list.reason || wording.noReasonGiven, list.by, list.madeOn)}
            {confirmer ? ` · ${wording.isToConfirm(confirmer)}` : ''}
          </p>
        </div>
        <span className="row">
          {hasWithdrawn ? <Link to={`/copies/labels?list=${id}`}>{wording.labelsWithdrawn}</Link> : null}
          {open && mayPrepare ? (
            <>
              {toPull.length ? (
                <Link to={`/withdrawals/${id}?slips=1`}>
                  {wording.slipList} ({wording.pulledOf(toPull.filter((v) => v.pulled).length, toPull.length)}
                  )
                </Link>
              ) : null}
              <Button onClick={() => setSheet('change')}>{wording.changeTheList}</Button>
              <Button
                type="primary"
                data-key="w"
                disabled={chosen.length === 0}
                onClick={() => setSheet('withdraw')}
              >
                {wording.withdraw(chosen.length, chosen.length === 1 ? 'copy' : 'copies')}
              </Button>
            </>
          ) : null}
        </span>
      </div>
      {sheet === 'change' ? <ChangeList list={list} onClose={() => setSheet(null)} /> : null}
      {!list.loansDesk ? (
        <p className="note caution" role="alert">
          <Mark kind="caution" /> {wording.theLoansDeskDoesNot}
        </p>
      ) : null}
      {scanning}
      {open && mayPrepare ? <OtherBranch list={list} /> : null}
      {list.verdicts.length === 0 ? (
        <p className="faded">{open ? wording.nothingScannedYetScanThe : wording.thisListIsFinished}</p>
      ) : (
        <div className="facets flows">
          <Facets
            label={wording.reason}
            facets={reasonFacets(list)}
            chosen={reason}
            onChoose={setReason}
            most={8}
          />
          <ListViewMenu
            view={view}
            onView={setView}
            columns={listColumns()}
            order={order}
            orders={LIST_ORDERS}
            onOrder={(key) => changeAddress({ sort: key === 'scanned' ? undefined : key })}
          />
        </div>
      )}
      {VERDICT_GROUPS.map((group) => (
        <VerdictGroup
          key={group.kind}
          group={group}
          rows={inListOrder(
            shown.filter((r) => groupOf(r) === group.kind),
            order,
          )}
          view={view}
          last={last?.code ?? ''}
          ticks={open && mayPrepare ? ticks : null}
          mayOverrule={mayConfirm}
          onRemove={(row) => void takeOff(row)}
          onUse={(row, code) => void use(row, code)}
        />
      ))}
      {sheet === 'withdraw' ? (
        <WithdrawSheet list={list} chosen={chosen} onDone={ticks.clear} onClose={() => setSheet(null)} />
      ) : null}
    </div>
  );
}

/** How many rows of a list each reason stands in, the commonest first. */
function reasonFacets({ verdicts }: WithdrawalList) {
  const counts = new Map<WithdrawalRow['reasons'][number]['code'], number>();
  for (const { reasons } of verdicts)
    for (const { code } of reasons) counts.set(code, (counts.get(code) ?? 0) + 1);
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([code, count]) => ({ value: code, name: wording.reasons[code], count }));
}

/** What is ticked of a list: clear copies unless they are unticked, cautions and overruled stops when they are ticked. */
export interface ListTicks {
  isChosen(row: WithdrawalRow): boolean;
  toggle(row: WithdrawalRow): void;
  clear(): void;
}

function useListTicks(id: number): ListTicks {
  const unticked = useTicks(`withdrawal ${id} clear`);
  const ticked = useTicks(`withdrawal ${id} caution`);
  return {
    isChosen: ({ candidate, verdict, again, overrulable }) => {
      if (candidate === null || again) return false;
      if (verdict === 'clear') return !unticked.ids.has(candidate.copyId);
      return (verdict === 'caution' || overrulable) && ticked.ids.has(candidate.copyId);
    },
    toggle: ({ candidate, verdict }) => {
      if (candidate) (verdict === 'clear' ? unticked : ticked).flip(candidate.copyId);
    },
    clear: () => {
      ticked.clear();
      unticked.clear();
    },
  };
}
