import { api, HEADING_LISTS, type HeadingPage } from '@osier/contract';
import { isQueryText, OF_HEADINGS } from '@osier/core/find';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { useApi } from '../../api/queries';
import { BatchSheet } from '../../parts/BatchSheet';
import { Facets } from '../../parts/Facets';
import { ListRow, rowHeightOf } from '../../parts/ListRow';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { SaveButton } from '../../parts/searches/SaveButton';
import { SelectionBar } from '../../parts/SelectionBar';
import { useTicks } from '../../parts/ticks';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { useToday } from '../today/use-today';
import { AddHeading } from './AddHeading';
import { DeleteSheet } from './DeleteSheet';
import { GroupPiece } from './GroupPiece';
import { COLUMNS, FIRST_VIEW, HeadingTitle } from './heading-columns';
import { kindsName } from './heading-names';
import { mergeAllBatch } from './merge-all-batch';
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
  const [view, setView] = useListView('headings', FIRST_VIEW);
  const { data: today } = useToday();
  const q = query.get('q') ?? '';
  const kind = query.get('kind') ?? undefined;
  const only = HEADING_LISTS.find((l) => l === query.get('only'));
  const [batch, setBatch] = useState<'see-froms' | 'delete' | null>(null);
  const isAdding = mayMerge && query.has('add');
  const merging = (query.get('merge') ?? '').split(',').map(Number).filter(Boolean);
  const list = useInfiniteQuery({
    queryKey: ['/headings', q, kind, only],
    initialPageParam: '',
    getNextPageParam: (last: HeadingPage) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) => call(api.headings.list, { query: { q, kind, only, after: pageParam } }),
  });
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const kept = new URLSearchParams({
    show: 'all',
    ...(q && { q }),
    ...(kind && { kind }),
    ...(only && { only }),
  }).toString();
  return (
    <WorkSplit
      open={id !== null || merging.length > 1 || isAdding}
      list={
        <>
          <div className="facets flows">
            <Input
              aria-label={wording.findHeadings}
              placeholder={wording.wordsOfAHeading}
              value={q}
              onChange={(e) => change({ show: 'all', q: e.target.value })}
              allowClear
            />
            <Select<string>
              className="heading-list"
              data-key="y"
              aria-label={wording.whichHeadings}
              popupMatchSelectWidth={false}
              value={only ?? ''}
              options={[
                { value: '', label: wording.allHeadings },
                ...HEADING_LISTS.map((value) => ({ value, label: wording.lists[value] })),
              ]}
              onChange={(value) => change({ show: 'all', only: value })}
            />
            <SaveButton of="heading" />
            {only === 'see-froms' && mayMerge && rows.length ? (
              <Button size="small" data-key="a" onClick={() => setBatch('see-froms')}>
                {wording.replaceSeeFroms}
              </Button>
            ) : null}
            <Facets
              facets={(today?.headingKinds ?? []).map(({ value, n }) => ({
                ...{ value, count: n },
                name: kindsName(value),
              }))}
              chosen={kind}
              onChoose={(value) => change({ show: 'all', kind: value })}
            />
            <ListViewMenu view={view} onView={setView} columns={COLUMNS} />
          </div>
          <WorkList
            items={rows}
            label={wording.headings}
            idOf={(h) => h.id}
            selected={id}
            rowHeight={rowHeightOf(view)}
            ticked={mayMerge ? ticks.ids : undefined}
            onTick={mayMerge ? (h) => ticks.flip(h.id) : undefined}
            onTickAll={mayMerge ? (some) => ticks.add(some.map((h) => h.id)) : undefined}
            onOpen={(h) => void navigate(`/headings/${h.id}?${kept}`)}
            answer={list}
            empty={isQueryText(q, OF_HEADINGS) ? wording.noHeadingIsFound : wording.noHeadingHasTheseWords}
            onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
            row={(h) => <ListRow row={h} title={<HeadingTitle row={h} />} columns={COLUMNS} view={view} />}
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
              <Button size="small" data-key="d" onClick={() => setBatch('delete')}>
                {wording.deleteThese}
              </Button>
            </SelectionBar>
          ) : null}
          {batch === 'see-froms' ? (
            <BatchSheet
              title={wording.replaceSeeFromsTitle}
              batch={mergeAllBatch({ of: 'see-froms', kind })}
              onClose={() => setBatch(null)}
            />
          ) : null}
          {batch === 'delete' ? (
            <DeleteSheet headings={[...ticks.ids]} onClose={() => setBatch(null)} onDone={ticks.clear} />
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
        ) : isAdding ? (
          <AddHeading onClose={() => change({ add: undefined })} />
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
