import { flag, shape } from '../answers';
import { endpoint } from '../endpoint';
import { jobStateSchema } from '../objects/acts';

/** Jobs under way. */
export const jobApi = {
  read: endpoint({
    method: 'get',
    path: '/jobs/:id',
    summary: 'How far a job is',
    permission: 'look',
    answer: jobStateSchema,
  }),
  cancel: endpoint({
    method: 'post',
    path: '/jobs/:id/cancel',
    summary: 'Cancel a job; what it has done stays done and can be undone',
    permission: 'take in deliveries',
    answer: shape({ cancelling: flag() }),
  }),
};
