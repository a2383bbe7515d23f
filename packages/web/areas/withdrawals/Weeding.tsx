import { api, type WeedQuery } from '@osier/contract';
import { SCHEMES } from '@osier/core/callnumbers';
import {
  candidatesIn,
  WEED_USES,
  type WeedCell,
  type WeedLimits,
  type WeedUse,
} from '@osier/core/withdrawals';
import { Button, Checkbox, Input, Select, Slider } from 'antd';
import { lazy, Suspense } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useAddress } from '../../parts/use-address';
import { useMyBranch } from '../../shell/my-branch';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { copiesWords } from '../copies/words';
import { useSetUp } from '../setup/use-set-up';
import { LoadLoanFigures } from './LoadLoanFigures';
import { nameOfToday } from './name-of-today';
import { withdrawalsWords as wording } from './words';
import { inWords } from '../../parts/format';

const BubblesChart = lazy(() => import('../../parts/charts/BubblesChart'));
const numberIn = (text: string | null): number | null => (text && /^\d{4}$/.test(text) ? Number(text) : null);

/** How many copies of a cell are candidates; none before a limit is set. */
const goingOf = (cell: WeedCell, limits: WeedLimits): number =>
  limits.publishedBefore === null && limits.usedBefore === null && !limits.spareOnly
    ? 0
    : candidatesIn(cell, limits);

/** Which shelf is looked at, and what makes a copy of it a candidate: as the address says. */
function useAsked() {
  const [query, change] = useAddress();
  const [mine] = useMyBranch();
  const text = (name: string) => query.get(name) ?? '';
  const place: WeedQuery = {
    ...{ branch: text('branch') || mine, location: text('location'), from: text('from'), to: text('to') },
    scheme: SCHEMES.find((s) => s === text('scheme')) ?? 'dewey',
    use: WEED_USES.find((u) => u === text('use')) ?? 'lent',
  };
  const limits: WeedLimits = {
    publishedBefore: numberIn(query.get('published')),
    usedBefore: numberIn(query.get('used')),
    spareOnly: query.has('spare'),
  };
  return { place, limits, change };
}
type Change = ReturnType<typeof useAsked>['change'];

/** The copies of a shelf as a picture by year of publication and when they were last seen; thresholds make candidates of them, which go to a list. */
export function Weeding() {
  const { place, limits, change } = useAsked();
  const navigate = useNavigate();
  const { say, complain } = useShell();
  const [mayPrepare, mayEditCopies] = [useMay('prepare withdrawals'), useMay('edit copies')];
  const { data: lists = [] } = useApi(api.withdrawals.lists);
  const { data, error } = useApi(api.withdrawals.weed, place.branch ? { query: place } : null);
  const cells = data?.cells ?? [];
  const all = cells.reduce((n, c) => n + c.copies, 0);
  const isLimited = limits.publishedBefore !== null || limits.usedBefore !== null || limits.spareOnly;
  const candidates = cells.reduce((n, c) => n + goingOf(c, limits), 0);
  const start = async () => {
    try {
      const name = nameOfToday(lists.map((l) => l.name));
      const made = await call(api.withdrawals.start, { body: { name, branch: place.branch, reason: '' } });
      await call(api.withdrawals.fill, { params: { id: made.id }, body: { weed: { ...place, ...limits } } });
      say(made.sentence, made.entry);
      await refresh();
      void navigate(`/withdrawals/${made.id}`);
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="register stack weeding">
      <div className="piece-head">
        <div>
          <h2>{wording.weeding}</h2>
          <p className="faded">{wording.whatWeedingIs}</p>
        </div>
        <span className="row">
          {mayEditCopies ? <LoadLoanFigures /> : null}
          {mayPrepare ? (
            <Button type="primary" disabled={candidates === 0} onClick={() => void start()}>
              {wording.startWith(inWords(candidates))}
            </Button>
          ) : null}
        </span>
      </div>
      <Place place={place} change={change} />
      {error ? <p role="alert">{error.message}</p> : null}
      {place.branch === '' ? <p className="faded">{wording.chooseABranch}</p> : null}
      {data && all === 0 ? <p className="faded">{wording.noCopyThere}</p> : null}
      {all > 0 ? (
        <>
          {place.use === 'lent' && !data?.hasLoans ? (
            <p className="note information">
              {wording.noLoansKnown}{' '}
              <Button size="small" onClick={() => change({ use: 'seen', used: undefined })}>
                {wording.goBySeen}
              </Button>
            </p>
          ) : null}
          <Limits cells={cells} limits={limits} use={place.use} change={change} />
          <p role="status">
            {isLimited
              ? wording.candidatesOf(inWords(candidates), inWords(all))
              : wording.setALimit(inWords(all))}
          </p>
          <Suspense fallback={null}>
            <Picture cells={cells} limits={limits} use={place.use} />
          </Suspense>
        </>
      ) : null}
    </div>
  );
}

function Place({ place, change }: { place: WeedQuery; change: Change }) {
  const { branches = [], locations = [] } = useSetUp()?.lists.value ?? {};
  const end = (name: 'from' | 'to', label: string) => (
    <KitField label={label} width="short">
      <Input
        // What is typed is asked for when it is done.
        key={place[name]}
        defaultValue={place[name]}
        onBlur={(e) => change({ [name]: e.target.value.trim() })}
        onPressEnter={(e) => change({ [name]: e.currentTarget.value.trim() })}
      />
    </KitField>
  );
  return (
    <KitGrid isDense>
      <KitField label={wording.branch}>
        <Select
          value={place.branch || undefined}
          placeholder={wording.chooseABranch}
          onChange={(branch) => change({ branch, location: undefined })}
          options={branches.map((b) => ({ value: b.code, label: b.name }))}
        />
      </KitField>
      <KitField label={wording.location}>
        <Select
          allowClear
          value={place.location || undefined}
          placeholder={wording.allLocations}
          onChange={(location?: string) => change({ location })}
          options={locations
            .filter((l) => l.branch === place.branch)
            .map((l) => ({ value: l.code, label: l.name }))}
        />
      </KitField>
      <KitField label={wording.scheme}>
        <Select
          value={place.scheme}
          onChange={(scheme: string) => change({ scheme: scheme === 'dewey' ? undefined : scheme })}
          options={SCHEMES.map((value) => ({ value, label: copiesWords.schemes[value] }))}
        />
      </KitField>
      <KitField label={wording.useKnownBy}>
        <Select
          value={place.use}
          onChange={(use: WeedUse) => change({ use: use === 'lent' ? undefined : use, used: undefined })}
          options={WEED_USES.map((value) => ({ value, label: wording.uses[value] }))}
        />
      </KitField>
      {end('from', wording.callNumberFrom)}
      {end('to', wording.callNumberTo)}
    </KitGrid>
  );
}

/** The years of some cells, as far as they are known: the first and the one behind the last. */
function span(cells: readonly WeedCell[], of: 'year' | 'used'): [number, number] {
  const years = cells.flatMap((c) => (c[of] ? [Number(c[of])] : []));
  return years.length ? [Math.min(...years), Math.max(...years) + 1] : [0, 0];
}

function Limits({
  cells,
  limits,
  use,
  change,
}: {
  cells: readonly WeedCell[];
  limits: WeedLimits;
  use: WeedUse;
  change: Change;
}) {
  const slider = (label: string, of: 'year' | 'used', name: 'published' | 'used', value: number | null) => {
    const [first, last] = span(cells, of);
    return (
      <KitField label={label} width="wide" help={value === null ? wording.anyYear : wording.before(value)}>
        <Slider
          min={first}
          max={last}
          value={value ?? last}
          ariaLabelForHandle={label}
          onChange={(year: number) => change({ [name]: year >= last ? undefined : String(year) })}
        />
      </KitField>
    );
  };
  return (
    <KitGrid isDense>
      {slider(wording.publishedBefore, 'year', 'published', limits.publishedBefore)}
      {slider(wording.usedBefore[use], 'used', 'used', limits.usedBefore)}
      <KitField label={wording.copies} width="wide" help={wording.spareOnlyHelp}>
        <Checkbox
          checked={limits.spareOnly}
          onChange={(e) => change({ spare: e.target.checked ? '1' : undefined })}
        >
          {wording.spareOnly}
        </Checkbox>
      </KitField>
    </KitGrid>
  );
}

function Picture({ cells, limits, use }: { cells: readonly WeedCell[]; limits: WeedLimits; use: WeedUse }) {
  const [firstUsed] = span(cells, 'used');
  // Copies that were never used stand below all years.
  const never = firstUsed === 0 ? 0 : firstUsed - 1;
  const isKnown = (c: WeedCell) => c.year !== '' && c.used !== null;
  const known = cells.filter(isKnown);
  const unknown = cells.filter((c) => !isKnown(c)).reduce((n, c) => n + c.copies, 0);
  const bubbles = (of: (c: WeedCell) => number) =>
    known.flatMap((c) => {
      const n = of(c);
      return n > 0 ? [{ x: Number(c.year), y: c.used ? Number(c.used) : never, of: n }] : [];
    });
  return (
    <>
      <BubblesChart
        caption={wording.weedingPicture[use]}
        across={wording.yearOfPublication}
        up={{
          title: wording.lastUse[use],
          tick: (year) => (year === never ? wording.never : Number.isInteger(year) ? String(year) : ''),
        }}
        series={[
          {
            name: wording.stay,
            colour: '--willow',
            bubbles: bubbles((c) => c.copies - goingOf(c, limits)),
          },
          { name: wording.candidates, colour: '--ochre', bubbles: bubbles((c) => goingOf(c, limits)) },
        ]}
      />
      {unknown ? <p className="faded">{wording.notDrawn(inWords(unknown))}</p> : null}
      <ByDecade cells={cells} limits={limits} />
    </>
  );
}

/** The same numbers as a table, a decade a line. */
function ByDecade({ cells, limits }: { cells: readonly WeedCell[]; limits: WeedLimits }) {
  const decades = new Map<string, { copies: number; candidates: number }>();
  for (const cell of cells) {
    const name = cell.year === '' ? wording.notKnown : `${cell.year.slice(0, 3)}0–`;
    const sum = decades.get(name) ?? { copies: 0, candidates: 0 };
    sum.copies += cell.copies;
    sum.candidates += goingOf(cell, limits);
    decades.set(name, sum);
  }
  return (
    <table className="plain narrow">
      <thead>
        <tr>
          <th>{wording.yearOfPublication}</th>
          <th className="num">{wording.copies}</th>
          <th className="num">{wording.candidates}</th>
        </tr>
      </thead>
      <tbody>
        {[...decades].map(([name, { copies, candidates }]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="num">{inWords(copies)}</td>
            <td className="num">{inWords(candidates)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
