import { api, type DeliveryRow, type IncomingPage, type JobState } from '@osier/contract';
import { call } from '../../api/call';
import type { Outcome } from '@osier/core/matching';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useAddress } from '../../parts/use-address';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { AreaHead } from '../../parts/AreaHead';
import { Facets } from '../../parts/Facets';
import { Mark } from '../../parts/Mark';
import { DecisionSelect } from './DecisionSelect';
import { SelectionBar } from '../../parts/SelectionBar';
import { useTicks } from '../../parts/ticks';
import { ListRow, rowHeightOf } from '../../parts/ListRow';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useJobs } from '../../shell/jobs-store';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { BatchSheet } from '../../parts/BatchSheet';
import { acceptBatch, cleanBatch, fixBatch, takeBackBatch, type DeliveryBatch } from './batches';
import { DeliveryCounts } from './DeliveryCounts';
import { DeliverySettingsSheet } from './DeliverySettings';
import { FindingsChart } from './FindingsChart';
import { FindingKinds } from './FindingKinds';
import { COLUMNS, FIRST_VIEW } from './incoming-columns';
import { IncomingPiece } from './IncomingPiece';
import './deliveries.css';
import { deliveriesWords as wording } from './words';

const FACETS: readonly (readonly [string, string])[] = [
  ['waiting', 'waiting'],
  ['ask', wording.toDecide],
  ['problem', wording.hasAProblem],
  ['add', wording.toAdd],
  ['replace', wording.toReplace],
  ['merge', wording.toMerge],
  ['copies', wording.copiesOnly],
  ['skip', wording.toSkip],
  ['held', wording.alreadyHeld],
  ['twice', wording.twiceInTheFile],
  ['copies_yes', wording.hasCopies],
  ['copies_no', wording.noCopies],
  ['noted', wording.hasANote],
  ['clear', wording.nothingToCheck],
  ['errors', 'errors'],
  ['warnings', 'warnings'],
  ['repaired', wording.repairedInReading],
  ['accepted', 'accepted'],
  ['skipped', 'skipped'],
];

/** Facets under which nothing waits, so that nothing can be decided. */
const DONE_FACETS = ['accepted', 'skipped'];
const ruleOf = (facet: string | undefined) => (facet?.startsWith('rule:') ? facet.slice(5) : undefined);

/** One delivery: its records as a work list, each with what is wrong and what is held; clean, then accept. */
export default function Delivery() {
  const id = Number(useParams().id);
  const [query, set] = useAddress();
  const facet = query.get('facet') ?? undefined;
  const open = query.get('record') ? Number(query.get('record')) : null;
  const { data: delivery, error } = useApi(api.deliveries.read, { params: { id } });
  const { data: summary } = useApi(api.deliveries.summary, { params: { id } });
  const [settingsOpen, setSettingsOpen] = useState(false);
  const { say, complain } = useShell();
  const job = useJobs((s) => s.jobs.find((j) => j.work.delivery === id));
  const { data: recipes = [] } = useApi(api.recipes.list);
  const [recipeId, setRecipeId] = useState('house-style');
  const recipe = recipes.find((r) => r.id === recipeId) ?? { id: 'house-style', name: wording.houseStyle };
  const [sheet, setSheet] = useState<DeliveryBatch | null>(null);
  const mayTake = useMay('take in deliveries');
  const list = useInfiniteQuery({
    queryKey: ['/deliveries', id, 'incoming', facet, delivery?.state],
    initialPageParam: 0,
    getNextPageParam: (last: IncomingPage) => last.next,
    enabled: delivery !== undefined,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) =>
      call(api.deliveries.incoming, { params: { id }, query: { facet, after: pageParam } }),
  });
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const { facets: counts = {}, ready = 0 } = list.data?.pages[0] ?? {};
  const ticks = useTicks(`delivery ${id}`);
  const [view, setView] = useListView('incoming', FIRST_VIEW);
  const decideSelected = async (decision: Outcome) => {
    const incoming = [...ticks.ids];
    try {
      const done = await call(api.deliveries.decide, {
        params: { id },
        body: { incoming, decision },
      });
      ticks.clear();
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const decideAll = async (decision: Outcome) => {
    try {
      await call(api.deliveries.decideAll, { params: { id }, body: { facet: facet ?? 'waiting', decision } });
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const canDecide = mayTake && !job;
  if (error) return <AreaHead name={wording.delivery2} state={error.message} />;
  if (!delivery) return <AreaHead name={wording.delivery2} state="…" />;
  return (
    <>
      <AreaHead name={delivery.name} state={stateOf(delivery, job)}>
        <span className="row">
          {delivery.accepted > 0 ? (
            <>
              <Link to={`/deliveries/${id}/report`}>{wording.report}</Link>
              <Link to={`/catalogue?delivery=${id}`}>{wording.inTheCatalogue}</Link>
              {summary && summary.copies.made > 0 ? (
                <Link to={`/copies/labels?delivery=${id}`}>{wording.printLabels}</Link>
              ) : null}
            </>
          ) : null}
          {summary ? (
            <Button size="small" className="fix" onClick={() => setSettingsOpen(true)}>
              {summary.sheet ? wording.sheet(summary.sheet.name) : wording.noSupplierSheet}
            </Button>
          ) : null}
          {mayTake && !job && delivery.accepted + delivery.skipped > 0 ? (
            <Button size="small" className="fix" onClick={() => setSheet(takeBackBatch(id))}>
              {wording.undoAcceptingRecords((delivery.accepted + delivery.skipped).toLocaleString('en-GB'))}
            </Button>
          ) : null}
        </span>
        {mayTake && delivery.waiting > 0 ? (
          <>
            {recipes.length > 1 ? (
              <Select
                aria-label={wording.recipeToCleanWith}
                value={recipe.id}
                onChange={setRecipeId}
                popupMatchSelectWidth={false}
                options={recipes.map((r) => ({ value: r.id, label: r.name }))}
              />
            ) : null}
            <Button data-key="c" disabled={!!job} onClick={() => setSheet(cleanBatch(id, recipe.id))}>
              {wording.cleanWith(recipe.name)}
            </Button>
            {acceptable(counts) + (counts.skip ?? 0) > 0 ? (
              <Button type="primary" data-key="a" disabled={!!job} onClick={() => setSheet(acceptBatch(id))}>
                {wording.acceptRecords(acceptable(counts).toLocaleString('en-GB'))}
              </Button>
            ) : null}
          </>
        ) : null}
      </AreaHead>
      {delivery.state === 'failed' || delivery.state === 'cancelled' ? (
        <p className="note stop" role="alert" style={{ margin: 16 }}>
          <Mark kind="stop" /> {delivery.problem}
        </p>
      ) : null}
      {delivery.sameAs ? (
        <p className="note caution" style={{ margin: '8px 16px 0' }}>
          <Mark kind="caution" /> {wording.thisIsTheSameFile(delivery.sameAs.id, delivery.sameAs.name)}
        </p>
      ) : null}
      <WorkSplit
        open={open !== null}
        list={
          <>
            <div className="facets flows">
              {ruleOf(facet) ? (
                <Button size="small" className="fix" onClick={() => set({ facet: undefined })}>
                  {wording.filteredByOneKindOf}
                </Button>
              ) : null}
              {open !== null ? (
                <Button size="small" className="fix" onClick={() => set({ record: undefined })}>
                  {wording.findingsByKind}
                </Button>
              ) : null}
              <Facets
                facets={FACETS.map(([value, name]) => ({ value, name, count: counts[value] ?? 0 }))}
                chosen={facet}
                onChoose={(f) => set({ facet: f })}
              />
              {mayTake &&
              !job &&
              !DONE_FACETS.includes(facet ?? '') &&
              delivery.waiting > 0 &&
              rows.length > 0 ? (
                <DecisionSelect
                  label={wording.decideForAllThatAre}
                  placeholder={wording.forAllChoose(facet ? wording.listed : wording.waiting)}
                  onChoose={(o) => void decideAll(o)}
                />
              ) : null}
              {canDecide && facet && ready > 0 ? (
                <Button
                  size="small"
                  className="fix"
                  data-key="o"
                  onClick={() => setSheet(acceptBatch(id, facet))}
                >
                  {wording.acceptListed(ready.toLocaleString('en-GB'))}
                </Button>
              ) : null}
              <ListViewMenu view={view} onView={setView} columns={COLUMNS} />
            </div>
            <WorkList
              items={rows}
              label={wording.incomingRecords}
              idOf={(r) => r.id}
              selected={open}
              onOpen={(r) => set({ record: String(r.id) })}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              answer={list}
              empty={delivery.state === 'reading' ? wording.theFileIsBeingRead : wording.noRecordHere}
              rowHeight={rowHeightOf(view)}
              row={(r) => <ListRow row={r} title={<bdi>{r.title}</bdi>} columns={COLUMNS} view={view} />}
              ticked={canDecide ? ticks.ids : undefined}
              onTick={canDecide ? (r) => ticks.flip(r.id) : undefined}
              onTickAll={canDecide ? (all) => ticks.add(all.map((r) => r.id)) : undefined}
            />
            <SelectionBar ticks={ticks}>
              <DecisionSelect
                label={wording.decideForTheSelected}
                placeholder={wording.decide}
                onChoose={(o) => void decideSelected(o)}
              />
            </SelectionBar>
          </>
        }
        piece={
          open !== null ? (
            <IncomingPiece key={open} delivery={id} id={open} onBack={() => set({ record: undefined })} />
          ) : (
            <div className="stack">
              {summary ? <DeliveryCounts summary={summary} /> : null}
              {summary && summary.findings.length > 0 ? <FindingsChart findings={summary.findings} /> : null}
              <FindingKinds
                delivery={id}
                chosen={ruleOf(facet)}
                onChoose={(rule) => set({ facet: rule && `rule:${rule}` })}
                onFix={
                  mayTake && delivery.waiting > 0 && !job
                    ? (rules) => setSheet(fixBatch(id, rules))
                    : undefined
                }
              />
            </div>
          )
        }
      />
      {settingsOpen && summary ? (
        <DeliverySettingsSheet
          name={delivery.name}
          summary={summary}
          mayChange={mayTake && !job}
          onClose={() => setSettingsOpen(false)}
        />
      ) : null}
      {sheet ? (
        <BatchSheet
          title={`${sheet.name} ${delivery.name}`}
          batch={sheet.batch}
          onClose={() => setSheet(null)}
        />
      ) : null}
    </>
  );
}

/** Records that are decided and have nothing in their way. */
const acceptable = (counts: Record<string, number>) => counts.ready ?? 0;

function stateOf(d: DeliveryRow, job: JobState | undefined): string {
  if (job)
    return `${job.title}: ${job.done.toLocaleString('en-GB')}${job.total ? wording.of(job.total.toLocaleString('en-GB')) : ''}…`;
  const parts = [
    wording.records(d.records.toLocaleString('en-GB')),
    d.waiting ? wording.waiting2(d.waiting) : wording.noneWaiting,
  ];
  if (d.accepted) parts.push(`${d.accepted} accepted`);
  if (d.skipped) parts.push(`${d.skipped} skipped`);
  if (d.repaired) parts.push(`${d.repaired} repaired in reading`);
  if (d.unreadable) parts.push(`${d.unreadable} could not be read`);
  return `${parts.join(', ')}.`;
}
