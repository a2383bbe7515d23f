import { api, type LinkPage } from '@osier/contract';
import { LINK_RESULTS } from '@osier/core/links';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { AreaHead } from '../../parts/AreaHead';
import { Facets } from '../../parts/Facets';
import { Mark } from '../../parts/Mark';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useAddress } from '../../parts/use-address';
import { when } from '../../parts/when';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useJobs } from '../../shell/jobs-store';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { CataloguePages } from './CataloguePages';
import { markOfLink } from './LinkFound';
import { RecordPiece } from './RecordPiece';
import { catalogueWords as wording } from './words';

type Row = LinkPage['rows'][number] & { readonly at: number };

/** The links of all records by what was found when they were tried; the record of one is opened to correct it. */
export default function Links() {
  const [query, changeAddress] = useAddress();
  const mayTry = useMay('edit records');
  const { complain } = useShell();
  const isTrying = useJobs((s) => s.jobs.some((j) => j.kind === 'try-links'));
  const result = LINK_RESULTS.find((r) => r === query.get('result'));
  const list = useInfiniteQuery({
    queryKey: ['/web-links', result],
    initialPageParam: '',
    getNextPageParam: (last: LinkPage) => last.next,
    queryFn: ({ pageParam }) => call(api.links.list, { query: { result, after: pageParam } }),
  });
  const opened = Number(query.get('record')) || null;
  const first = list.data?.pages[0];
  const rows = (list.data?.pages.flatMap((p) => p.rows) ?? []).map((r, at): Row => ({ ...r, at }));
  const bad = (first?.counts ?? [])
    .filter(({ result: r }) => ['stop', 'caution'].includes(markOfLink(r)))
    .reduce((n, c) => n + c.n, 0);
  const tryAll = async () => {
    try {
      await call(api.links.tryAll);
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <>
      <AreaHead
        name={wording.catalogue}
        state={
          first
            ? (bad ? wording.linksToLookAt(bad) : wording.allLinksWork) +
              (first.untried ? wording.andNotTried(first.untried.toLocaleString('en-GB')) : '') +
              '.'
            : (list.error?.message ?? '…')
        }
      >
        <CataloguePages />
        {mayTry ? (
          <Button data-key="y" loading={isTrying} onClick={() => void tryAll()}>
            {isTrying ? wording.tryingLinks : wording.tryAllLinks}
          </Button>
        ) : null}
      </AreaHead>
      <WorkSplit
        open={opened !== null}
        list={
          <>
            <div className="facets">
              <Facets
                most={10}
                label={wording.linkResult}
                facets={(first?.counts ?? []).map((c) => ({
                  value: c.result,
                  name: wording.linkResults[c.result],
                  count: c.n,
                }))}
                chosen={result ?? first?.result}
                onChoose={(value) => changeAddress({ result: value, record: undefined })}
              />
            </div>
            <WorkList
              items={rows}
              label={wording.links}
              idOf={(r) => r.at}
              selected={rows.find((r) => r.record === opened)?.at ?? null}
              rowHeight={52}
              answer={list}
              empty={wording.noLinkHere}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              onOpen={(r) => changeAddress({ record: String(r.record) })}
              row={(r) => (
                <>
                  <div className="one">
                    <Mark kind={markOfLink(r.found.result)} name={wording.linkResults[r.found.result]} />
                    <b>
                      <bdi>{r.title}</bdi>
                    </b>
                    <span className="faded">{wording.triedOn(when(r.found.at))}</span>
                  </div>
                  <div className="two">
                    <span className="main">{r.url}</span>
                    <span>{r.found.movedTo}</span>
                  </div>
                </>
              )}
            />
          </>
        }
        piece={
          opened ? (
            <RecordPiece
              key={opened}
              id={opened}
              copy={null}
              onBack={() => changeAddress({ record: undefined })}
            />
          ) : (
            <Overview>
              <OverviewSection title={wording.links}>
                <p>{wording.whatTryingLinksDoes}</p>
                <p className="faded">{wording.openTheRecordToCorrect}</p>
              </OverviewSection>
            </Overview>
          )
        }
      />
    </>
  );
}
