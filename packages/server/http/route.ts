import {
  CHANGED_HEADER,
  may,
  paramNames,
  type AnyEndpoint,
  type Changed,
  type EndpointAnswer,
  type EndpointBody,
  type EndpointParams,
  type EndpointQuery,
  type Permission,
  type Person,
} from '@osier/contract';
import type { NextFunction, Request, Response, Router } from 'express';
import type { Schema } from 'yup';
import { withChanges } from '../store/feed';
import { goesFirst } from '../store/give-way';
import { ProblemError } from './problem';
import { queryOf } from './query';
import { validated } from './validated';

/** What a route's work is given: who asks, and the parts of the request as their schemas have them. */
export interface Asked<E extends AnyEndpoint = AnyEndpoint> {
  readonly person: Person;
  readonly params: EndpointParams<E>;
  readonly query: EndpointQuery<E>;
  readonly body: EndpointBody<E>;
  readonly req: SignedIn;
  readonly res: Response;
  /** Tells when whoever asked has gone, so that long work for an answer can end. */
  left(): AbortSignal;
}

/** An endpoint of the contract with what it does. Nothing is served that is not in the table. */
export interface Route {
  readonly endpoint: AnyEndpoint;
  /** Gives the answer, or undefined when it has written the response itself. */
  readonly work: (asked: Asked) => unknown;
}

/** Says what an endpoint does; the compiler holds the answer against its schema. */
export const route = <E extends AnyEndpoint>(
  endpoint: E,
  work: (asked: Asked<E>) => EndpointAnswer<E> | Promise<EndpointAnswer<E>>,
): Route => ({ endpoint, work: work as Route['work'] });

/** The person of a request, put there by the sign-in check. */
export type SignedIn = Request & { person?: Person };

/** Mounts routes: permission, then path, query and body, then work. */
export function mount(router: Router, routes: readonly Route[]): void {
  for (const r of routes)
    router[r.endpoint.method](r.endpoint.path, (req, res, next) => void answer(r, req, res, next));
}

async function answer(
  { endpoint, work }: Route,
  req: SignedIn,
  res: Response,
  next: NextFunction,
): Promise<void> {
  try {
    if (endpoint.permission !== null) allow(req.person, endpoint.permission);
    const params = paramsOf(endpoint, req.params);
    const given = queryOf(req);
    const query: unknown = endpoint.query ? await validated(endpoint.query, given) : {};
    const body: unknown = isSchema(endpoint.body) ? await validated(endpoint.body, req.body) : undefined;
    const done = () =>
      withChanges(() =>
        // Whom a path asks for a permission has been looked at above; open paths do not ask who it is.
        work({ person: req.person!, params, query, body, req, res, left: () => leaving(res) }),
      );
    // What writes waits for long work to let it write, and so must not hold it up.
    const { result, changed } = await (endpoint.method === 'get' ? goesFirst(done) : done());
    if (changed.length && !res.headersSent) res.setHeader(CHANGED_HEADER, headerOf(changed));
    if (result !== undefined && !res.headersSent) res.status(endpoint.status).json(result);
  } catch (error) {
    next(error);
  }
}

const isSchema = (body: AnyEndpoint['body']): body is Schema => body !== null && body !== 'file';

/** The parameters of a path: numbers of objects, but for those that the endpoint says otherwise of. */
function paramsOf(endpoint: AnyEndpoint, given: Request['params']): Record<string, string | number> {
  const found: Record<string, string | number> = {};
  for (const name of paramNames(endpoint.path)) {
    const text = String(given[name]);
    const n = Number(text);
    const schema = endpoint.params[name];
    const isRight: boolean = schema ? schema.isValidSync(text) : Number.isSafeInteger(n) && n > 0;
    if (!isRight) throw new ProblemError(404, `“${text}” is no ${schema ? name : 'number'}.`);
    found[name] = schema ? text : n;
  }
  return found;
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
  if (!may(person.role, permission, person.rights))
    throw new ProblemError(403, `Your role (${person.role}) may not ${permission}.`);
}
