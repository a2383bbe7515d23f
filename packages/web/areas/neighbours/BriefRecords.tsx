import { api, BRIEF_LISTS, type BriefList, type BriefPage } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { Facets } from '../../parts/Facets';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useAddress } from '../../parts/use-address';
import { when } from '../../parts/when';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useJobs } from '../../shell/jobs-store';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { BriefPiece } from './BriefPiece';
import { neighboursWords as wording } from './words';

/** What needs somebody first. */
const IN_ORDER: readonly BriefList[] = ['offered', 'long', 'waiting', 'refused'];

/** Brief records by how they stand; the one that is open beside the full record that is offered for it. */
export function BriefRecords() {
  const [query, changeAddress] = useAddress();
  const { complain } = useShell();
  const mayAsk = useMay('take in deliveries');
  const isAsking = useJobs((s) => s.jobs.some((j) => j.kind === 'grow-brief-records'));
  const asked = BRIEF_LISTS.find((l) => l === query.get('list'));
  const counts = useInfiniteQuery({
    queryKey: ['/brief-records', asked ?? ''],
    initialPageParam: '',
    getNextPageParam: (last: BriefPage) => last.next,
    queryFn: ({ pageParam }) => call(api.briefRecords.list, { query: { list: asked, after: pageParam } }),
  });
  const first = counts.data?.pages[0];
  const rows = counts.data?.pages.flatMap((p) => p.rows) ?? [];
  const opened = Number(query.get('record')) || null;
  const ask = async () => {
    try {
      await call(api.briefRecords.ask);
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <WorkSplit
      share={36}
      open={opened !== null}
      list={
        <>
          {mayAsk ? (
            <div className="row list-act">
              <Button type="primary" data-key="a" loading={isAsking} onClick={() => void ask()}>
                {isAsking ? wording.askingForThem : wording.askNow} <kbd>a</kbd>
              </Button>
            </div>
          ) : null}
          <div className="facets">
            <Facets
              label={wording.briefLists}
              facets={IN_ORDER.map((value) => ({
                value,
                name: value === 'long' ? wording.waitingLong(first?.days ?? 0) : wording.briefStates[value],
                count: first?.counts[value] ?? 0,
              }))}
              chosen={first?.list}
              onChoose={(list) => changeAddress({ list, record: undefined })}
            />
          </div>
          <WorkList
            items={rows}
            label={wording.briefRecords}
            idOf={(r) => r.record}
            selected={opened}
            rowHeight={66}
            answer={counts}
            empty={wording.noBriefRecord}
            onEnd={() => counts.hasNextPage && !counts.isFetchingNextPage && void counts.fetchNextPage()}
            onOpen={(r) => changeAddress({ record: String(r.record) })}
            row={(r) => (
              <>
                <div className="one">
                  <b>
                    <bdi>{r.title}</bdi>
                  </b>
                  <span className="faded">{r.year}</span>
                </div>
                <div className="two">
                  <span className="main">{r.author}</span>
                  <span>{wording.waitsSince(r.since)}</span>
                </div>
                <div className="two">
                  <span className="main">{r.reason || wording.neverAsked}</span>
                </div>
              </>
            )}
          />
        </>
      }
      piece={
        opened ? (
          <BriefPiece
            key={opened}
            id={opened}
            onDone={() => {
              const at = rows.findIndex((r) => r.record === opened);
              const next = rows[at + 1] ?? rows[at - 1];
              changeAddress({ record: next && String(next.record) });
            }}
            onBack={() => changeAddress({ record: undefined })}
          />
        ) : (
          <Overview>
            <OverviewSection title={wording.howBriefRecordsGrow}>
              <ol>
                {wording.briefSteps.map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
              <p className="faded">
                {first?.isAskedAtNight === false ? wording.notAskedAtNight : wording.askedAtNight}
                {rows[0]?.asked ? ` ${wording.lastAsked(when(rows[0].asked))}` : ''}
              </p>
            </OverviewSection>
          </Overview>
        )
      }
    />
  );
}
