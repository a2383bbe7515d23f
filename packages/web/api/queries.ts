import { QueryClient, useQuery } from '@tanstack/react-query';
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

/** After an act anything may be different: what is on screen is read again, but for the review of the act itself. */
export const refresh = (): Promise<void> =>
  queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'review' });
