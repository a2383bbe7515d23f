import { api, type NeighbourTrial } from '@osier/contract';
import type { Neighbour, NeighbourIndexes } from '@osier/core/neighbours';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { KitSection } from '../../parts/form/KitField';
import { Mark } from '../../parts/Mark';
import { neighbourWords as wording } from './neighbour-words';

/** Tries a neighbour as it is typed: whether it answers, what it says of itself, what it finds. */
export function TryNeighbour({
  body,
  onIndexes,
}: {
  body: {
    readonly neighbour: Omit<Neighbour, 'secret' | 'materials'> & { readonly materials: string[] };
    readonly password: string | null;
    readonly of: number | null;
  };
  onIndexes: (indexes: NeighbourIndexes) => void;
}) {
  const [text, setText] = useState('');
  const [isTrying, setTrying] = useState(false);
  const [trial, setTrial] = useState<NeighbourTrial | null>(null);
  const [problem, setProblem] = useState('');
  const attempt = async () => {
    setTrying(true);
    setProblem('');
    try {
      setTrial(await call(api.neighbours.tryOut, { body: { ...body, text } }));
    } catch (e) {
      setTrial(null);
      setProblem(problemText(e));
    } finally {
      setTrying(false);
    }
  };
  return (
    <KitSection title={wording.tryIt}>
      <div className="row">
        <Input
          aria-label={wording.trySearching}
          placeholder={wording.trySearchingExample}
          style={{ maxWidth: 340 }}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onPressEnter={() => void attempt()}
        />
        <Button data-key="t" loading={isTrying} onClick={() => void attempt()}>
          {wording.tryIt} <kbd>t</kbd>
        </Button>
      </div>
      <div role="status" className="stack try-result">
        {problem ? <p className="field-problem">{problem}</p> : null}
        {trial ? <Trial trial={trial} onIndexes={onIndexes} /> : null}
      </div>
    </KitSection>
  );
}

function Trial({
  trial: { message, isGood, explained, told, titles, milliseconds },
  onIndexes,
}: {
  trial: NeighbourTrial;
  onIndexes: (indexes: NeighbourIndexes) => void;
}) {
  return (
    <div className={isGood ? 'note stack' : 'note caution stack'}>
      <p>
        <Mark kind={isGood ? 'clear' : 'stop'} name="" /> {message}{' '}
        <span className="faded">{wording.tookSeconds((milliseconds / 1000).toFixed(1))}</span>
      </p>
      {told.map((t) => (
        <p key={t}>{t}</p>
      ))}
      {titles.length ? (
        <ul className="try-titles">
          {titles.map((title, i) => (
            <li key={i}>
              <bdi>{title}</bdi>
            </li>
          ))}
        </ul>
      ) : null}
      {explained ? (
        <>
          <p>
            {explained.title ? wording.itCallsItself(explained.title) : null}{' '}
            {explained.schemas.length ? wording.itsSchemas(explained.schemas.join(', ')) : null}.{' '}
            {explained.most === null ? null : wording.atMostAtOnce(explained.most)}
          </p>
          <p>
            {wording.itsIndexes(explained.indexes.length)}:{' '}
            <span className="mono">{explained.indexes.slice(0, 40).join(', ')}</span>
          </p>
          <div className="row">
            <Button size="small" onClick={() => onIndexes(explained.suggested)}>
              {wording.useTheseIndexes}
            </Button>
          </div>
        </>
      ) : (
        <p className="faded">{wording.itExplainsNothing}</p>
      )}
    </div>
  );
}
