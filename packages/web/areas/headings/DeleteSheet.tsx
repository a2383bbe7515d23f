import { api } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';
import { headingsWords as wording } from './words';

/** The review of deleting headings, then it is done. */
export function DeleteSheet({
  headings,
  onClose,
  onDone,
}: {
  headings: readonly number[];
  onClose: () => void;
  onDone: () => void;
}) {
  const { say } = useShell();
  const page = (from: number) => call(api.headings.reviewDelete, { body: { headings: [...headings], from } });
  const review = useQuery({
    queryKey: ['review', 'delete-headings', headings],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.headings.delete, { body: { headings: [...headings], token } });
    say(done.sentence, done.entry);
    onDone();
    await refresh();
  };
  return (
    <ReviewSheet
      title={wording.deleteTitle}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
      onMore={page}
    />
  );
}
