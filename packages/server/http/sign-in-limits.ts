import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { foldedLogin } from '../people/sign-in-name';
import { ProblemError } from './problem';

const tooMany = (_req: Request, _res: Response, next: NextFunction): void =>
  next(new ProblemError(429, 'Too many tries. Wait a few minutes, then try again.'));
const common = { standardHeaders: true, legacyHeaders: false, handler: tooMany, validate: false } as const;
const isRead = (req: Request) => req.method === 'GET';

/** Tries to sign in: 30 a minute from one address, and 10 that fail in a quarter of an hour for one account, wherever they come from. */
export function signInLimits(): RequestHandler[] {
  const perAddress = rateLimit({
    ...common,
    windowMs: 60_000,
    limit: 30,
    skip: isRead,
    keyGenerator: (req) => ipKeyGenerator(req.ip ?? ''),
  });
  const perAccount = rateLimit({
    ...common,
    windowMs: 15 * 60_000,
    limit: 10,
    skipSuccessfulRequests: true,
    skip: (req) => isRead(req) || loginIn(req) === '',
    keyGenerator: loginIn,
  });
  return [perAddress, perAccount];
}

function loginIn(req: Request): string {
  const body: unknown = req.body;
  if (typeof body !== 'object' || body === null || !('login' in body)) return '';
  return typeof body.login === 'string' ? foldedLogin(body.login.slice(0, 200)) : '';
}
