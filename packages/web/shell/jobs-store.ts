import type { JobState } from '@osier/contract';
import { create } from 'zustand';
import { followLive } from '../api/live';
import { refresh } from '../api/queries';
import { useShell } from './shell-store';

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
  done: (j) => j.message ?? `${j.title}: done.`,
  cancelled: (j) => `${j.title}: cancelled after ${j.done}. What was done can be taken back.`,
  failed: (j) => `${j.title}: stopped. ${j.message ?? ''}`,
};

/** Follows all jobs from now on; gives the way to stop. */
export const followJobs = (): (() => void) =>
  followLive<JobState>(
    '/jobs/events',
    (job) => {
      useJobs.getState().hear(job);
      const ending = ENDINGS[job.state];
      if (!ending) return;
      const shell = useShell.getState();
      if (job.state === 'failed') shell.complain(ending(job));
      else shell.say(ending(job), job.entry);
      void refresh();
    },
    // The server tells what is running; what ended meanwhile is no longer there.
    () => useJobs.setState({ jobs: [] }),
  );
