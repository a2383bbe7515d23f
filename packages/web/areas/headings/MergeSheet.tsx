import { api, type EndpointSending } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';

/** The review of a merge, or of another form of a heading; then it is done, by a job where many records carry it. */
export function MergeSheet({
  title,
  body,
  onClose,
  onDone,
}: {
  title: string;
  body: Omit<EndpointSending<typeof api.headings.merge>, 'token'>;
  onClose: () => void;
  onDone: () => void;
}) {
  const { say } = useShell();
  const page = (from: number) => call(api.headings.reviewMerge, { body: { ...body, from } });
  const review = useQuery({
    queryKey: ['review', 'merge', body],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.headings.merge, { body: { ...body, token } });
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
      onDo={act}
      onAnew={review.refetch}
      onMore={page}
    />
  );
}
