import { api, type StocktakeDetail } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { stocktakeWords as wording } from './words';

/** The review of closing a stocktake; a job closes it. */
export function CloseSheet({ stocktake, onClose }: { stocktake: StocktakeDetail; onClose: () => void }) {
  const params = { id: stocktake.id };
  const review = useQuery({
    queryKey: ['review', 'close', stocktake.id],
    queryFn: () => call(api.stocktakes.reviewClose, { params }),
    gcTime: 0,
    retry: false,
  });
  return (
    <ReviewSheet
      title={wording.closeOf(stocktake.stocktake.name)}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={(_, token) => call(api.stocktakes.close, { params, body: { token } })}
      onAnew={review.refetch}
    />
  );
}
