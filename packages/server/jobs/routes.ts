import type { JobState } from '@osier/contract';
import { notFound } from '../http/problem';
import { route, type Route } from '../http/route';
import { eventStream } from '../people/session';
import type { Services } from '../services';

export const jobRoutes = ({ jobs, people }: Services): Route[] => [
  route({
    method: 'get',
    path: '/jobs/events',
    summary: 'Progress of running jobs as server-sent events',
    permission: 'look',
    work: ({ req, res }) => {
      const stream = eventStream(people, req, res);
      const send = (job: JobState) => stream.send(`data: ${JSON.stringify(job)}\n\n`);
      jobs.running().forEach(send);
      jobs.events.on('job', send);
      stream.onClose(() => void jobs.events.off('job', send));
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/jobs/:id',
    summary: 'How far a job is',
    permission: 'look',
    work: async ({ id }) => {
      const job = await jobs.state(id());
      if (!job) throw notFound(`Job ${id()}`);
      return job;
    },
  }),
  route({
    method: 'post',
    path: '/jobs/:id/cancel',
    summary: 'Cancel a job; what it has done stays done and can be undone',
    permission: 'take in deliveries',
    work: async ({ id }) => {
      const job = await jobs.state(id());
      if (!job) throw notFound(`Job ${id()}`);
      jobs.cancel(id());
      return { cancelling: true };
    },
  }),
];
