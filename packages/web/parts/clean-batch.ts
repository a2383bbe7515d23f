import { api, type EndpointSending } from '@osier/contract';
import { call } from '../api/call';
import type { BatchAct } from './BatchSheet';

/** Running a recipe over all that a search of the catalogue finds. */
export const cleanRecordsBatch = (body: EndpointSending<typeof api.records.clean>): BatchAct => ({
  key: ['clean', body],
  review: (from) => call(api.records.reviewClean, { body: { ...body, from } }),
  begin: (leaveOut, token) => call(api.records.clean, { body: { ...body, leaveOut, token } }),
});
