import type { NextFunction, Request, Response } from 'express';
import { ProblemError } from './problem';

/** Lets writes through only when they come from this application's own pages (or from a program that is no browser). */
export function originCheck(req: Request, _res: Response, next: NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next();
  const origin = req.headers.origin;
  const site = req.headers['sec-fetch-site'];
  const foreign =
    origin !== undefined
      ? hostOf(origin) !== req.headers.host
      : site !== undefined && site !== 'same-origin' && site !== 'none';
  next(foreign ? new ProblemError(403, 'This request comes from another site and was refused.') : undefined);
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
