import type { Problem } from '@osier/contract';

/** An answer that is no: a sentence for a person, the fields it concerns (RFC 9457 problem details). */
export class ProblemError extends Error {
  readonly problem: Problem;
  constructor(status: number, detail: string, more: Partial<Problem> = {}) {
    super(detail);
    this.name = 'ProblemError';
    this.problem = { type: 'about:blank', title: TITLES[status] ?? 'Problem', status, detail, ...more };
  }
}

const TITLES: Record<number, string> = {
  400: 'The request cannot be understood',
  401: 'Sign in first',
  403: 'Not allowed',
  404: 'Not there',
  408: 'Took too long',
  409: 'Changed since',
  413: 'Too large',
  415: 'Wrong kind of file',
  421: 'Wrong name',
  422: 'Something is not right',
  429: 'Too many tries',
  499: 'Cancelled',
  500: 'Something went wrong here',
  503: 'Busy',
  507: 'The disk is full',
};

/** 404: what was asked for is not there. */
export const notFound = (what: string): ProblemError => new ProblemError(404, `${what} is not there.`);
/** 422 with a sentence beside one field. */
export const wrong = (field: string, message: string): ProblemError =>
  new ProblemError(422, message, { fields: [{ field, message }] });
/** 422 with sentences beside several fields. */
export const wrongFields = (fields: NonNullable<Problem['fields']>): ProblemError =>
  new ProblemError(422, fields.map((f) => f.message).join(' '), { fields });
