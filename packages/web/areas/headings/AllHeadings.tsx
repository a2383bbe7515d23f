import { api, type HeadingPage } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { useApi } from '../../api/queries';
import { Facets } from '../../parts/Facets';
import { SelectionBar } from '../../parts/SelectionBar';
import { useTicks } from '../../parts/ticks';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { useToday } from '../today/use-today';
import { GroupPiece } from './GroupPiece';
import { kindName, kindsName } from './heading-names';
import { HeadingPiece } from './HeadingPiece';
import { HeadingsOverview } from './HeadingsOverview';
import { headingsWords as wording } from './words';

const MOST_MERGED = 20;

/** All headings in alphabetical order: find, open, and merge any of them by hand. */
export function AllHeadings({ id }: { id: number | null }) {
  const navigate = useNavigate();
  const [query, change] = useAddress();
  const mayMerge = useMay('merge headings');
  const ticks = useTicks('headings');
  const { data: today } = useToday();
  const q = query.get('q') ?? '';
  const kind = query.get('kind') ?? undefined;
  const merging = (query.get('merge') ?? '').split(',').map(Number).filter(Boolean);
  const list = useInfiniteQuery({
    queryKey: ['/headings', q, kind],
    initialPageParam: '',
    getNextPageParam: (last: HeadingPage) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) => call(api.headings.list, { query: { q, kind, after: pageParam } }),
  });
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const kept = new URLSearchParams({ show: 'all', ...(q && { q }), ...(kind && { kind }) }).toString();
  return (
    <WorkSplit
      open={id !== null || merging.length > 1}
      list={
        <>
          <div className="facets">
            <Input
              aria-label={wording.findHeadings}
              placeholder={wording.wordsOfAHeading}
              value={q}
              onChange={(e) => change({ show: 'all', q: e.target.value })}
              allowClear
            />
            <Facets
              facets={(today?.headingKinds ?? []).map(({ value, n }) => ({
                ...{ value, count: n },
                name: kindsName(value),
              }))}
              chosen={kind}
              onChoose={(value) => change({ show: 'all', kind: value })}
            />
          </div>
          <WorkList
            items={rows}
            label={wording.headings}
            idOf={(h) => h.id}
            selected={id}
            rowHeight={32}
            ticked={mayMerge ? ticks.ids : undefined}
            onTick={mayMerge ? (h) => ticks.flip(h.id) : undefined}
            onTickAll={mayMerge ? (some) => ticks.add(some.map((h) => h.id)) : undefined}
            onOpen={(h) => void navigate(`/headings/${h.id}?${kept}`)}
            answer={list}
            empty={wording.noHeadingHasTheseWords}
            onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
            row={(h) => (
              <div className="one">
                <span className="main" style={{ fontWeight: 400 }}>
                  <bdi>{h.text}</bdi>
                </span>
                <span className="faded">{kindName(h.kind)}</span>
                <span className="num" style={{ minWidth: 34 }}>
                  {h.records.toLocaleString('en-GB')}
                </span>
              </div>
            )}
          />
          {mayMerge ? (
            <SelectionBar ticks={ticks}>
              <Button
                size="small"
                type="primary"
                data-key="m"
                disabled={ticks.ids.size < 2 || ticks.ids.size > MOST_MERGED}
                title={wording.chooseTwo}
                onClick={() => void navigate(`/headings?${kept}&merge=${[...ticks.ids].join(',')}`)}
              >
                {wording.mergeThese}
              </Button>
            </SelectionBar>
          ) : null}
        </>
      }
      piece={
        id !== null ? (
          <HeadingPiece key={id} id={id} />
        ) : merging.length > 1 ? (
          <ByHand
            key={merging.join(',')}
            ids={merging}
            onDone={() => {
              ticks.clear();
              void navigate(`/headings?${kept}`);
            }}
          />
        ) : (
          <HeadingsOverview />
        )
      }
    />
  );
}

/** Headings that a person has chosen, side by side. */
function ByHand({ ids, onDone }: { ids: readonly number[]; onDone: () => void }) {
  const { data, error } = useApi(api.headings.evidence, { query: { ids: ids.join(',') } });
  if (error) return <p role="alert">{error.message}</p>;
  return data ? <GroupPiece headings={data.headings} pairs={[]} onDone={onDone} /> : null;
}
