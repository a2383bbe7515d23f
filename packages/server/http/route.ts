import { CHANGED_HEADER, may, type Changed, type Permission, type Person } from '@osier/contract';
import type { NextFunction, Request, Response, Router } from 'express';
import type { Schema } from 'yup';
import { ProblemError } from './problem';
import { queryOf, wholeIn } from './query';
import { validated } from './validated';
import { withChanges } from '../store/feed';

/** What a route's work is given: who asks, and the parts of the request, the body already validated. */
export interface Asked<Body> {
  readonly person: Person;
  readonly body: Body;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string | undefined>>;
  /** A whole number of the query; undefined where there is none, and refused by name where it is something else. */
  whole(name: string): number | undefined;
  readonly req: SignedIn;
  readonly res: Response;
  /** Tells when whoever asked has gone, so that long work for an answer can end. */
  left(): AbortSignal;
  /** The number in a path parameter; anything else is a 404. */
  id(name?: string): number;
}

/** One path of the API. `openapi.json` is made from these, so nothing is served that is not described. */
export interface Route<Body = unknown> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  /** What the person must be allowed; null for paths that are open to anybody. */
  readonly permission: Permission | null;
  readonly body?: Schema<Body>;
  /** Gives the answer, or undefined when it has written the response itself. */
  readonly work: (asked: Asked<Body>) => unknown;
  readonly status?: number;
}

/** Declares a route; its work is given the body as its schema has it. */
export const route = <Body>(r: Route<Body>): Route => r as unknown as Route;

/** The person of a request, put there by the sign-in check. */
export type SignedIn = Request & { person?: Person };

/** Mounts routes: permission, then body, then work. */
export function mount(router: Router, routes: readonly Route[]): void {
  for (const r of routes) router[r.method](r.path, (req, res, next) => void answer(r, req, res, next));
}

async function answer(r: Route, req: SignedIn, res: Response, next: NextFunction): Promise<void> {
  try {
    if (r.permission !== null) allow(req.person, r.permission);
    const query = queryOf(req);
    const body = r.body ? await validated(r.body, req.body) : undefined;
    const { result, changed } = await withChanges(() =>
      r.work({
        person: req.person!,
        body,
        req,
        res,
        left: () => leaving(res),
        params: req.params as Record<string, string>,
        query,
        whole: (name) => wholeIn(query, name),
        id: (name = 'id') => {
          const n = Number(req.params[name]);
          if (!Number.isSafeInteger(n) || n < 1)
            throw new ProblemError(404, `“${String(req.params[name])}” is no number.`);
          return n;
        },
      }),
    );
    if (changed.length && !res.headersSent) res.setHeader(CHANGED_HEADER, headerOf(changed));
    if (result !== undefined && !res.headersSent) res.status(r.status ?? 200).json(result);
  } catch (error) {
    next(error);
  }
}

/** What a request has changed, short enough for a header. */
function headerOf(changed: readonly Changed[]): string {
  const whole = JSON.stringify(changed);
  if (whole.length <= LONGEST_HEADER) return whole;
  const kinds = (c: Changed) => Object.fromEntries(Object.keys(c.kinds).map((kind) => [kind, null]));
  return JSON.stringify(changed.map((c) => ({ entry: c.entry, kinds: kinds(c) })));
}
const LONGEST_HEADER = 4000;

function leaving(res: Response): AbortSignal {
  const controller = new AbortController();
  res.on('close', () => controller.abort());
  return controller.signal;
}

/** Throws unless the person is signed in and allowed. */
export function allow(person: Person | undefined, permission: Permission): void {
  if (!person)
    throw new ProblemError(401, 'You are not signed in, or have been signed out. Sign in and try again.');
  if (!may(person.role, permission))
    throw new ProblemError(403, `Your role (${person.role}) may not ${permission}.`);
}
