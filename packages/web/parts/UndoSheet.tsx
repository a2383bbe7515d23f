import { api } from '@osier/contract';
import { call } from '../api/call';
import { useQuery } from '@tanstack/react-query';
import { refresh } from '../api/queries';
import { problemText } from '../api/request';
import { useShell } from '../shell/shell-store';
import { Mark } from './Mark';
import { ReviewSheet } from './ReviewSheet';
import { partWords as wording } from './words';

/** The review of taking an entry back: what returns to how it was, or what stands in the way. */
export default function UndoSheet() {
  const { undoing, undo, say } = useShell();
  const { data, error, refetch } = useQuery({
    queryKey: ['review', 'undo', undoing],
    queryFn: () => call(api.daybook.reviewUndo, { params: { id: undoing ?? 0 } }),
    enabled: undoing !== null,
    gcTime: 0,
    retry: false,
  });
  if (undoing === null) return null;
  const blocked = (data?.conflicts.length ?? 0) > 0;
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.daybook.undo, { params: { id: undoing }, body: { token } });
    // A large one goes on as a job, which tells when it is done.
    if ('entry' in done) say(done.sentence, done.entry);
    void refresh();
  };
  return (
    <ReviewSheet
      title={wording.undoEntry(undoing)}
      review={data}
      problem={error ? problemText(error) : null}
      onClose={() => undo(null)}
      onMore={(from) => call(api.daybook.reviewUndo, { params: { id: undoing }, body: { from } })}
      onDo={act}
      onAnew={refetch}
      canDo={!blocked}
      whyNot={wording.nothingCanBeUndoneWhile}
    >
      {blocked ? (
        <ul className="note stop" style={{ listStyle: 'none', margin: 0 }}>
          {data!.conflicts.map((c, i) => (
            <li key={i}>
              <Mark kind="stop" name={wording.inTheWay} /> {c.message}
            </li>
          ))}
        </ul>
      ) : null}
    </ReviewSheet>
  );
}
