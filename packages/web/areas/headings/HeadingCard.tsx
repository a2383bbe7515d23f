import type { SeenHeadings, ShownHeading } from '@osier/contract';
import { codeName } from '@osier/core/format';
import { Checkbox, Radio } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { headingsWords as wording } from './words';

type Seen = SeenHeadings['headings'][number];

/** What the records of a heading show of it: years, languages, roles; and its sources. */
function SeenFacts({ seen }: { seen: Seen | undefined }) {
  if (!seen) return null;
  const { years, languages, roles, sources, isPart } = seen;
  const facts = [
    years && (years.first === years.last ? String(years.first) : `${years.first}–${years.last}`),
    languages.map((code) => codeName('languages', code) ?? code).join(', '),
    roles.join(', '),
  ].filter(Boolean);
  return (
    <>
      {facts.length ? (
        <p>
          {facts.join(' · ')}
          {isPart ? wording.ofItsFirstRecords : ''}
        </p>
      ) : null}
      {sources.length ? <p className="faded">{wording.sources(sources.join('; '))}</p> : null}
    </>
  );
}

/** One of the headings that are compared: choose it to be kept, or take it out. */
export function HeadingCard({
  heading: h,
  seen,
  state,
  isFixed,
  note,
  onKeep,
  onToggle,
}: {
  heading: ShownHeading;
  seen: Seen | undefined;
  state: 'kept' | 'lost' | 'out';
  isFixed: boolean;
  note?: ReactNode;
  onKeep: () => void;
  /** Takes it out or in; absent where there are only two. */
  onToggle: (() => void) | undefined;
}) {
  return (
    <div className={state === 'lost' ? 'name-card' : `name-card ${state}`}>
      <Radio
        className="name-form"
        name="kept"
        checked={state === 'kept'}
        disabled={isFixed}
        onChange={onKeep}
      >
        <bdi>{h.text}</bdi>
      </Radio>
      <p className="faded">
        {wording.heading(state === 'kept' ? wording.keptForm : wording.becomesASeeFrom)}{' '}
        <Link to={`/headings/${h.id}`}>{h.id}</Link> ·{' '}
        {h.records === 1 ? wording.n1Record : wording.records(h.records.toLocaleString('en-GB'))} ·{' '}
        {h.isEstablished ? wording.established : wording.unestablished}
      </p>
      {note}
      {h.merging ? <p className="note caution">{wording.beingMerged}</p> : null}
      <SeenFacts seen={seen} />
      {h.seeFrom.length ? <p className="faded">{wording.seeFrom(h.seeFrom.join('; '))}</p> : null}
      <ul>
        {h.titles.map((t, i) => (
          <li key={i}>{t}</li>
        ))}
      </ul>
      {onToggle && state !== 'kept' ? (
        <Checkbox className="row" checked={state !== 'out'} onChange={onToggle}>
          {wording.merge}
        </Checkbox>
      ) : null}
    </div>
  );
}
