import type { JobState } from '@osier/contract';
import { notFound } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Jobs } from './jobs';

export const jobRoutes = (jobs: Jobs): Route[] => [
  route({
    method: 'get',
    path: '/jobs/events',
    summary: 'Progress of running jobs as server-sent events',
    permission: 'look',
    work: ({ req, res }) => {
      res.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-cache, no-transform',
        connection: 'keep-alive',
      });
      const send = (job: JobState) => res.write(`data: ${JSON.stringify(job)}\n\n`);
      res.write(': here\n\n');
      jobs.running().forEach(send);
      jobs.events.on('job', send);
      const beat = setInterval(() => res.write(': still here\n\n'), 20_000);
      req.on('close', () => {
        clearInterval(beat);
        jobs.events.off('job', send);
      });
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
