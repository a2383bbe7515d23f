import type { Review } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';

/** The review of an act on headings; then it is done, and told where it is not left to a job. */
export function ActSheet({
  title,
  name,
  page,
  act,
  onClose,
  onDone,
}: {
  title: string;
  /** Names what is reviewed, so that it is worked out once. */
  name: readonly unknown[];
  page: (from: number) => Promise<Review>;
  act: (token: string) => Promise<{ readonly entry: number | null; readonly sentence: string }>;
  onClose: () => void;
  onDone: () => void;
}) {
  const { say } = useShell();
  const review = useQuery({
    queryKey: ['review', ...name],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  const perform = async (_: readonly number[], token: string) => {
    const done = await act(token);
    if (done.entry !== null) say(done.sentence, done.entry);
    onDone();
    await refresh();
  };
  return (
    <ReviewSheet
      title={title}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={perform}
      onAnew={review.refetch}
      onMore={page}
    />
  );
}
