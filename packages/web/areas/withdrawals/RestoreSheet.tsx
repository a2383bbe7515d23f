import { api } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';
import { withdrawalsWords as wording } from './words';

/** The review of bringing single copies of the register back. */
export function RestoreSheet({
  rows: chosen,
  onDone,
  onClose,
}: {
  rows: readonly number[];
  onDone: () => void;
  onClose: () => void;
}) {
  /** What is reviewed stays so while it is done. */
  const [rows] = useState([...chosen]);
  const { say } = useShell();
  const review = useQuery({
    queryKey: ['review', 'restore', rows],
    queryFn: () => call(api.withdrawals.reviewRestore, { body: { rows } }),
    gcTime: 0,
    retry: false,
    staleTime: Infinity,
  });
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.withdrawals.restore, { body: { rows, token } });
    say(done.sentence, done.entry);
    onDone();
    void refresh();
  };
  return (
    <ReviewSheet
      title={wording.undoWithdrawals}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
    />
  );
}
