import { api, type WithdrawalList } from '@osier/contract';
import { call } from '../../api/call';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import { ReviewSheet } from '../../parts/ReviewSheet';
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
  const [unticked, setUnticked] = useState<ReadonlySet<number>>(new Set());
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [said, setSaid] = useState('');
  const [reviewing, setReviewing] = useState(false);
  const mayPrepare = useMay('prepare withdrawals');
  const { complain } = useShell();
  if (error) return <p role="alert">{error.message}</p>;
  if (!list) return null;
  const scan = async (codes: string[]) => {
    try {
      await call(api.withdrawals.scan, { params: { id }, body: { codes } });
      setSaid(codes.length === 1 ? `Scanned ${codes[0]}` : wording.barcodesAdded(codes.length));
      await refresh();
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
      ? !unticked.has(r.candidate.copyId)
      : r.verdict === 'caution' && ticked.has(r.candidate.copyId));
  const chosen = list.verdicts.filter(isChosen).map((r) => r.candidate!.copyId);
  const flip = (set: ReadonlySet<number>, n: number) =>
    set.has(n) ? new Set([...set].filter((x) => x !== n)) : new Set([...set, n]);
  const toggle = (r: Row) =>
    r.verdict === 'clear'
      ? setUnticked(flip(unticked, r.candidate!.copyId))
      : setTicked(flip(ticked, r.candidate!.copyId));
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
          <Button type="primary" disabled={chosen.length === 0} onClick={() => setReviewing(true)}>
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
        <ScanField
          label={wording.scanOrPasteBarcodes}
          name={list.name}
          said={said}
          onScan={(codes) => void scan(codes)}
        />
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
              <div key={r.scan} className="verdict-row">
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
        <WithdrawSheet id={id} name={list.name} copies={chosen} onClose={() => setReviewing(false)} />
      ) : null}
    </div>
  );
}

function WithdrawSheet({
  id,
  name,
  copies,
  onClose,
}: {
  id: number;
  name: string;
  copies: number[];
  onClose: () => void;
}) {
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
    await refresh();
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
