import { api, type WithdrawalList } from '@osier/contract';
import { call } from '../../api/call';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useTicks } from '../../parts/ticks';
import { ScanField } from '../../parts/ScanField';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { withdrawalsWords as wording } from './words';

type Row = WithdrawalList['verdicts'][number];
const GROUPS = [
  ['stop', wording.stopCannotBeWithdrawn, wording.eachRowSaysWhatPrevents],
  ['caution', wording.cautionCheckFirst, wording.canBeWithdrawnTheTicked],
  ['clear', wording.clear, wording.nothingPreventsIt],
] as const;

/** A withdrawal list: scan, see the verdicts, tick, withdraw. */
export function ListPiece({ id }: { id: number }) {
  const { data: list, error } = useApi(api.withdrawals.read, { params: { id } });
  const unticked = useTicks(`withdrawal ${id} clear`);
  const ticked = useTicks(`withdrawal ${id} caution`);
  /** The code that was scanned last: its row is marked and comes into sight. */
  const [marked, setMarked] = useState('');
  const markedRow = useRef<HTMLDivElement>(null);
  useEffect(() => {
    markedRow.current?.scrollIntoView({ block: 'nearest' });
  }, [marked, list]);
  const [said, setSaid] = useState('');
  const [reviewing, setReviewing] = useState(false);
  const mayPrepare = useMay('prepare withdrawals');
  const { complain } = useShell();
  if (error) return <p role="alert">{error.message}</p>;
  if (!list) return null;
  const scan = async (codes: string[]) => {
    try {
      await call(api.withdrawals.scan, { params: { id }, body: { codes } });
      const [one] = codes;
      const isThere = codes.length === 1 && list.verdicts.some((r) => r.code === one);
      setSaid(
        codes.length > 1
          ? wording.barcodesAdded(codes.length)
          : isThere
            ? wording.isOnTheListAlready(one ?? '')
            : wording.scanned(one ?? ''),
      );
      setMarked(one ?? '');
      // The next scan does not wait until everything on screen is read again.
      void refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const takeOff = async (row: Row) => {
    await call(api.withdrawals.takeOff, { params: { id, scan: row.scan } });
    await refresh();
  };
  const isChosen = (r: Row) =>
    r.candidate !== null &&
    (r.verdict === 'clear'
      ? !unticked.ids.has(r.candidate.copyId)
      : r.verdict === 'caution' && ticked.ids.has(r.candidate.copyId));
  const chosen = list.verdicts.filter(isChosen).map((r) => r.candidate!.copyId);
  const toggle = (r: Row) => (r.verdict === 'clear' ? unticked : ticked).flip(r.candidate!.copyId);
  const open = list.state === 'open';
  return (
    <div className="stack">
      <div className="piece-head">
        <div>
          <h2>{list.name}</h2>
          <p className="faded">
            {wording.startedByOn(list.reason || wording.noReasonGiven, list.by, list.madeOn)}
          </p>
        </div>
        {open && mayPrepare ? (
          <Button
            type="primary"
            data-key="w"
            disabled={chosen.length === 0}
            onClick={() => setReviewing(true)}
          >
            {wording.withdraw(chosen.length, chosen.length === 1 ? 'copy' : 'copies')}
          </Button>
        ) : null}
      </div>
      {!list.loansDesk ? (
        <p className="note caution" role="alert">
          <Mark kind="caution" /> {wording.theLoansDeskDoesNot}
        </p>
      ) : null}
      {open && mayPrepare ? (
        <ScanField label={wording.scanOrPasteBarcodes} name={list.name} said={said} onScan={scan} />
      ) : null}
      {list.verdicts.length === 0 ? (
        <p className="faded">{open ? wording.nothingScannedYetScanThe : wording.thisListIsFinished}</p>
      ) : null}
      {GROUPS.map(([kind, name, hint]) => {
        const rows = list.verdicts.filter((r) => r.verdict === kind);
        if (rows.length === 0) return null;
        return (
          <section key={kind} className="verdict-group" aria-label={name}>
            <h3>
              <Mark kind={kind} name={kind} /> {name}{' '}
              <span className="faded">
                {rows.length} · {hint}
              </span>
            </h3>
            {rows.map((r) => (
              <div
                key={r.scan}
                ref={r.code === marked ? markedRow : undefined}
                className={r.code === marked ? 'verdict-row marked' : 'verdict-row'}
              >
                {kind !== 'stop' && open && mayPrepare ? (
                  <Checkbox
                    aria-label={wording.withdraw2(r.candidate!.title)}
                    checked={isChosen(r)}
                    onChange={() => toggle(r)}
                  />
                ) : (
                  <span />
                )}
                <Barcode code={r.code} />
                <span className="verdict-title">
                  {r.candidate ? (
                    <Link to={`/catalogue/${r.candidate.recordId}?copy=${r.candidate.copyId}`}>
                      {r.candidate.title}
                    </Link>
                  ) : (
                    <i>{wording.notKnown}</i>
                  )}
                  <small className="faded">{[r.callNumber, r.place].filter(Boolean).join(' · ')}</small>
                  {r.reasons.map((x) => (
                    <small key={x.code} className={`reason ${x.verdict}`}>
                      {x.message}
                    </small>
                  ))}
                </span>
                {open && mayPrepare ? (
                  <Button
                    size="small"
                    className="fix"
                    onClick={() => void takeOff(r)}
                    aria-label={wording.removeFromTheList(r.code)}
                  >
                    {wording.remove}
                  </Button>
                ) : null}
              </div>
            ))}
          </section>
        );
      })}
      {reviewing ? (
        <WithdrawSheet
          id={id}
          name={list.name}
          copies={chosen}
          onDone={() => {
            ticked.clear();
            unticked.clear();
          }}
          onClose={() => setReviewing(false)}
        />
      ) : null}
    </div>
  );
}

function WithdrawSheet({
  id,
  name,
  copies: chosen,
  onDone,
  onClose,
}: {
  id: number;
  name: string;
  copies: number[];
  onDone: () => void;
  onClose: () => void;
}) {
  /** What is reviewed stays so while it is done, whatever becomes of the list behind the sheet. */
  const [copies] = useState(chosen);
  const mayConfirm = useMay('confirm withdrawals');
  const { say } = useShell();
  const review = useQuery({
    queryKey: ['review', 'withdraw', id, copies],
    queryFn: () => call(api.withdrawals.reviewWithdraw, { params: { id }, body: { copies } }),
    gcTime: 0,
    retry: false,
    staleTime: Infinity,
  });
  const act = async (leftOut: readonly number[], token: string) => {
    const done = await call(api.withdrawals.withdraw, {
      params: { id },
      body: {
        copies: copies.filter((c) => !leftOut.includes(c)),
        // With copies left out it is another act than the one reviewed; the server plans that anew.
        ...(leftOut.length === 0 && { token }),
      },
    });
    say(done.sentence, done.entry);
    onDone();
    // The sheet does not wait for what is behind it.
    void refresh();
  };
  return (
    <ReviewSheet
      title={wording.withdrawFrom(name)}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
      canDo={mayConfirm}
      whyNot={wording.theListIsPreparedThe}
    />
  );
}
