import { api } from '@osier/contract';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useApi } from '../api/queries';
import { Mark } from '../parts/Mark';
import { when } from '../parts/when';
import { unsavedWork, useDrafts } from './drafts';
import { JobLine } from './JobLine';
import { useJobs } from './jobs-store';
import { LOANS_DESK } from './loans-desk';
import { useShell } from './shell-store';
import { shellWords as wording } from './words';

/** What the status line has no room for: all that runs, waits to be saved, was done on this page, and the services outside. */
export function StatusPanel({ onLeave }: { onLeave: () => void }) {
  const { acts, undo } = useShell();
  const jobs = useJobs((s) => s.jobs);
  const unsaved = unsavedWork(useDrafts());
  const outside = useApi(api.overview.outside).data;
  const desk = outside && LOANS_DESK[outside.loansDesk];
  return (
    <div className="status-panel">
      <h3>{wording.running}</h3>
      {jobs.length === 0 ? <p className="faded">{wording.nothingIsRunning}</p> : null}
      {jobs.map((j) => (
        <JobLine key={j.id} job={j} />
      ))}
      {unsaved.length ? (
        <>
          <h3>{wording.notSavedYet}</h3>
          <ul>
            {unsaved.map(({ path, title }) => (
              <li key={path}>
                <Link to={path} onClick={onLeave}>
                  <bdi>{title}</bdi>
                </Link>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <h3>{wording.doneOnThisPage}</h3>
      {acts.length === 0 ? <p className="faded">{wording.nothingYet}</p> : null}
      <ul>
        {acts.map(({ sentence, entry, tone }, i) => (
          <li key={i}>
            {tone === 'problem' ? <Mark kind="caution" name="refused" /> : null} {sentence}{' '}
            {entry ? (
              <>
                <Link to={`/daybook/${entry}`} onClick={onLeave}>
                  {wording.entry(entry)}
                </Link>{' '}
                <Button
                  size="small"
                  onClick={() => {
                    onLeave();
                    undo(entry);
                  }}
                >
                  {wording.undo}
                </Button>
              </>
            ) : null}
          </li>
        ))}
      </ul>
      <h3>{wording.services}</h3>
      {desk ? (
        <p>
          <Mark kind={desk.kind} /> {desk.text}
          {outside.since ? wording.since(when(outside.since)) : ''}
        </p>
      ) : null}
      {outside?.neighbours.map((n) => (
        <p key={n.id}>
          <Mark kind="caution" name="" /> {wording.neighbourOut(n.name, n.why, when(n.until))}
        </p>
      ))}
    </div>
  );
}
