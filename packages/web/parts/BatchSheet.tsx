import type { JobState, Review } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { refresh } from '../api/queries';
import { post, problemText } from '../api/request';
import { ReviewSheet } from './ReviewSheet';

/** A batch act: its review, then a job that does it. */
export function BatchSheet({
  title,
  path,
  body,
  onClose,
}: {
  title: string;
  path: string;
  body: object;
  onClose: () => void;
}) {
  const review = useQuery({
    queryKey: ['review', path, body],
    queryFn: () => post<Review>(`${path}/review`, body),
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
  });
  const act = async (leaveOut: number[]) => {
    await post<JobState>(path, { ...body, leaveOut });
    // The sheet does not wait for what is behind it: the next key is for the page.
    void refresh();
  };
  return (
    <ReviewSheet
      title={title}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onMore={(from) => post<Review>(`${path}/review`, { ...body, from })}
      onDo={act}
    />
  );
}
