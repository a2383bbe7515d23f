import { api, type LookAlikeGroup, type LookAlikePage } from '@osier/contract';
import { SAME } from '@osier/core/headings';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { BatchSheet } from '../../parts/BatchSheet';
import { Facets } from '../../parts/Facets';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { GroupPiece } from './GroupPiece';
import { groupId, kindsName, vocabularyName } from './heading-names';
import { mergeAllBatch } from './merge-all-batch';
import { HeadingsOverview } from './HeadingsOverview';
import { headingsWords as wording } from './words';

type Verdict = 'same' | 'perhaps';
const verdictIn = (text: string | null): Verdict | undefined =>
  text === 'same' || text === 'perhaps' ? text : undefined;

/** What of the groups is shown: as the address says. */
function useAsked() {
  const [query, change] = useAddress();
  const asked = {
    verdict: verdictIn(query.get('verdict')),
    kind: query.get('kind') ?? undefined,
    vocabulary: query.get('vocabulary') ?? undefined,
    later: query.get('later') === 'yes' ? ('yes' as const) : undefined,
  };
  return { asked, group: query.get('group') ? Number(query.get('group')) : null, change };
}

/** The groups of look-alikes, those that are surest and touch most records first. */
export function useAlikeGroups() {
  const { asked } = useAsked();
  return useInfiniteQuery({
    queryKey: ['/headings/look-alikes', asked],
    initialPageParam: '',
    getNextPageParam: (last: LookAlikePage) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) => call(api.headings.lookAlikes, { query: { ...asked, after: pageParam } }),
  });
}

/** Groups of headings that may be one, and the one that is decided. */
export function AlikeList() {
  const { asked, group, change } = useAsked();
  const [all, setAll] = useState(false);
  const mayMerge = useMay('merge headings');
  const list = useAlikeGroups();
  const facets = list.data?.pages[0]?.facets ?? [];
  const same = facets
    .filter((f) => f.verdict === 'same' && !f.later)
    .filter(
      (f) =>
        (!asked.kind || f.kind === asked.kind) && (!asked.vocabulary || f.vocabulary === asked.vocabulary),
    )
    .reduce((n, f) => n + f.n, 0);
  const groups = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const chosen = groups.find((g) => groupId(g.headings) === group) ?? null;
  const open = (g: LookAlikeGroup | undefined) =>
    change({ group: g ? String(groupId(g.headings)) : undefined });
  const beside = () => {
    const at = chosen ? groups.indexOf(chosen) : -1;
    return groups[at + 1] ?? groups[at - 1];
  };
  return (
    <WorkSplit
      open={chosen !== null}
      list={
        <>
          <GroupFacets facets={facets} asked={asked} onChange={change} />
          {mayMerge && same > 1 && asked.verdict === 'same' && !asked.later ? (
            <div className="facets">
              <Button size="small" data-key="a" onClick={() => setAll(true)}>
                {wording.mergeAllSame(same.toLocaleString('en-GB'))}
              </Button>
            </div>
          ) : null}
          {all ? (
            <BatchSheet
              title={wording.mergeAllTitle}
              batch={mergeAllBatch({ of: 'same', kind: asked.kind, vocabulary: asked.vocabulary })}
              onClose={() => setAll(false)}
            />
          ) : null}
          <WorkList
            items={groups}
            label={wording.lookAlikes}
            idOf={(g) => groupId(g.headings)}
            selected={group}
            rowHeight={52}
            answer={list}
            empty={
              Object.values(asked).some((part) => part !== undefined)
                ? wording.noGroupsSo
                : wording.noHeadingsLookAlike
            }
            onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
            onOpen={open}
            row={(g) => (
              <>
                <div className="one">
                  <b>
                    <bdi>{g.headings.map((h) => h.text).join('  ≈  ')}</bdi>
                  </b>
                </div>
                <div className="two">
                  <span className="main">
                    {g.pairs[0]
                      ? wording.judgedPair(
                          wording.verdicts[g.pairs[0].score >= SAME ? 'same' : 'perhaps'],
                          [],
                          [g.pairs[0].why],
                        )
                      : ''}
                  </span>
                  <span>
                    {wording.records2(g.headings.reduce((n, h) => n + h.records, 0).toLocaleString('en-GB'))}
                  </span>
                </div>
              </>
            )}
          />
        </>
      }
      piece={
        chosen ? (
          <GroupPiece
            key={group}
            headings={chosen.headings}
            pairs={chosen.pairs}
            isLater={asked.later === 'yes'}
            onDone={() => open(beside())}
            onNext={() => open(beside())}
          />
        ) : (
          <HeadingsOverview />
        )
      }
    />
  );
}

type Asked = ReturnType<typeof useAsked>['asked'];
type Row = LookAlikePage['facets'][number];

/** How many groups there are of each kind, vocabulary and certainty, as they are narrowed by the others. */
function GroupFacets({
  facets,
  asked,
  onChange,
}: {
  facets: readonly Row[];
  asked: Asked;
  onChange: (parts: Readonly<Record<string, string | undefined>>) => void;
}) {
  const later = asked.later === 'yes';
  const fits = (row: Row, but: 'kind' | 'vocabulary' | 'verdict') =>
    row.later === later &&
    (['kind', 'vocabulary', 'verdict'] as const).every(
      (part) => part === but || asked[part] === undefined || row[part] === asked[part],
    );
  const counted = (part: 'kind' | 'vocabulary' | 'verdict', name: (value: string) => string) => {
    const values = [...new Set(facets.map((row) => row[part]))].sort();
    // A choice of one is none.
    if (values.length < 2 && asked[part] === undefined) return [];
    return values.map((value) => ({
      value,
      name: name(value),
      count: facets.filter((r) => r[part] === value && fits(r, part)).reduce((n, r) => n + r.n, 0),
    }));
  };
  const put = (part: string) => (value: string | undefined) => onChange({ [part]: value, group: undefined });
  const parked = facets.filter((r) => r.later).reduce((n, r) => n + r.n, 0);
  return (
    <div className="facets">
      <Facets
        label={wording.certainty}
        facets={counted('verdict', (v) => wording.verdicts[v === 'same' ? 'same' : 'perhaps']).reverse()}
        chosen={asked.verdict}
        onChoose={put('verdict')}
      />
      <Facets
        label={wording.kind}
        facets={counted('kind', kindsName)}
        chosen={asked.kind}
        onChoose={put('kind')}
      />
      <Facets
        label={wording.vocabulary}
        facets={counted('vocabulary', vocabularyName)}
        chosen={asked.vocabulary}
        onChoose={put('vocabulary')}
        most={4}
      />
      <Facets
        facets={[{ value: 'yes', name: wording.putBy, count: parked }]}
        chosen={asked.later}
        onChoose={put('later')}
      />
    </div>
  );
}
