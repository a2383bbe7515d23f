import { api, type StocktakeDetail } from '@osier/contract';
import { locationsOf } from '@osier/core/stocktake';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { CodePicker } from '../../parts/CodePicker';
import { KitField } from '../../parts/form/KitField';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import type { Ticked } from './use-settling';
import { stocktakeWords as wording } from './words';

/** The review of settling chosen findings, with where misplaced copies belong from now on. */
export function SettleSheet({
  stocktake,
  asked: chosen,
  onClose,
  onDone,
}: {
  stocktake: StocktakeDetail;
  asked: Ticked;
  onClose: () => void;
  onDone: () => void;
}) {
  /** What is reviewed stays so while it is done, whatever becomes of the ticks behind the sheet. */
  const [asked] = useState(chosen);
  const lists = useSetUp()?.lists.value;
  const { stretch } = stocktake.stocktake;
  const places = locationsOf({ ...stretch, locations: [] }, lists?.locations ?? []);
  const [location, setLocation] = useState(stretch.locations[0] ?? '');
  const { say } = useShell();
  const moves = [...asked.items, ...asked.all].some((i) => i.act === 'correct-location');
  const params = { id: stocktake.id };
  const page = (from: number) =>
    call(api.stocktakes.reviewSettle, { params, body: { ...asked, location, from } });
  const review = useQuery({
    queryKey: ['review', 'settle', stocktake.id, asked, location],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
    staleTime: Infinity,
  });
  const act = async (leftOut: readonly number[], token: string) => {
    const body = { ...asked, location, leaveOut: [...leftOut], token };
    const done = await call(api.stocktakes.settle, { params, body });
    if (done.entry !== null) say(done.sentence, done.entry);
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
      onMore={page}
    >
      {moves ? (
        <KitField label={wording.newLocation}>
          <CodePicker list={places} value={location} onChange={setLocation} />
        </KitField>
      ) : null}
    </ReviewSheet>
  );
}
