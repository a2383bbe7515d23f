import { api, type RecordOrder, type SearchAnswer, type SearchBody } from '@osier/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call, pathOf } from '../../api/call';

/** Milliseconds after which a search that looks through all records is asked how far it is. */
const ASK_AGAIN = 600;

/** The records that a search finds, page by page; of one that looks through all, what it has found so far, until it is at its end. */
export const useFoundRecords = (search: Omit<SearchBody, 'records'>, order: RecordOrder | undefined) =>
  useInfiniteQuery({
    queryKey: ['/records', search, order],
    initialPageParam: '',
    getNextPageParam: (last: SearchAnswer) => last.next,
    placeholderData: (before) => before,
    refetchInterval: ({ state: { data } }) =>
      data?.pages.some((p) => p.running !== null) ? ASK_AGAIN : false,
    queryFn: ({ pageParam, signal }) =>
      call(api.records.search, { query: { ...search, sort: order, after: pageParam, soFar: 'yes' }, signal }),
  });

/** What a search finds by facet; of one that looks through all, when it is at its end. Left alone, it is given up. */
export const useFacetCounts = (
  query: Omit<SearchBody, 'records' | 'language' | 'branch' | 'material' | 'finding'>,
) =>
  useQuery({
    queryKey: [pathOf(api.records.facets, { query })],
    queryFn: ({ signal }) => call(api.records.facets, { query, signal }),
  });
