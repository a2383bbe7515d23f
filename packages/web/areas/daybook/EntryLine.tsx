import type { DaybookEntry } from '@osier/contract';
import { Link } from 'react-router';
import { when } from '../../parts/when';
import './daybook.css';
import { daybookWords as wording } from './words';

/** One entry of the daybook on a line. */
export function EntryLine({ entry }: { entry: DaybookEntry }) {
  return (
    <div className={entry.undoneBy ? 'entry-line undone' : 'entry-line'}>
      <Link to={`/daybook/${entry.id}`}>{entry.sentence}</Link>
      <span className="faded">
        {entry.person} · {when(entry.at)}
        {entry.undoneBy ? wording.undoneByEntry(entry.undoneBy) : ''}
      </span>
    </div>
  );
}
