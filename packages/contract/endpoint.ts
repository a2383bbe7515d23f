import type { InferType, ISchema, ObjectSchema, Schema } from 'yup';
import { schemaOf } from './answers';
import type { Permission } from './permissions';

/** A value that nobody changes in place, all the way down. */
export type Frozen<T> = T extends object ? { readonly [K in keyof T]: Frozen<T[K]> } : T;

/** What a schema describes, as it is handed on. */
export type ValueOf<S extends ISchema<unknown>> = Frozen<InferType<S>>;

/** An answer that is not JSON: a file, or a stream of events. */
export interface Sent {
  readonly media: readonly string[];
}

/** The names behind `:` in a path. */
type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/**
 * One row of the API table: what is asked for, by whom, and what is answered. The server implements it, the web calls it, the
 * OpenAPI document is printed from it, and the tests hold every answer against it.
 */
export interface Endpoint<
  Path extends string = string,
  Params = Record<string, never>,
  Query = Record<string, never>,
  Body = undefined,
  Sending = undefined,
  Answer = unknown,
> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Below `/api`, with `:name` for a parameter. */
  readonly path: Path;
  readonly summary: string;
  /** What the person must be allowed; null for paths that are open to anybody. */
  readonly permission: Permission | null;
  /** Schemas of parameters of the path that are not the number of an object. */
  readonly params: Readonly<Record<string, Schema>>;
  readonly query: ObjectSchema<object> | null;
  /** `file`: the body is a file as it is. */
  readonly body: Schema | 'file' | null;
  readonly answer: Schema | Sent;
  readonly status: 200 | 201 | 202;
  /** Statuses of problem details beside those that every request may end with. */
  readonly problems: readonly number[];
  /** Only for the compiler: the types of the above. */
  readonly of?: { params: Params; query: Query; body: Body; sending: Sending; answer: Answer };
}

interface Said<Path extends string, P, Q, B, A> {
  readonly method: Endpoint['method'];
  readonly path: Path;
  readonly summary: string;
  readonly permission: Permission | null;
  readonly params?: P;
  readonly query?: Q;
  readonly body?: B;
  readonly answer: A;
  readonly status?: 200 | 201 | 202;
  readonly problems?: readonly number[];
}

type ParamsOf<Path extends string, P> = {
  readonly [Name in NamesIn<Path>]: Name extends keyof P
    ? P[Name] extends Schema
      ? InferType<P[Name]>
      : number
    : number;
};
type QueryOf<Q> = Q extends ISchema<unknown> ? Partial<ValueOf<Q>> : Record<string, never>;
type BodyOf<B> = B extends ISchema<unknown> ? InferType<B> : undefined;
/** The names of the parts that must be sent: those that may be absent, or have a default, need not be. */
type Necessary<Given, Defaults> = {
  [K in keyof Given]-?: undefined extends Given[K]
    ? never
    : K extends keyof Defaults
      ? undefined extends Defaults[K]
        ? K
        : never
      : K;
}[keyof Given];
type WithoutDefaults<Given, Defaults> = Frozen<
  Pick<Given, Necessary<Given, Defaults>> & Partial<Omit<Given, Necessary<Given, Defaults>>>
>;
type SendingOf<B> = B extends 'file'
  ? Blob
  : B extends { readonly __outputType: infer Given; readonly __default: infer Defaults }
    ? WithoutDefaults<Given, Defaults>
    : undefined;
type AnswerOf<A> = A extends ISchema<unknown> ? ValueOf<A> : undefined;

/** Declares a row of the table. A parameter of the path is a number unless `params` says otherwise. */
export function endpoint<
  const Path extends string,
  const P extends Readonly<Record<string, Schema>> = Record<never, never>,
  Q extends ISchema<object> | undefined = undefined,
  B extends ISchema<unknown> | 'file' | undefined = undefined,
  A extends ISchema<unknown> | Sent = Schema,
>(
  said: Said<Path, P, Q, B, A>,
): Endpoint<Path, ParamsOf<Path, P>, QueryOf<Q>, BodyOf<B>, SendingOf<B>, AnswerOf<A>> {
  return {
    ...said,
    params: said.params ?? {},
    query: said.query ? (schemaOf(said.query) as ObjectSchema<object>) : null,
    body: said.body === 'file' ? said.body : said.body ? schemaOf(said.body) : null,
    answer: isSent(said.answer) ? said.answer : schemaOf(said.answer),
    status: said.status ?? 200,
    problems: said.problems ?? [],
  };
}

/** Any row of the table. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- rows differ in all their types
export type AnyEndpoint = Endpoint<string, any, any, any, any, any>;
export type EndpointParams<E extends AnyEndpoint> = NonNullable<E['of']>['params'];
export type EndpointQuery<E extends AnyEndpoint> = NonNullable<E['of']>['query'];
export type EndpointBody<E extends AnyEndpoint> = NonNullable<E['of']>['body'];
/** What is sent as a body. */
export type EndpointSending<E extends AnyEndpoint> = NonNullable<E['of']>['sending'];
export type EndpointAnswer<E extends AnyEndpoint> = NonNullable<E['of']>['answer'];

/** The names of a path's parameters, in their order. */
export const paramNames = (path: string): string[] => [...path.matchAll(/:(\w+)/g)].map((m) => m[1] ?? '');

/** Whether an endpoint answers with something that is not JSON. */
export const isSent = (answer: ISchema<unknown> | Sent): answer is Sent => 'media' in answer;

/** A path with its parameters and its query filled in, empty values of the query left out. */
export function filledPath(
  path: string,
  params: Readonly<Record<string, string | number>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])));
  const parts = Object.entries(query)
    .filter(([, v]) => v !== undefined && v !== null && v !== '')
    .map(([name, v]) => `${name}=${encodeURIComponent(String(v))}`);
  return parts.length ? `${filled}?${parts.join('&')}` : filled;
}
