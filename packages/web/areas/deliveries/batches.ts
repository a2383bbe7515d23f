import { api } from '@osier/contract';
import { call } from '../../api/call';
import type { BatchAct } from '../../parts/BatchSheet';
import { deliveriesWords as wording } from './words';

/** A batch act over a delivery, as its sheet is headed. */
export interface DeliveryBatch {
  readonly name: string;
  readonly batch: BatchAct;
}

/** Accepting the waiting records as decided; only those under a facet, where there is one. */
export const acceptBatch = (id: number, facet = ''): DeliveryBatch => ({
  name: wording.accept,
  batch: {
    key: ['accept', id, facet],
    review: (from) => call(api.deliveries.reviewAccept, { params: { id }, body: { facet, from } }),
    begin: (leaveOut, token) =>
      call(api.deliveries.accept, { params: { id }, body: { facet, leaveOut, token } }),
  },
});
/** Running a recipe over the waiting records. */
export const cleanBatch = (id: number, recipe: string): DeliveryBatch => ({
  name: wording.clean2,
  batch: {
    key: ['clean', id, recipe],
    review: (from) => call(api.deliveries.reviewClean, { params: { id }, body: { recipe, from } }),
    begin: (leaveOut, token) =>
      call(api.deliveries.clean, { params: { id }, body: { recipe, leaveOut, token } }),
  },
});
/** Applying the safe fixes of some checks, or of all. */
export const fixBatch = (id: number, rules: readonly string[]): DeliveryBatch => ({
  name: wording.fix,
  batch: {
    key: ['fix', id, rules],
    review: (from) => call(api.deliveries.reviewFix, { params: { id }, body: { rules, from } }),
    begin: (leaveOut, token) =>
      call(api.deliveries.fix, { params: { id }, body: { rules, leaveOut, token } }),
  },
});
/** Undoing what was accepted. */
export const takeBackBatch = (id: number): DeliveryBatch => ({
  name: wording.undo,
  batch: {
    key: ['take-back', id],
    review: (from) => call(api.deliveries.reviewTakeBack, { params: { id }, body: { from } }),
    begin: (leaveOut, token) => call(api.deliveries.takeBack, { params: { id }, body: { leaveOut, token } }),
  },
});
