import { api, type FindingPage } from '@osier/contract';
import type { StockFindingKind } from '@osier/core/stocktake';
import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from '../../api/call';

/** The findings of one kind, a page at a time, in the order of the shelf. */
export const useFindings = (stocktake: number, kind: StockFindingKind) =>
  useInfiniteQuery({
    queryKey: [`/stocktakes/${stocktake}/findings`, kind],
    initialPageParam: '',
    getNextPageParam: (last: FindingPage) => last.next,
    queryFn: ({ pageParam }) =>
      call(api.stocktakes.findings, {
        params: { id: stocktake },
        query: { kind, ...(pageParam && { after: pageParam }) },
      }),
  });
