import { api, type StocktakeDetail } from '@osier/contract';
import { call } from '../../api/call';
import type { Settlement } from '@osier/core/stocktake';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { CodePicker } from '../../parts/CodePicker';
import { KitField } from '../../parts/form/KitField';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { stocktakeWords as wording } from './words';

/** The review of settling chosen findings, with where misplaced copies belong from now on. */
export function SettleSheet({
  stocktake,
  items: chosen,
  onClose,
  onDone,
}: {
  stocktake: StocktakeDetail;
  items: { copy: number; act: Settlement }[];
  onClose: () => void;
  onDone: () => void;
}) {
  /** What is reviewed stays so while it is done, whatever becomes of the ticks behind the sheet. */
  const [items] = useState(chosen);
  const lists = useSetUp()?.lists.value;
  const { stretch } = stocktake.stocktake;
  const places = (lists?.locations ?? []).filter((l) => l.branch === stretch.branch);
  const [location, setLocation] = useState(stretch.locations[0] ?? '');
  const { say } = useShell();
  const moves = items.some((i) => i.act === 'correct-location');
  const params = { id: stocktake.id };
  const review = useQuery({
    queryKey: ['review', 'settle', stocktake.id, items, location],
    queryFn: () => call(api.stocktakes.reviewSettle, { params, body: { items, location } }),
    gcTime: 0,
    retry: false,
    staleTime: Infinity,
  });
  const act = async (leftOut: readonly number[], token: string) => {
    const done = await call(api.stocktakes.settle, {
      params,
      body: leftOut.length
        ? { items: items.filter((i) => !leftOut.includes(i.copy)), location }
        : { items, location, token },
    });
    say(done.sentence, done.entry);
    onDone();
    void refresh();
  };
  return (
    <ReviewSheet
      title={wording.settleFindingsOf(stocktake.stocktake.name)}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
    >
      {moves ? (
        <KitField label={wording.newLocation}>
          <CodePicker list={places} value={location} onChange={setLocation} />
        </KitField>
      ) : null}
    </ReviewSheet>
  );
}
