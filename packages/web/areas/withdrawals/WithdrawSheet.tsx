import { api, type WithdrawalList, type WithdrawalRow } from '@osier/contract';
import { LAST_COPY, NO_LIMITS, type LastCopy } from '@osier/core/house';
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

/** The review of withdrawing chosen copies: what becomes of records without copies, and why the head overrules a stop, are said here. */
export function WithdrawSheet({
  list: { id, name },
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
  const [why, setWhy] = useState('');
  const mayConfirm = useMay('confirm withdrawals');
  const { say } = useShell();
  const lastCopy = how ?? house?.withdrawals?.lastCopy ?? NO_LIMITS.lastCopy;
  const idsOf = (rows: readonly WithdrawalRow[]) => rows.flatMap((r) => r.candidate?.copyId ?? []);
  const stopped = idsOf(chosen.filter((r) => r.verdict === 'stop'));
  const bodyOf = (copies: readonly number[]) => ({
    copies: [...copies],
    overrule: { copies: stopped.filter((c) => copies.includes(c)), reason: why.trim() },
    lastCopy,
  });
  const copies = idsOf(chosen);
  const needsReason = stopped.length > 0 && why.trim() === '';
  const review = useQuery({
    queryKey: ['review', 'withdraw', id, copies, lastCopy, needsReason],
    // A reason that is not typed yet is asked for below, not refused.
    queryFn: () =>
      call(api.withdrawals.reviewWithdraw, {
        params: { id },
        body: {
          ...bodyOf(copies),
          ...(needsReason && { overrule: { copies: stopped, reason: wording.reasonToCome } }),
        },
      }),
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
      canDo={mayConfirm && !needsReason}
      whyNot={mayConfirm ? wording.sayWhyOverruled : wording.theListIsPreparedThe}
    >
      <KitField label={wording.recordsWithoutCopies}>
        <Select
          value={lastCopy}
          onChange={setHow}
          options={LAST_COPY.map((value) => ({ value, label: wording.lastCopies[value] }))}
        />
      </KitField>
      {stopped.length ? (
        <KitField label={wording.whyOverruled} width="wide">
          <Input value={why} maxLength={500} onChange={(e) => setWhy(e.target.value)} />
        </KitField>
      ) : null}
    </ReviewSheet>
  );
}
