import type { JobState, Review } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { refresh } from '../api/queries';
import { problemText } from '../api/request';
import { ReviewSheet } from './ReviewSheet';

/** A batch act: how its review is asked for, and how the job that does it is begun. */
export interface BatchAct {
  /** Names what is reviewed, so that the review is worked out once. */
  readonly key: readonly unknown[];
  review(from: number): Promise<Review>;
  begin(leaveOut: readonly number[], token: string): Promise<JobState>;
}

/** The review of a batch act, then the job that does it. */
export function BatchSheet({
  title,
  batch,
  onClose,
}: {
  title: string;
  batch: BatchAct;
  onClose: () => void;
}) {
  const review = useQuery({
    queryKey: ['review', ...batch.key],
    queryFn: () => batch.review(0),
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
  });
  const act = async (leaveOut: readonly number[], token: string) => {
    await batch.begin(leaveOut, token);
    // The sheet does not wait for what is behind it: the next key is for the page.
    void refresh();
  };
  return (
    <ReviewSheet
      title={title}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onMore={batch.review}
      onAnew={review.refetch}
      onDo={act}
    />
  );
}
