import type { Done, Review } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { refresh } from '../api/queries';
import { post, problemText } from '../api/request';
import { useShell } from '../shell/shell-store';
import { Mark } from './Mark';
import { ReviewSheet } from './ReviewSheet';

type UndoReview = Review & { conflicts: { message: string; entry: number | null }[] };

/** The review of taking an entry back: what returns to how it was, or what stands in the way. */
export function UndoSheet() {
  const { undoing, undo, say } = useShell();
  const { data, error } = useQuery({
    queryKey: ['review', 'undo', undoing],
    queryFn: () => post<UndoReview>(`/daybook/${undoing}/undo/review`),
    enabled: undoing !== null,
    gcTime: 0,
    retry: false,
  });
  if (undoing === null) return null;
  const blocked = (data?.conflicts.length ?? 0) > 0;
  const act = async () => {
    const done = await post<Done | { job: number }>(`/daybook/${undoing}/undo`);
    // A large one goes on as a job, which tells when it is done.
    if ('entry' in done) say(done.sentence, done.entry);
    void refresh();
  };
  return (
    <ReviewSheet
      title={`Take back entry ${undoing}`}
      review={data}
      problem={error ? problemText(error) : null}
      onClose={() => undo(null)}
      onMore={(from) => post<Review>(`/daybook/${undoing}/undo/review`, { from })}
      onDo={act}
      canDo={!blocked}
      whyNot="Nothing can be taken back while this stands in the way."
    >
      {blocked ? (
        <ul className="note stop" style={{ listStyle: 'none', margin: 0 }}>
          {data!.conflicts.map((c, i) => (
            <li key={i}>
              <Mark kind="stop" name="In the way" /> {c.message}
            </li>
          ))}
        </ul>
      ) : null}
    </ReviewSheet>
  );
}
