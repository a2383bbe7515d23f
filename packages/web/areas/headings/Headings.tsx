import { api, type HeadingPage, type LookAlikeGroup, type LookAlikePage } from '@osier/contract';
import { call } from '../../api/call';
import { SAME } from '@osier/core/headings';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Input } from 'antd';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { PageButtons } from '../../parts/PageButtons';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { GroupPiece } from './GroupPiece';
import { HeadingPiece } from './HeadingPiece';
import { HeadingsOverview } from './HeadingsOverview';
import './headings.css';
import { headingsWords as wording } from './words';

/** No other group has its two lowest headings. */
const groupId = ({ headings: [a, b] }: LookAlikeGroup) => (a?.id ?? 0) * 2 ** 26 + (b?.id ?? 0);

/** Authority work: names that look alike, and all headings. */
export default function Headings() {
  const { id } = useParams();
  const [query, setQuery] = useSearchParams();
  const navigate = useNavigate();
  const all = query.get('show') === 'all' || id !== undefined;
  const group = query.get('group') ? Number(query.get('group')) : null;
  const list = useInfiniteQuery({
    queryKey: ['/headings/look-alikes'],
    initialPageParam: '',
    getNextPageParam: (last: LookAlikePage) => last.next,
    queryFn: ({ pageParam }) => call(api.headings.lookAlikes, { query: { after: pageParam } }),
  });
  const groups = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const total = list.data?.pages[0]?.total ?? 0;
  const comparing = list.data?.pages[0]?.comparing ?? 0;
  const chosen = groups.find((g) => groupId(g) === group) ?? null;
  return (
    <>
      <AreaHead
        name={wording.headings}
        state={
          (total ? wording.groupsOfNamesThatMay(total.toLocaleString('en-GB')) : wording.noNamesLookAlike) +
          (comparing ? wording.namesAreStillBeingCompared(comparing.toLocaleString('en-GB')) : '')
        }
      >
        <PageButtons
          label={wording.show}
          pages={[
            ['alike', wording.lookAlikes],
            ['all', wording.allHeadings],
          ]}
          chosen={all ? 'all' : 'alike'}
          onChoose={(key) => void navigate(key === 'all' ? '/headings?show=all' : '/headings')}
        />
      </AreaHead>
      {all ? (
        <AllHeadings id={id ? Number(id) : null} />
      ) : (
        <WorkSplit
          open={chosen !== null}
          list={
            <WorkList
              items={groups}
              label={wording.lookAlikes}
              idOf={groupId}
              selected={group}
              rowHeight={52}
              answer={list}
              empty={wording.noPersonalNamesLookAlike}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              onOpen={(g) => setQuery({ group: String(groupId(g)) }, { replace: true })}
              row={(g) => (
                <>
                  <div className="one">
                    <b>
                      <bdi>{g.headings.map((h) => h.text).join('  ≈  ')}</bdi>
                    </b>
                  </div>
                  <div className="two">
                    <span className="main">
                      {wording.judgedPair(
                        wording.verdicts[g.pairs[0]!.score >= SAME ? 'same' : 'perhaps'],
                        [],
                        [g.pairs[0]!.why],
                      )}
                    </span>
                    <span>{wording.records2(g.headings.reduce((n, h) => n + h.records, 0))}</span>
                  </div>
                </>
              )}
            />
          }
          piece={
            chosen ? (
              <GroupPiece
                key={group}
                group={chosen}
                onDone={() => {
                  const next = groups[groups.indexOf(chosen) + 1] ?? groups[groups.indexOf(chosen) - 1];
                  setQuery(next ? { group: String(groupId(next)) } : {}, { replace: true });
                }}
              />
            ) : (
              <HeadingsOverview />
            )
          }
        />
      )}
    </>
  );
}

function AllHeadings({ id }: { id: number | null }) {
  const navigate = useNavigate();
  const [query, setQuery] = useSearchParams();
  const q = query.get('q') ?? '';
  const setQ = (words: string) => setQuery({ show: 'all', ...(words && { q: words }) }, { replace: true });
  const list = useInfiniteQuery({
    queryKey: ['/headings', q],
    initialPageParam: '',
    getNextPageParam: (last: HeadingPage) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) => call(api.headings.list, { query: { q, after: pageParam } }),
  });
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  return (
    <WorkSplit
      open={id !== null}
      list={
        <>
          <div className="facets">
            <Input
              aria-label={wording.findHeadings}
              placeholder={wording.wordsOfAHeading}
              value={q}
              onChange={(e) => setQ(e.target.value)}
              allowClear
            />
          </div>
          <WorkList
            items={rows}
            label={wording.headings}
            idOf={(h) => h.id}
            selected={id}
            rowHeight={32}
            onOpen={(h) =>
              void navigate(
                `/headings/${h.id}?${new URLSearchParams({ show: 'all', ...(q && { q }) }).toString()}`,
              )
            }
            answer={list}
            empty={wording.noHeadingHasTheseWords}
            onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
            row={(h) => (
              <div className="one">
                <span className="main" style={{ fontWeight: 400 }}>
                  <bdi>{h.text}</bdi>
                </span>
                <span className="faded">{h.kind}</span>
                <span className="num" style={{ minWidth: 34 }}>
                  {h.records}
                </span>
              </div>
            )}
          />
        </>
      }
      piece={id !== null ? <HeadingPiece key={id} id={id} /> : <HeadingsOverview />}
    />
  );
}
