import type { Changed, JobState, LiveMessage } from '@osier/contract';
import { create } from 'zustand';
import { followLive } from '../api/live';
import { follow, refreshAll } from '../api/queries';
import { isOwnEntry } from '../api/request';
import { useDrafts } from './drafts';
import { useShell } from './shell-store';
import { shellWords as wording } from './words';

interface Jobs {
  readonly jobs: readonly JobState[];
  hear(job: JobState): void;
}

/** Running jobs, as the server tells them. */
export const useJobs = create<Jobs>((set) => ({
  jobs: [],
  hear: (job) =>
    set((s) => {
      const others = s.jobs.filter((j) => j.id !== job.id);
      return {
        jobs:
          job.state === 'running' || job.state === 'waiting'
            ? [...others, job].sort((a, b) => a.id - b.id)
            : others,
      };
    }),
}));

const ENDINGS: Record<string, (job: JobState) => string> = {
  done: (j) => j.message ?? wording.done(j.title),
  cancelled: (j) => wording.cancelledAfterWhatWasDone(j.title, j.done),
  failed: (j) => wording.stopped(j.title, j.message ?? ''),
};

/** So long changes are gathered before what shows them is read again, in milliseconds; those of long work longer. */
const GATHERED = { once: 300, again: 3000 };
let gathered: Changed[] = [];
let lastEntry: number | null = null;

function gather(changed: Changed): void {
  if (isOwnEntry(changed.entry)) return;
  // Long work tells the same entry with each of its chunks.
  const patience = changed.entry !== null && changed.entry === lastEntry ? GATHERED.again : GATHERED.once;
  lastEntry = changed.entry;
  if (gathered.push(changed) > 1) return;
  setTimeout(() => {
    const all = gathered;
    gathered = [];
    void follow(all);
  }, patience);
}

/** Shows how a job goes; what is said at its end. */
export function hearJob(job: JobState): void {
  useJobs.getState().hear(job);
  const ending = ENDINGS[job.state];
  if (!ending) return;
  const shell = useShell.getState();
  // The last act is one's own: what others, or Osier itself, have ended stands in the panel.
  if (job.person !== useDrafts.getState().person) shell.note(ending(job));
  else if (job.state === 'failed') shell.complain(ending(job));
  else shell.say(ending(job), job.entry);
  void refreshAll();
}

/** Follows jobs, and what anybody changes, from now on; gives the way to stop. */
export const followWork = (): (() => void) =>
  followLive<LiveMessage>(
    '/live/events',
    (message) => ('job' in message ? hearJob(message.job) : gather(message.changed)),
    // The server tells what is running; what ended meanwhile is no longer there.
    () => useJobs.setState({ jobs: [] }),
  );
