import type { DaybookEntry } from '@osier/contract';
import { Link } from 'react-router';
import './daybook.css';

export const when = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  });

/** One entry of the daybook on a line. */
export function EntryLine({ entry }: { entry: DaybookEntry }) {
  return (
    <div className={entry.undoneBy ? 'entry-line undone' : 'entry-line'}>
      <Link to={`/daybook/${entry.id}`}>{entry.sentence}</Link>
      <span className="faded">
        {entry.person} · {when(entry.at)}
        {entry.undoneBy ? ` · undone by entry ${entry.undoneBy}` : ''}
      </span>
    </div>
  );
}
