import {
  api,
  COPY_ORDERS,
  copySearchBody,
  MOST_FOUND_FOR_A_LIST,
  type CopyList,
  type CopyListRow,
  type CopySearch,
} from '@osier/contract';
import { counted } from '@osier/core/changes';
import { DownloadOutlined } from '@ant-design/icons';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { AreaHead } from '../../parts/AreaHead';
import { BatchSheet, type BatchAct } from '../../parts/BatchSheet';
import { ListRow, rowHeightOf } from '../../parts/ListRow';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { useLocalFields } from '../../parts/local-fields';
import { Mark } from '../../parts/Mark';
import { PutOnPile } from '../../parts/PutOnPile';
import { SelectionBar } from '../../parts/SelectionBar';
import { useTicks } from '../../parts/ticks';
import { SaveButton } from '../../parts/searches/SaveButton';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { useSetUp } from '../setup/use-set-up';
import { ChangeCopies } from './ChangeCopies';
import { copyColumns, FIRST_VIEW, ORDERS } from './copy-columns';
import { CopyFilters, filtersIn } from './CopyFilters';
import { CopiesOverview } from './CopiesOverview';
import { CopiesPages } from './CopiesPages';
import { ToWithdrawals } from './ToWithdrawals';
import { ActionMenu } from '../../parts/ActionMenu';
import { copiesWords as wording } from './words';

const RecordPiece = lazy(() => import('../catalogue/RecordPiece').then((m) => ({ default: m.RecordPiece })));

const FORMATS = [
  ['as=csv', wording.asTable],
  ['as=iso2709', wording.asIso2709],
  ['as=marcxml', wording.asMarcXml],
  ['as=iso2709&holdings=apart', wording.asHoldingsApart],
] as const;

/** The copies of the library as a list: found, sorted, opened with their record, and changed together. */
export default function AllCopies() {
  const [query, changeAddress] = useAddress();
  const navigate = useNavigate();
  const lists = useSetUp()?.lists.value;
  const values = filtersIn(query);
  const order = COPY_ORDERS.find((o) => o === query.get('sort')) ?? 'shelf';
  const down = query.get('down') === 'yes' ? ('yes' as const) : undefined;
  const [view, setView] = useListView('copies', FIRST_VIEW);
  const ticks = useTicks('copies');
  const [editing, setEditing] = useState<CopySearch | null>(null);
  const [piling, setPiling] = useState<CopySearch | null>(null);
  const [batch, setBatch] = useState<BatchAct | null>(null);
  const mayChange = useMay('edit copies');
  const mayPile = useMay('keep piles');
  const search = copySearchBody.cast(values);
  const { copies: _, ...asked } = search;
  const list = useInfiniteQuery({
    queryKey: ['/copies', values, order, down],
    initialPageParam: '',
    getNextPageParam: (last: CopyList) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) =>
      call(api.copyLists.list, { query: { ...asked, sort: order, down, after: pageParam } }),
  });
  const first = list.data?.pages[0];
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const opened = Number(query.get('open')) || null;
  const open = rows.find((r) => r.id === opened);
  const chosen = copySearchBody.cast({ copies: [...ticks.ids] });
  const columns = copyColumns(lists, useLocalFields());
  const state = !first
    ? (list.error?.message ?? '…')
    : first.isMore
      ? wording.moreThanCopies(counted(first.total, 'copy', 'copies'))
      : wording.copiesFound(counted(first.total, 'copy', 'copies'));
  const exported = new URLSearchParams(Object.entries(values)).toString();
  return (
    <>
      <AreaHead name={wording.copies} state={state}>
        <CopiesPages shown="all" />
        {mayChange && first && first.total > 0 ? (
          <Button data-key="c" onClick={() => setEditing(search)}>
            {wording.changeAllFound}
          </Button>
        ) : null}
        {mayPile && first && first.total > 0 ? (
          <Button data-key="p" onClick={() => setPiling(search)}>
            {wording.addToPile}
          </Button>
        ) : null}
        {first && first.total > 0 && Object.keys(values).length > 0 ? (
          <>
            <Button
              data-key="x"
              onClick={() =>
                void navigate(`/copies/labels?${new URLSearchParams({ found: 'yes', ...values }).toString()}`)
              }
            >
              {wording.printLabels}
            </Button>
            <ToWithdrawals found={search} isTooMany={first.isMore || first.total > MOST_FOUND_FOR_A_LIST} />
          </>
        ) : null}
        <ActionMenu
          menu={{
            items: FORMATS.map(([key, name]) => ({
              key,
              label: <a href={`/api/copies/export?${exported ? `${exported}&` : ''}${key}`}>{name}</a>,
            })),
          }}
        >
          <Button icon={<DownloadOutlined />}>{wording.exportThem}</Button>
        </ActionMenu>
        <SaveButton of="copy" />
      </AreaHead>
      <WorkSplit
        share={62}
        open={open !== undefined}
        list={
          <>
            <div className="facets copy-filters">
              <CopyFilters
                values={values}
                onChange={(parts) => changeAddress({ ...parts, open: undefined })}
              />
              <ListViewMenu
                view={view}
                onView={setView}
                columns={columns}
                order={down ? `${order} down` : order}
                orders={ORDERS.flatMap(([key, name]) => [
                  [key, name] as const,
                  [`${key} down`, wording.lastFirst(name)] as const,
                ])}
                onOrder={(key) =>
                  changeAddress({
                    sort: key.startsWith('shelf') ? undefined : key.replace(' down', ''),
                    down: key.endsWith(' down') ? 'yes' : undefined,
                  })
                }
              />
            </div>
            <WorkList
              items={rows}
              label={wording.copies}
              idOf={(r: CopyListRow) => r.id}
              selected={opened}
              onOpen={(r) => changeAddress({ open: String(r.id) })}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              answer={list}
              empty={wording.noCopyMatches}
              rowHeight={rowHeightOf(view)}
              ticked={ticks.ids}
              onTick={(r) => ticks.flip(r.id)}
              onTickAll={(some) => ticks.add(some.map((r) => r.id))}
              row={(r) => (
                <ListRow
                  row={r}
                  title={
                    <>
                      {r.isUnread ? (
                        <span title={wording.unread}>
                          <Mark kind="caution" />{' '}
                        </span>
                      ) : null}
                      <bdi>{r.title}</bdi>
                    </>
                  }
                  columns={columns}
                  view={view}
                />
              )}
            />
            <SelectionBar ticks={ticks}>
              {mayChange ? (
                <Button size="small" onClick={() => setEditing(chosen)}>
                  {wording.changeThem}
                </Button>
              ) : null}
              {mayPile ? (
                <Button size="small" onClick={() => setPiling(chosen)}>
                  {wording.addToPile}
                </Button>
              ) : null}
              <Button
                size="small"
                onClick={() => void navigate(`/copies/labels?copies=${[...ticks.ids].join(',')}`)}
              >
                {wording.printLabels}
              </Button>
            </SelectionBar>
          </>
        }
        piece={
          open ? (
            <Suspense fallback={null}>
              <RecordPiece
                key={open.record}
                id={open.record}
                copy={open.id}
                onBack={() => changeAddress({ open: undefined })}
              />
            </Suspense>
          ) : (
            <CopiesOverview found={values} />
          )
        }
      />
      {piling && first ? (
        <PutOnPile
          copies={piling}
          count={piling.copies?.length ?? first.total}
          onDone={piling.copies ? ticks.clear : undefined}
          onClose={() => setPiling(null)}
        />
      ) : null}
      {editing ? (
        <ChangeCopies
          what={
            editing.copies || !first?.isMore
              ? counted(editing.copies?.length ?? first?.total ?? 0, 'copy', 'copies')
              : wording.allCopiesFound
          }
          onClose={() => setEditing(null)}
          onReview={(edits) => {
            const body = { ...editing, edits };
            setEditing(null);
            setBatch({
              key: ['change copies', body],
              review: (from) => call(api.copyLists.reviewChange, { body: { ...body, from } }),
              begin: (leaveOut, token) =>
                call(api.copyLists.change, { body: { ...body, leaveOut: [...leaveOut], token } }),
            });
          }}
        />
      ) : null}
      {batch ? (
        <BatchSheet title={wording.changeCopies} batch={batch} onClose={() => setBatch(null)} />
      ) : null}
    </>
  );
}
