import type { DaybookEntry } from '@osier/contract';
import { get, withQuery } from '../../api/request';

/** A page of the daybook: behind an entry, or one's own entries only. */
export const entriesOf = (query: { before?: number | null; mine?: 1 }) =>
  get<{ rows: DaybookEntry[]; next: number | null }>(withQuery('/daybook', query));
