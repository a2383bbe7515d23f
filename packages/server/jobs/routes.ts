import { notFound } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';

/** Jobs: how far each is, and cancelling it. */
export const jobRoutes = ({ jobs }: Services): Route[] => [
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
