import type { NextFunction, Request, Response } from 'express';
import type { SignedIn } from '../http/route';
import type { People } from './people';

const COOKIE = 'osier_session';

export function sessionToken(req: Request): string | undefined {
  const pair = (req.headers.cookie ?? '').split(/;\s*/).find((c) => c.startsWith(`${COOKIE}=`));
  return pair?.slice(COOKIE.length + 1);
}

export const setSession = (res: Response, token: string): void =>
  void res.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 14 * 86_400_000 });
export const clearSession = (res: Response): void =>
  void res.clearCookie(COOKIE, { httpOnly: true, sameSite: 'strict', path: '/' });

/** Finds out who asks; whether they may is the route's question. */
export const session = (people: People) => async (req: Request, _res: Response, next: NextFunction) => {
  const token = sessionToken(req);
  if (token) (req as SignedIn).person = await people.whoHas(token);
  next();
};
