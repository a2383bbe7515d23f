import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { tellStale } from '../daybook/tell-conflicts';
import { ChangedSince, ConflictError, NothingChanged } from '../store/conflict';
import type { Store } from '../store/store';
import { ProblemError } from './problem';

/** Turns whatever was thrown into problem details; bugs are logged and told without their insides. */
export function errorAnswers(log: Logger, store: Store) {
  // Express tells error handlers by their four parameters.
  return async (error: unknown, req: Request, res: Response, _next: NextFunction): Promise<void> => {
    // What has begun to be sent cannot be taken back: it is cut off, so that nobody takes a part for the whole.
    if (res.headersSent) return void res.destroy();
    const { problem } = await asProblem(error, store, () =>
      log.error({ err: error, path: req.path, method: req.method }, 'request failed'),
    );
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
}

async function conflictProblem(error: ConflictError, store: Store): Promise<ProblemError> {
  const conflicts = await tellStale({ store }, error);
  return new ProblemError(
    409,
    `Something has changed since. Nothing was saved. ${conflicts[0]?.message ?? ''}`.trim(),
    {
      current: error.conflicts[0]?.current && { ...error.conflicts[0].current },
      conflicts,
    },
  );
}

/** What was allowed a moment before and is refused now is told as a change, with what refuses it. */
function sinceProblem({ cause }: ChangedSince): ProblemError | null {
  if (!(cause instanceof ProblemError)) return null;
  const { status, detail, fields, conflicts } = cause.problem;
  return status === 409
    ? cause
    : new ProblemError(409, `Something has changed since. ${detail}`, { fields, conflicts });
}

/** What a request itself did wrong before any route saw it: a body or a path that cannot be read. */
function fromOutside(error: unknown): ProblemError | null {
  const { type, status, code } = error as { type?: string; status?: number; code?: string };
  if (type === 'entity.too.large')
    return new ProblemError(413, 'This is more than the server takes at once.');
  if (type === 'entity.parse.failed') return new ProblemError(400, 'The body is not JSON.');
  if (code === 'ENOSPC' || /SQLITE_FULL/.test(String(error)))
    return new ProblemError(507, 'The disk of the server is full. Nothing was kept; tell whoever runs it.');
  if (status === 415)
    return new ProblemError(415, 'The body is in an encoding that the server does not read. Send UTF-8.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new ProblemError(status, 'The request cannot be understood.');
  return null;
}

async function asProblem(error: unknown, store: Store, report: () => void): Promise<ProblemError> {
  if (error instanceof ProblemError) return error;
  if (error instanceof ConflictError) return conflictProblem(error, store);
  if (error instanceof ChangedSince) {
    const told = sinceProblem(error);
    if (told) return told;
    if (error.cause instanceof ConflictError) return conflictProblem(error.cause, store);
  }
  if (error instanceof NothingChanged)
    return new ProblemError(422, 'Nothing would change: it is so already. Nothing was saved.');
  const outside = fromOutside(error);
  if (outside) return outside;
  report();
  return new ProblemError(
    500,
    'Something went wrong on the server. Nothing was half done; try again, and tell your administrator if it stays.',
  );
}
