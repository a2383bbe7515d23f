import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { ConflictError } from '../store/conflict';
import { ProblemError } from './problem';

/** Turns whatever was thrown into problem details; bugs are logged and told without their insides. */
export function errorAnswers(log: Logger) {
  // Express tells error handlers by their four parameters.
  return (error: unknown, req: Request, res: Response, _next: NextFunction): void => {
    if (res.headersSent) return void res.end();
    const { problem } = asProblem(error, () =>
      log.error({ err: error, path: req.path, method: req.method }, 'request failed'),
    );
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
}

function asProblem(error: unknown, report: () => void): ProblemError {
  if (error instanceof ProblemError) return error;
  if (error instanceof ConflictError) {
    const first = error.conflicts[0];
    return new ProblemError(
      409,
      'Somebody has changed this since you opened it. Nothing was saved; both versions are shown.',
      {
        current: first?.current ?? null,
        conflicts: error.conflicts.slice(0, 50).map((c) => ({
          kind: c.kind,
          id: c.id,
          message: `${c.kind} ${c.id} has changed since.`,
          entry: null,
        })),
      },
    );
  }
  const known = error as { type?: string; status?: number };
  if (known.type === 'entity.too.large')
    return new ProblemError(413, 'This is more than the server takes at once.');
  if (known.type === 'entity.parse.failed') return new ProblemError(400, 'The body is not JSON.');
  report();
  return new ProblemError(
    500,
    'Something went wrong on the server. Nothing was half done; try again, and tell your administrator if it stays.',
  );
}
