import { QueryClient, usePrefetchQuery, useQuery, type Query } from '@tanstack/react-query';
import { useEffect } from 'react';
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

/** Begins to read what a part that is yet to be drawn will show, while the page around it is drawn. */
export const useReadAhead = <E extends AnyEndpoint>(endpoint: E, place: EndpointPlace<E>) => {
  const path = filledPath(endpoint.path, place.params, place.query);
  usePrefetchQuery({ queryKey: [path], queryFn: () => request<EndpointAnswer<E>>('GET', path) });
};

/**
 * The same for an answer that costs much: after changes it is read again no sooner than the pause behind what has been read says (in
 * milliseconds; 0 for at once). What a person has just done is shown by `setRead` meanwhile.
 */
export const useCalmApi = <E extends AnyEndpoint>(
  endpoint: E,
  place: EndpointPlace<E>,
  pause: (read: EndpointAnswer<E>) => number,
) => {
  const path = filledPath(endpoint.path, place.params, place.query);
  const answer = useQuery({ queryKey: [path], queryFn: () => request<EndpointAnswer<E>>('GET', path) });
  const { data } = answer;
  useEffect(() => {
    calm(path, data === undefined ? 0 : pause(data));
    return () => calm(path, 0);
  }, [path, data, pause]);
  return answer;
};

/** By path: for how long what is read waits before it is read again. */
const pauses = new Map<string, number>();

/** What is read of a path waits for some milliseconds before it is read again; 0 for not at all. */
export function calm(path: string, pause: number): void {
  if (pause > 0) pauses.set(path, pause);
  else pauses.delete(path);
}

/** Changes what was read of an endpoint until it is read again. */
export const setRead = <E extends AnyEndpoint>(
  endpoint: E,
  place: EndpointPlace<E>,
  change: (read: EndpointAnswer<E>) => EndpointAnswer<E>,
): void =>
  void queries.setQueryData<EndpointAnswer<E>>(
    [filledPath(endpoint.path, place.params, place.query)],
    (read) => (read === undefined ? undefined : change(read)),
  );

const pauseOf = ({ queryKey }: Query): number => pauses.get(String(queryKey[0])) ?? 0;

/** Queries that wait to be read again. */
const waiting = new Set<string>();
function readLater(query: Query, pause: number): void {
  const { queryHash, queryKey } = query;
  if (waiting.has(queryHash)) return;
  waiting.add(queryHash);
  setTimeout(() => {
    waiting.delete(queryHash);
    void queries.invalidateQueries({ queryKey, exact: true });
  }, pause);
}

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
  for (const query of queries.getQueryCache().findAll({ predicate: isWanted }))
    if (pauseOf(query) > 0) readLater(query, pauseOf(query));
  await queries.invalidateQueries({ predicate: (q) => isWanted(q) && pauseOf(q) === 0 });
  if (onTheirWay.length) await queries.invalidateQueries({ predicate: (q) => onTheirWay.includes(q) });
}
