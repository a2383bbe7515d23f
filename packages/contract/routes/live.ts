import type { Kind } from '@osier/core/kinds';
import { endpoint } from '../endpoint';
import type { JobState } from '../objects/acts';

/** Which objects an entry changed, by kind; null where they are too many to be named. Entry null: what is no entry's, such as scans. */
export interface Changed {
  readonly entry: number | null;
  readonly kinds: Readonly<Partial<Record<Kind, readonly number[] | null>>>;
}
/** What goes on while a page is open. */
export type LiveMessage = { readonly job: JobState } | { readonly changed: Changed };
/** Header of an answer to an act: what it changed, as a JSON list of `Changed`. */
export const CHANGED_HEADER = 'osier-changed';

/** Streams of events. */
export const liveApi = {
  events: endpoint({
    method: 'get',
    path: '/live/events',
    summary: 'Progress of running jobs, and which objects each act changed, as server-sent events',
    permission: 'look',
    answer: { media: ['text/event-stream'] },
  }),
  scanner: endpoint({
    method: 'get',
    path: '/scanner/events',
    summary: 'Codes of a networked hand scanner as server-sent events',
    permission: 'scan',
    answer: { media: ['text/event-stream'] },
  }),
};
