import { QueryClient, useQuery, type Query } from '@tanstack/react-query';
import { get, RequestProblem } from './request';

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      retry: (n, error) => n < 2 && error instanceof RequestProblem && error.problem.status === 0,
    },
  },
});

/** Reads a path of the API and keeps it. */
export const useApi = <T>(path: string | null) =>
  useQuery<T>({ queryKey: [path], queryFn: () => get<T>(path!), enabled: path !== null });

/** The review of an act is worked out once; what the act changes does not change its review. */
const isOnScreen = (q: Query): boolean => q.queryKey[0] !== 'review';

/**
 * After an act anything may be different: what is on screen is read again. An answer that was already on its way for
 * the first time may be older than the act, so it is asked for once more.
 */
export async function refresh(): Promise<void> {
  const onTheirWay = queries
    .getQueryCache()
    .findAll({ fetchStatus: 'fetching', predicate: (q) => isOnScreen(q) && q.state.data === undefined });
  await queries.invalidateQueries({ predicate: isOnScreen });
  if (onTheirWay.length) await queries.invalidateQueries({ predicate: (q) => onTheirWay.includes(q) });
}
