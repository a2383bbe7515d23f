import { api } from '@osier/contract';
import { call } from '../api/call';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useApi } from '../api/queries';
import { useDrafts } from './drafts';
import { StateShape } from '../parts/Mark';
import { useJobs } from './jobs-store';
import { useShell } from './shell-store';

const OUTSIDE = {
  here: { kind: 'clear', text: 'Loans desk answers' },
  silent: { kind: 'caution', text: 'Loans desk does not answer' },
  none: { kind: 'information', text: 'No loans desk is set' },
} as const;

/** The last act with its undoing, running jobs, and whether the outside can be reached. */
export function StatusLine() {
  const last = useShell((s) => s.last);
  const undo = useShell((s) => s.undo);
  const jobs = useJobs((s) => s.jobs);
  const drafts = Object.entries(useDrafts((s) => s.drafts));
  const outside = useApi(api.overview.outside);
  const desk = outside.data && OUTSIDE[outside.data.loansDesk];
  return (
    <footer className="status-line">
      <div className="status-last" role="status" data-tone={last?.tone}>
        {last ? (
          <>
            <span>
              {last.tone === 'problem' ? <StateShape kind="caution" /> : null}
              {last.sentence}
            </span>
            {last.entry ? (
              <>
                <Link to={`/daybook/${last.entry}`}>Entry {last.entry}</Link>
                <Button size="small" onClick={() => undo(last.entry)}>
                  Undo <kbd>Alt Z</kbd>
                </Button>
              </>
            ) : null}
          </>
        ) : (
          <span className="faded">Nothing done yet.</span>
        )}
      </div>
      <div className="status-jobs">
        {drafts.map(([id, d]) => (
          <Link key={id} to={`/catalogue/${id}`}>
            Not saved: <bdi>{d.title}</bdi>
          </Link>
        ))}
        {jobs.map((j) => (
          <span key={j.id} className="job">
            {j.title}: <progress aria-label={j.title} value={j.done} max={j.total ?? undefined} />{' '}
            {j.done.toLocaleString('en-GB')}
            {j.total ? ` of ${j.total.toLocaleString('en-GB')}` : ''}
            {j.rate ? `, ${Math.round(j.rate)} a second` : ''}
            {j.secondsLeft !== null && j.secondsLeft > 1 ? `, ${Math.round(j.secondsLeft)} s left` : ''}
            <Button size="small" onClick={() => void call(api.jobs.cancel, { params: { id: j.id } })}>
              Cancel
            </Button>
          </span>
        ))}
      </div>
      <div className="status-outside">
        {desk ? (
          <>
            <StateShape kind={desk.kind} /> {desk.text}
          </>
        ) : null}
      </div>
    </footer>
  );
}
