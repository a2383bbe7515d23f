import { api, type WithdrawalList, type WithdrawalRow } from '@osier/contract';
import { allLimits, LAST_COPY, type LastCopy } from '@osier/core/house';
import { useQuery } from '@tanstack/react-query';
import { Input, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField } from '../../parts/form/KitField';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useHouse } from '../../parts/use-house';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { withdrawalsWords as wording } from './words';

const LAST_COPIES = LAST_COPY.map((value) => ({ value, label: wording.lastCopies[value] }));
/** So many records that lose their last copy are decided one by one; more by the rule alone. */
const SINGLE = 8;

/** The records that lose their last copy anywhere with some rows of a list, by number and title. */
function withoutCopies(rows: readonly WithdrawalRow[]): [number, string][] {
  const found = rows.flatMap(({ lastAnywhere, candidate }): [number, string][] =>
    lastAnywhere && candidate ? [[candidate.recordId, candidate.title]] : [],
  );
  return found.length > SINGLE ? [] : found;
}

/** The review of withdrawing chosen copies: what becomes of records without copies, and why the head overrules a stop, are said here. */
export function WithdrawSheet({
  list: { id, name, branch },
  chosen: ticked,
  onDone,
  onClose,
}: {
  list: WithdrawalList;
  chosen: readonly WithdrawalRow[];
  onDone: () => void;
  onClose: () => void;
}) {
  /** What is reviewed stays so while it is done, whatever becomes of the list behind the sheet. */
  const [chosen] = useState(ticked);
  const house = useHouse();
  const [how, setHow] = useState<LastCopy>();
  const [single, setSingle] = useState<ReadonlyMap<number, LastCopy>>(new Map());
  const [why, setWhy] = useState('');
  const mayConfirm = useMay('confirm withdrawals');
  const { say } = useShell();
  const limits = allLimits(house?.withdrawals);
  const lastCopy = how ?? limits.lastCopyAt.find((a) => a.branch === branch)?.lastCopy ?? limits.lastCopy;
  const idsOf = (rows: readonly WithdrawalRow[]) => rows.flatMap((r) => r.candidate?.copyId ?? []);
  const stopped = idsOf(chosen.filter((r) => r.verdict === 'stop'));
  const bodyOf = (copies: readonly number[]) => ({
    copies: [...copies],
    overrule: { copies: stopped.filter((c) => copies.includes(c)), reason: why.trim() },
    lastCopy,
    lastCopies: [...single].map(([record, how]) => ({ record, how })),
  });
  const copies = idsOf(chosen);
  const losing = withoutCopies(chosen);
  const needsReason = stopped.length > 0 && why.trim() === '';
  // A reason that is not typed yet is asked for below, not refused.
  const page = (from: number) =>
    call(api.withdrawals.reviewWithdraw, {
      params: { id },
      body: {
        ...bodyOf(copies),
        ...(needsReason && { overrule: { copies: stopped, reason: wording.reasonToCome } }),
        from,
      },
    });
  const review = useQuery({
    queryKey: ['review', 'withdraw', id, copies, lastCopy, [...single], needsReason],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
    staleTime: Infinity,
  });
  const act = async (leftOut: readonly number[], token: string) => {
    const done = await call(api.withdrawals.withdraw, {
      params: { id },
      body: {
        ...bodyOf(copies.filter((c) => !leftOut.includes(c))),
        // With copies left out it is another act than the one reviewed; the server plans that anew.
        ...(leftOut.length === 0 && { token }),
      },
    });
    if (done.entry !== null) say(done.sentence, done.entry);
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
      onMore={page}
      canDo={mayConfirm && !needsReason}
      whyNot={mayConfirm ? wording.sayWhyOverruled : wording.theListIsPreparedThe}
    >
      <KitField label={wording.recordsWithoutCopies}>
        <Select value={lastCopy} onChange={setHow} options={LAST_COPIES} />
      </KitField>
      {losing.map(([record, title]) => (
        <KitField key={record} label={wording.withoutCopies(title)}>
          <Select
            value={single.get(record) ?? lastCopy}
            onChange={(how) => setSingle(new Map(single).set(record, how))}
            options={LAST_COPIES}
          />
        </KitField>
      ))}
      {stopped.length ? (
        <KitField label={wording.whyOverruled} width="wide">
          <Input value={why} maxLength={500} onChange={(e) => setWhy(e.target.value)} />
        </KitField>
      ) : null}
    </ReviewSheet>
  );
}
