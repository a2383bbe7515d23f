import { useQuery } from '@tanstack/react-query';
import { entriesOf } from './entries';
import { EntryLine } from './EntryLine';
import { daybookWords as wording } from './words';

const SHOWN = 8;

/** The last entries of the daybook that are one's own. */
export function RecentWork() {
  const { data } = useQuery({
    queryKey: ['/daybook', 'mine', 'recent'],
    queryFn: () => entriesOf({ mine: '1' }),
  });
  if (!data) return null;
  return (
    <div>
      {data.rows.length === 0 ? <p className="faded">{wording.nothingOfYoursYet}</p> : null}
      {data.rows.slice(0, SHOWN).map((e) => (
        <EntryLine key={e.id} entry={e} />
      ))}
    </div>
  );
}
