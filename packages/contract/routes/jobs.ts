import { flag, shape } from '../answers';
import { endpoint } from '../endpoint';
import { jobState } from '../objects/acts';

export const jobs = {
  read: endpoint({
    method: 'get',
    path: '/jobs/:id',
    summary: 'How far a job is',
    permission: 'look',
    answer: jobState,
  }),
  cancel: endpoint({
    method: 'post',
    path: '/jobs/:id/cancel',
    summary: 'Cancel a job; what it has done stays done and can be undone',
    permission: 'take in deliveries',
    answer: shape({ cancelling: flag() }),
  }),
};
