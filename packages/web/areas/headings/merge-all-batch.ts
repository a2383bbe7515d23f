import { api } from '@osier/contract';
import { call } from '../../api/call';
import type { BatchAct } from '../../parts/BatchSheet';

/** Merging all groups that are the same, or replacing all see-froms that records carry. */
export const mergeAllBatch = (body: {
  of: 'same' | 'see-froms';
  kind?: string | undefined;
  vocabulary?: string | undefined;
}): BatchAct => ({
  key: ['merge-all', body],
  review: (from) => call(api.headings.reviewMergeAll, { body: { ...body, from } }),
  begin: (leaveOut, token) =>
    call(api.headings.mergeAll, { body: { ...body, leaveOut: [...leaveOut], token } }),
});
