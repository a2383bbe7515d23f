import { api, type HoldingList } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Input, Select } from 'antd';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { AreaHead } from '../../parts/AreaHead';
import { ListRow, rowHeightOf } from '../../parts/ListRow';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { Overview, OverviewSection } from '../../parts/Overview';
import { SaveButton } from '../../parts/searches/SaveButton';
import { SavedSearches } from '../../parts/searches/SavedSearches';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useSetUp } from '../setup/use-set-up';
import { CopiesPages } from './CopiesPages';
import { FIRST_HOLDINGS_VIEW, holdingColumns, HoldingTitle } from './holding-columns';
import { copiesWords as wording } from './words';

const RecordPiece = lazy(() => import('../catalogue/RecordPiece').then((m) => ({ default: m.RecordPiece })));

const EXAMPLES = [
  ['copies = 0', wording.holdingsWithoutCopies],
  ['callnumber within "630 .. 639" and status = missing', wording.holdingsOfAShelf],
] as const;

/** The holdings of the library in the order of the shelf: found by words or a query, each opened with its record. */
export default function AllHoldings() {
  const [query, change] = useAddress();
  const lists = useSetUp()?.lists.value;
  const [view, setView] = useListView('holdings', FIRST_HOLDINGS_VIEW);
  const asked = Object.fromEntries(
    ['q', 'branch', 'location'].flatMap((name) => {
      const value = query.get(name);
      return value ? [[name, value]] : [];
    }),
  );
  const list = useInfiniteQuery({
    queryKey: ['/holdings', asked],
    initialPageParam: '',
    getNextPageParam: (last: HoldingList) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam, signal }) =>
      call(api.copyLists.holdings, { query: { ...asked, after: pageParam }, signal }),
  });
  const first = list.data?.pages[0];
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const open = rows.find((r) => r.id === Number(query.get('open')));
  const columns = holdingColumns(lists);
  const count = first ? counted(first.total, 'holding') : '';
  const state = !first
    ? (list.error?.message ?? '…')
    : first.isMore
      ? wording.moreThanHoldings(count)
      : wording.holdingsFound(count);
  const pick = (key: 'branch' | 'location', label: string, of: 'branches' | 'locations') => (
    <Select<string>
      aria-label={label}
      placeholder={label}
      allowClear
      popupMatchSelectWidth={false}
      size="small"
      style={{ width: 130 }}
      value={query.get(key)}
      onChange={(value: string | undefined) => change({ [key]: value, open: undefined })}
      options={lists?.[of].map((e) => ({ value: e.code, label: e.name })) ?? []}
    />
  );
  return (
    <>
      <AreaHead name={wording.copies} state={state}>
        <CopiesPages shown="holdings" />
        <SaveButton of="holding" />
      </AreaHead>
      <WorkSplit
        share={view.isDense ? 62 : undefined}
        open={open !== undefined}
        list={
          <>
            <div className="facets copy-filters">
              <Input
                key={query.get('q') ?? ''}
                defaultValue={query.get('q') ?? ''}
                aria-label={wording.wordsOrAQuery}
                placeholder={wording.wordsOrAQuery}
                size="small"
                maxLength={500}
                autoComplete="off"
                spellCheck={false}
                allowClear
                onPressEnter={(e) =>
                  change({ q: e.currentTarget.value.trim() || undefined, open: undefined })
                }
                onClear={() => change({ q: undefined, open: undefined })}
              />
              {pick('branch', wording.branch, 'branches')}
              {pick('location', wording.location, 'locations')}
              <ListViewMenu view={view} onView={setView} columns={columns} />
            </div>
            <WorkList
              items={rows}
              label={wording.holdings}
              idOf={(r) => r.id}
              selected={open?.id ?? null}
              rowHeight={rowHeightOf(view)}
              answer={list}
              empty={wording.noHoldingMatches}
              onOpen={(r) => change({ open: String(r.id) })}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              row={(r) => <ListRow row={r} title={<HoldingTitle row={r} />} columns={columns} view={view} />}
            />
          </>
        }
        piece={
          open ? (
            <Suspense fallback={null}>
              <RecordPiece
                key={open.record}
                id={open.record}
                copy={null}
                onBack={() => change({ open: undefined })}
              />
            </Suspense>
          ) : (
            <Overview>
              <SavedSearches of="holding" />
              <OverviewSection title={wording.holdings}>
                <p>{wording.howToFindHoldings}</p>
                {EXAMPLES.map(([q, what]) => (
                  <p key={q}>
                    <Link to={`/copies/holdings?${new URLSearchParams({ q }).toString()}`}>
                      <code>{q}</code>
                    </Link>{' '}
                    <span className="faded">{what}</span>
                  </p>
                ))}
              </OverviewSection>
            </Overview>
          )
        }
      />
    </>
  );
}
