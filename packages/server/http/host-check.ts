import type { NextFunction, Request, Response } from 'express';
import { ProblemError } from './problem';

/**
 * Answers only to names of this server, so that a page of another site whose name is made to lead here (DNS rebinding) reads
 * nothing. `hosts` are names and addresses without port, beside those of this machine.
 */
export function hostCheck(hosts: readonly string[]) {
  const known = new Set(['localhost', '127.0.0.1', '[::1]', ...hosts.map((h) => h.toLowerCase())]);
  return (req: Request, _res: Response, next: NextFunction): void => {
    const host = (req.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
    next(
      known.has(host)
        ? undefined
        : new ProblemError(
            421,
            'Osier does not answer to this name. Whoever runs it can add the name to OSIER_HOSTS.',
          ),
    );
  };
}
