import { api } from '@osier/contract';
import { call } from '../../api/call';

type Query = NonNullable<Parameters<typeof call<typeof api.daybook.list>>[1]>['query'];

/** A page of the daybook: behind an entry, narrowed by person, area, act, days and object, or one's own entries only. */
export const entriesOf = (query: Query) => call(api.daybook.list, { query });
