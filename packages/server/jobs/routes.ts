import { api } from '@osier/contract';
import { notFound } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';

/** Jobs: how far each is, and cancelling it. */
export const jobRoutes = ({ jobs }: Services): Route[] => [
  route(api.jobs.read, async ({ params }) => {
    const job = await jobs.state(params.id);
    if (!job) throw notFound(`Job ${params.id}`);
    return job;
  }),
  route(api.jobs.cancel, async ({ params }) => {
    const job = await jobs.state(params.id);
    if (!job) throw notFound(`Job ${params.id}`);
    jobs.cancel(params.id);
    return { cancelling: true };
  }),
];
