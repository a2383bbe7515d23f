import { UpOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Button, Popover } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../api/queries';
import { StateShape } from '../parts/Mark';
import { unsavedWork, useDrafts } from './drafts';
import { JobLine } from './JobLine';
import { useJobs } from './jobs-store';
import { LOANS_DESK } from './loans-desk';
import { useShell } from './shell-store';
import { StatusPanel } from './StatusPanel';
import { shellWords as wording } from './words';

/** The last act with its undoing, running jobs, and whether the outside can be reached; it opens to a panel. */
export function StatusLine() {
  const last = useShell((s) => s.last);
  const undo = useShell((s) => s.undo);
  const jobs = useJobs((s) => s.jobs);
  const drafts = useDrafts();
  const [isOpen, setOpen] = useState(false);
  const unsaved = unsavedWork(drafts);
  const outside = useApi(api.overview.outside);
  const desk = outside.data && LOANS_DESK[outside.data.loansDesk];
  const out = outside.data?.neighbours.length ?? 0;
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
                <Link to={`/daybook/${last.entry}`}>{wording.entry(last.entry)}</Link>
                <Button size="small" onClick={() => undo(last.entry)}>
                  {wording.undo} <kbd>Alt Z</kbd>
                </Button>
              </>
            ) : null}
          </>
        ) : (
          <span className="faded">{wording.nothingDoneYet}</span>
        )}
      </div>
      <div className="status-jobs">
        {unsaved.length === 1 ? (
          <Link to={unsaved[0]!.path}>
            {wording.notSaved} <bdi>{unsaved[0]!.title}</bdi>
          </Link>
        ) : unsaved.length ? (
          <span>{wording.notSaved2(unsaved.length)}</span>
        ) : null}
        {jobs.slice(0, 1).map((j) => (
          <JobLine key={j.id} job={j} />
        ))}
        {jobs.length > 1 ? <span>{wording.moreRunning(jobs.length - 1)}</span> : null}
      </div>
      <Popover
        open={isOpen}
        onOpenChange={setOpen}
        trigger="click"
        placement="topRight"
        content={<StatusPanel onLeave={() => setOpen(false)} />}
      >
        <Button type="text" size="small" className="status-outside" aria-expanded={isOpen}>
          {desk ? (
            <>
              <StateShape kind={desk.kind} /> {desk.text}
              {out ? (
                <>
                  {' '}
                  <StateShape kind="caution" /> {wording.neighboursOut(out)}
                </>
              ) : null}
            </>
          ) : (
            wording.status
          )}{' '}
          <UpOutlined aria-label={wording.openTheStatusPanel} />
        </Button>
      </Popover>
    </footer>
  );
}
