import { api, type AlikeGroupRow, type AlikePage } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from '../../api/call';
import { AreaHead } from '../../parts/AreaHead';
import { Mark } from '../../parts/Mark';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { CataloguePages } from './CataloguePages';
import { MergePiece } from './MergePiece';
import { catalogueWords as wording } from './words';

const firstOf = (g: AlikeGroupRow) => g.records[0]?.id ?? 0;

/** Records of the catalogue that may be one title: the groups, the surest first, and the merging of one. */
export default function AlikeRecords() {
  const [query, changeAddress] = useAddress();
  const group = Number(query.get('group')) || null;
  const list = useInfiniteQuery({
    queryKey: ['/records/alike'],
    initialPageParam: '',
    getNextPageParam: (last: AlikePage) => last.next,
    queryFn: ({ pageParam }) => call(api.desk.alike, { query: { after: pageParam } }),
  });
  const groups = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const first = list.data?.pages[0];
  const chosen = groups.find((g) => firstOf(g) === group) ?? null;
  const go = (to: AlikeGroupRow | undefined) =>
    changeAddress({ group: to ? String(firstOf(to)) : undefined });
  return (
    <>
      <AreaHead
        name={wording.catalogue}
        state={
          !first
            ? (list.error?.message ?? '…')
            : (first.total ? wording.groupsOfRecords(first.total) : wording.noRecordsLookAlike) +
              (first.comparing ? wording.stillCompared(first.comparing.toLocaleString('en-GB')) : '')
        }
      >
        <CataloguePages />
      </AreaHead>
      <WorkSplit
        open={chosen !== null}
        share={32}
        list={
          <WorkList
            items={groups}
            label={wording.lookAlikes}
            idOf={firstOf}
            selected={group}
            rowHeight={52}
            answer={list}
            empty={wording.noRecordsLookAlike}
            onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
            onOpen={go}
            row={(g) => (
              <>
                <div className="one">
                  <Mark
                    kind={g.sure ? 'caution' : 'information'}
                    name={g.sure ? wording.surelyTheSame : wording.perhapsTheSame}
                  />
                  <b>
                    <bdi>{g.records[0]?.title}</bdi>
                  </b>
                </div>
                <div className="two">
                  <span className="main">{g.pairs[0]?.why}</span>
                  <span>{g.records.map((r) => r.id).join(', ')}</span>
                </div>
              </>
            )}
          />
        }
        piece={
          chosen ? (
            <MergePiece
              key={group}
              group={chosen}
              onBack={() => go(undefined)}
              onDone={() => go(groups[groups.indexOf(chosen) + 1] ?? groups[groups.indexOf(chosen) - 1])}
            />
          ) : (
            <Overview>
              <OverviewSection title={wording.lookAlikes}>
                <p>{wording.whatLookAlikesAre}</p>
                <p className="faded">{wording.howTheyAreFound}</p>
              </OverviewSection>
            </Overview>
          )
        }
      />
    </>
  );
}
