import { ArrowRightOutlined } from '@ant-design/icons';
import { api, recordIn, type DaybookDetail, type DaybookPage } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { Link, useNavigate, useParams } from 'react-router';
import { useAddress } from '../../parts/use-address';
import { RequestProblem } from '../../api/request';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { Compare } from '../../parts/Compare';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useShell } from '../../shell/shell-store';
import { counted } from '@osier/core/changes';
import { ACT_AREAS, ACT_NAMES } from '@osier/core/acts';
import { EntryFilters, FILTERS, type Filters } from './EntryFilters';
import { entriesOf } from './entries';
import { spanOf } from './span-of';
import { when } from '../../parts/when';
import { DaybookOverview } from './DaybookOverview';
import './daybook.css';
import { daybookWords as wording } from './words';

/** Everything that was done, newest first, each with its changes and the way back. */
export default function Daybook() {
  const { id } = useParams();
  const navigate = useNavigate();
  const [query, narrow] = useAddress();
  const filters: Filters = Object.fromEntries(FILTERS.map((key) => [key, query.get(key) ?? undefined]));
  const isNarrowed = FILTERS.some((key) => filters[key]);
  const list = useInfiniteQuery({
    queryKey: ['/daybook', 'pages', filters],
    initialPageParam: 0,
    getNextPageParam: (last: DaybookPage) => last.next ?? undefined,
    placeholderData: (before) => before,
    retry: false,
    queryFn: ({ pageParam }) =>
      entriesOf({
        before: pageParam || undefined,
        person: filters.person ? Number(filters.person) : undefined,
        area: ACT_AREAS.find((a) => a === filters.area),
        act: ACT_NAMES.find((a) => a === filters.act),
        ...{ ...spanOf(filters.from, filters.to), object: filters.object },
      }),
  });
  const problem = list.error instanceof RequestProblem ? list.error.message : null;
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  return (
    <>
      <AreaHead
        name={wording.daybook}
        state={wording.everyActCanBeUndone(
          list.hasNextPage ? wording.moreThanEntries(rows.length) : counted(rows.length, 'entry', 'entries'),
          isNarrowed ? wording.found : '',
        )}
      />
      <WorkSplit
        open={id !== undefined}
        list={
          <>
            <EntryFilters filters={filters} problem={problem} onChange={narrow} />
            <WorkList
              items={problem ? [] : rows}
              label={wording.entries}
              idOf={(r) => r.id}
              selected={id ? Number(id) : null}
              onOpen={(r) => void navigate(`/daybook/${r.id}${query.size ? `?${query.toString()}` : ''}`)}
              answer={list}
              empty={
                problem
                  ? wording.correctTheFilterAbove
                  : isNarrowed
                    ? wording.noEntriesMatchRemoveA
                    : wording.nothingHasBeenDoneYet
              }
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              row={(r) => (
                <>
                  <div className="one">
                    <span className="main" style={r.undoneBy ? { textDecoration: 'line-through' } : {}}>
                      {r.sentence}
                    </span>
                  </div>
                  <div className="two">
                    <span>{r.id}</span>
                    <span className="main">{r.person}</span>
                    <span>{when(r.at)}</span>
                  </div>
                </>
              )}
            />
          </>
        }
        piece={id ? <Entry id={Number(id)} /> : <DaybookOverview />}
      />
    </>
  );
}

function Entry({ id }: { id: number }) {
  const { data, error } = useApi(api.daybook.read, { params: { id } });
  const undo = useShell((s) => s.undo);
  if (error) return <p role="alert">{error.message}</p>;
  if (!data) return null;
  return (
    <div className="stack">
      <div className="row spread">
        <h2>{data.sentence}</h2>
        {data.undoable ? (
          <Button data-key="u" onClick={() => undo(data.id)}>
            {wording.undo}
          </Button>
        ) : null}
      </div>
      <p className="faded">
        {wording.entry(data.id, data.person, when(data.at))}
        {data.undoneBy ? (
          <>
            {wording.undoneBy} <Link to={`/daybook/${data.undoneBy}`}>{wording.entry2(data.undoneBy)}</Link>
          </>
        ) : null}
        {data.undoes ? (
          <>
            {wording.undoes} <Link to={`/daybook/${data.undoes}`}>{wording.entry3(data.undoes)}</Link>
          </>
        ) : null}
      </p>
      {data.changes.map((c) => (
        <ChangeBlock key={`${c.kind}${c.id}`} change={c} />
      ))}
      {data.more ? <p className="faded">{wording.andMoreChanges(data.more)}</p> : null}
    </div>
  );
}

function ChangeBlock({ change: c }: { change: DaybookDetail['changes'][number] }) {
  const [before, after] = [recordIn(c.before), recordIn(c.after)];
  const verb = c.before === null ? 'made' : c.after === null ? 'removed' : 'changed';
  const link =
    c.kind === 'record' && c.after ? `/catalogue/${c.id}` : c.kind === 'heading' ? `/headings/${c.id}` : null;
  return (
    <div className="change-block">
      <p>
        <b>
          {c.kind} {c.id}
        </b>{' '}
        {verb}: {link ? <Link to={link}>{c.label}</Link> : c.label}
      </p>
      {before && after ? <Compare before={before} after={after} /> : null}
      {!before && !after && c.before && c.after ? (
        <Values before={{ ...c.before }} after={{ ...c.after }} />
      ) : null}
    </div>
  );
}

/** The name of an attribute as words: lastSeen is "last seen". */
const asWords = (name: string) => name.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

function Values({ before, after }: { before: Record<string, unknown>; after: Record<string, unknown> }) {
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (k) => JSON.stringify(before[k]) !== JSON.stringify(after[k]),
  );
  const text = (v: unknown) => (typeof v === 'string' ? v || '–' : JSON.stringify(v));
  return (
    <>
      {keys.map((k) => (
        <p key={k} className="before-after">
          {asWords(k)}: <del className="lost">{text(before[k])}</del>{' '}
          <ArrowRightOutlined aria-label={wording.becomes} /> <ins className="new">{text(after[k])}</ins>
        </p>
      ))}
    </>
  );
}
