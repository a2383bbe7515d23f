import { object, type InferType } from 'yup';
import { shape, text } from '../answers';
import { endpoint } from '../endpoint';
import { line } from '../inputs';
import { jobStateSchema, reviewSchema } from '../objects/acts';
import { string } from '../values';
import { leaveOut, page, reviewed } from './reviews';

const fileKept = {
  file: string()
    .matches(/^[0-9a-f]{64}$/, 'Send the file first.')
    .required('Send the file first.'),
  name: line(200).default(''),
};
/** A table of loan figures that was sent, and which of its copies stay as they are. */
export const loanFiguresBody = object({ ...fileKept, leaveOut: leaveOut(), token: reviewed() });
export type LoanFiguresBody = InferType<typeof loanFiguresBody>;

/** How often copies were lent, from a table that the loans desk wrote. */
export const loanFiguresApi = {
  send: endpoint({
    method: 'post',
    path: '/loan-figures',
    summary:
      'Send a table of how often copies were lent and when last (the body is the file); it is loaded when it was reviewed',
    permission: 'edit copies',
    body: 'file',
    status: 201,
    answer: shape({ file: text() }),
  }),
  review: endpoint({
    method: 'post',
    path: '/loan-figures/review',
    summary: 'What loading a table of loan figures would change',
    permission: 'edit copies',
    body: loanFiguresBody.shape(page),
    answer: reviewSchema,
  }),
  load: endpoint({
    method: 'post',
    path: '/loan-figures/load',
    summary: 'Load a table of loan figures into the copies that it names',
    permission: 'edit copies',
    body: loanFiguresBody,
    status: 202,
    answer: jobStateSchema,
  }),
};
