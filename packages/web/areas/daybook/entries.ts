import { api } from '@osier/contract';
import { call } from '../../api/call';

/** A page of the daybook: behind an entry, or one's own entries only. */
export const entriesOf = (query: { before?: number | null; mine?: '1' }) =>
  call(api.daybook.list, { query: { ...query, before: query.before ?? undefined } });
