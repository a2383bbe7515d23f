import {
  filledPath,
  type AnyEndpoint,
  type EndpointAnswer,
  type EndpointParams,
  type EndpointQuery,
  type EndpointSending,
} from '@osier/contract';
import { request } from './request';

type NeedsParams<E extends AnyEndpoint> = keyof EndpointParams<E> extends never
  ? { readonly params?: undefined }
  : { readonly params: EndpointParams<E> };
type NeedsBody<E extends AnyEndpoint> =
  EndpointSending<E> extends undefined
    ? { readonly body?: undefined }
    : Record<never, never> extends EndpointSending<E>
      ? { readonly body?: EndpointSending<E> }
      : { readonly body: EndpointSending<E> };

/** Where an endpoint is asked: the parameters of its path, and what stands behind it. */
export type EndpointPlace<E extends AnyEndpoint> = NeedsParams<E> & { readonly query?: EndpointQuery<E> };
/** What is sent to an endpoint. */
export type Asking<E extends AnyEndpoint> = EndpointPlace<E> &
  NeedsBody<E> & { readonly signal?: AbortSignal };
/** The argument of a call, which may be left out where nothing has to be said. */
type Needed<T> = Record<never, never> extends T ? [said?: T] : [said: T];

/** The path of an endpoint with its parameters and query filled in, below `/api`. */
export const pathOf = <E extends AnyEndpoint>(endpoint: E, ...[place]: Needed<EndpointPlace<E>>): string =>
  filledPath(endpoint.path, place?.params, place?.query);

/** Calls an endpoint of the API. What it gives has the type of the endpoint's answer; a refusal is a `RequestProblem`. */
export async function call<E extends AnyEndpoint>(
  endpoint: E,
  ...[asking]: Needed<Asking<E>>
): Promise<EndpointAnswer<E>> {
  const body: unknown = asking?.body ?? (endpoint.method === 'get' ? undefined : {});
  return request(
    endpoint.method.toUpperCase(),
    filledPath(endpoint.path, asking?.params, asking?.query),
    body,
    asking?.signal,
  );
}
