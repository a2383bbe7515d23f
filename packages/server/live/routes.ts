import { api, type Changed, type JobState, type LiveMessage } from '@osier/contract';
import { route, type Route } from '../http/route';
import { eventStream } from '../people/session';
import type { Services } from '../services';

/** What goes on while a page is open: running jobs, and what anybody changes. One stream, because browsers keep few. */
export const liveRoutes = ({ jobs, people, store }: Services): Route[] => [
  route(api.live.events, ({ req, res }) => {
    const stream = eventStream(people, req, res);
    const send = (message: LiveMessage) => stream.send(`data: ${JSON.stringify(message)}\n\n`);
    const tellJob = (job: JobState) => send({ job });
    const tellChanged = (changed: Changed) => send({ changed });
    jobs.running().forEach(tellJob);
    jobs.events.on('job', tellJob);
    const leave = store.feed.listen(tellChanged);
    stream.onClose(() => {
      jobs.events.off('job', tellJob);
      leave();
    });
    return undefined;
  }),
];
