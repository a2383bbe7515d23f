import { QueryClient, useQuery, type Query } from '@tanstack/react-query';
import { filledPath, type AnyEndpoint, type Changed, type EndpointAnswer } from '@osier/contract';
import type { EndpointPlace } from './call';
import { changedByLastAct, request, RequestProblem } from './request';
import { isStale } from './stale';

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      retry: (n, error) => n < 2 && error instanceof RequestProblem && error.problem.status === 0,
    },
  },
});

/** Reads an endpoint of the API and keeps what it answers; null for a place is nothing to read yet. */
export const useApi = <E extends AnyEndpoint>(
  endpoint: E,
  ...[place]: Record<never, never> extends EndpointPlace<E>
    ? [place?: EndpointPlace<E> | null]
    : [place: EndpointPlace<E> | null]
) => {
  const path = place === null ? null : filledPath(endpoint.path, place?.params, place?.query);
  return useQuery({
    queryKey: [path],
    queryFn: () => request<EndpointAnswer<E>>('GET', path ?? ''),
    enabled: path !== null,
  });
};

/** The review of an act is worked out once; what the act changes does not change its review. */
const isOnScreen = (q: Query): boolean => q.queryKey[0] !== 'review';

/**
 * After an act, what is on screen and may be different is read again: what the act told that it changed, or everything when it
 * told nothing. An answer that was already on its way for the first time may be older than the act, so it is asked for once more.
 */
export async function refresh(): Promise<void> {
  const changed = changedByLastAct();
  await readAgain((q) => isOnScreen(q) && (changed === null || changed.some((c) => isStale(q, c))));
}

/** Reads everything on screen again: something was done that tells no more. */
export const refreshAll = (): Promise<void> => readAgain(isOnScreen);

/** Reads again what somebody else's change, or a job's, may have made different. */
export const follow = (changed: readonly Changed[]): Promise<void> =>
  readAgain((q) => isOnScreen(q) && changed.some((c) => isStale(q, c)));

async function readAgain(isWanted: (q: Query) => boolean): Promise<void> {
  const onTheirWay = queries
    .getQueryCache()
    .findAll({ fetchStatus: 'fetching', predicate: (q) => isWanted(q) && q.state.data === undefined });
  await queries.invalidateQueries({ predicate: isWanted });
  if (onTheirWay.length) await queries.invalidateQueries({ predicate: (q) => onTheirWay.includes(q) });
}
