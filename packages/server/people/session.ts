import { parseCookie } from 'cookie';
import type { NextFunction, Request, Response } from 'express';
import type { SignedIn } from '../http/route';
import type { People } from './people';

const COOKIE = 'osier_session';

/** The token of the session that a request belongs to, if any. */
export const sessionToken = (req: Request): string | undefined =>
  parseCookie(req.headers.cookie ?? '')[COOKIE];

/** Only sent back over https when the page came by https. */
const how = (res: Response) => ({
  httpOnly: true,
  sameSite: 'strict' as const,
  path: '/',
  secure: res.req.secure,
});
/** Gives the browser its session. */
export const setSession = (res: Response, token: string): void =>
  void res.cookie(COOKIE, token, { ...how(res), maxAge: 14 * 86_400_000 });
/** Takes the session from the browser. */
export const clearSession = (res: Response): void => void res.clearCookie(COOKIE, how(res));

/** Finds out who asks; whether they may is the route's question. */
export const session = (people: People) => async (req: Request, _res: Response, next: NextFunction) => {
  const token = sessionToken(req);
  if (token) (req as SignedIn).person = await people.whoHas(token);
  next();
};

const BEAT = 20_000;

/** A stream of events to a signed-in person. It ends with the session. */
export function eventStream(
  people: People,
  req: SignedIn,
  res: Response,
): { send(data: string): void; onClose(done: () => void): void } {
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-cache, no-store, no-transform',
    connection: 'keep-alive',
  });
  res.write(': here\n\n');
  const token = sessionToken(req) ?? '';
  const stopListening = people.whenEnded(token, req.person?.id ?? 0, () => res.end());
  const beat = setInterval(() => {
    res.write(': still here\n\n');
    void people.whoHas(token).then((p) => p ?? res.end());
  }, BEAT);
  const closing: (() => void)[] = [];
  res.on('close', () => {
    clearInterval(beat);
    stopListening();
    for (const done of closing) done();
  });
  return { send: (data) => void res.write(data), onClose: (done) => void closing.push(done) };
}
