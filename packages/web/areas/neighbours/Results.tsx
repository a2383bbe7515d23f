import type { NeighbourRow } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { FindingCounts, Mark, type MarkKind } from '../../parts/Mark';
import { useAsking } from './asking-store';
import { inOffer, type AnswerSoFar, type BookCandidate, type WorkEditions } from './candidates';
import { neighboursWords as wording } from './words';

/** What each neighbour answered, and the records by work and edition. */
export function Results({
  works,
  shown,
  neighbours,
  ask,
  text,
  isCopying,
}: {
  works: readonly WorkEditions[];
  shown: string | null;
  neighbours: readonly NeighbourRow[];
  /** Those that can be asked, in their order. */
  ask: readonly number[];
  text: string;
  isCopying: boolean;
}) {
  const { answers, rejected, choose, further, again, stop } = useAsking();
  const navigate = useNavigate();
  const order = neighbours.filter((n) => ask.includes(n.id));
  const isAsking = Object.values(answers).includes('asking');
  const left = order.filter((n) => answers[n.id] === undefined);
  const isOver = !isAsking && inOffer(works).length === 0;
  return (
    <>
      <section aria-label={wording.answers} className="answers" aria-live="polite">
        <ul>
          {order.map((n) => (
            <AnswerLine key={n.id} neighbour={n} answer={answers[n.id]} onAsk={() => again(n.id)} />
          ))}
        </ul>
        <div className="row">
          {left.length && !isAsking ? (
            <Button size="small" data-key="f" onClick={() => further(ask)}>
              {wording.lookFurther} <kbd>f</kbd>
            </Button>
          ) : null}
          {isAsking ? (
            <Button size="small" onClick={stop}>
              {wording.stop}
            </Button>
          ) : null}
        </div>
      </section>
      {isOver && left.length === 0 ? (
        <div className="note">
          <p>
            <b>{wording.nothingFound}</b> {wording.scanAgain}
          </p>
          <Button
            data-key="b"
            onClick={() => void navigate(`/catalogue/brief${/^[\dXx-]+$/.test(text) ? `?isbn=${text}` : ''}`)}
          >
            {wording.enterABriefRecord} <kbd>b</kbd>
          </Button>
        </div>
      ) : null}
      {works.length ? (
        <section aria-label={wording.records} className="found-works">
          {works.map((work, i) => (
            <div key={i} className="found-work">
              <h3>
                <bdi>{work[0]![0]!.facts.title}</bdi>
                {work.length > 1 ? <span className="faded"> · {wording.editions(work.length)}</span> : null}
              </h3>
              {work.map((edition, k) => (
                <ul key={k} className="found-edition">
                  {edition.map((c) => (
                    <li key={c.key}>
                      <CandidateLine
                        candidate={c}
                        isShown={c.key === shown}
                        isRejected={rejected.includes(c.key)}
                        isOff={isCopying}
                        onChoose={() => choose(c.key)}
                      />
                    </li>
                  ))}
                </ul>
              ))}
            </div>
          ))}
        </section>
      ) : null}
    </>
  );
}

/** The shape and the words of an answer. */
function saidOf(answer: AnswerSoFar | undefined): readonly [kind: MarkKind, text: string] {
  if (answer === undefined) return ['information', wording.notAsked];
  if (answer === 'asking') return ['information', wording.asking];
  switch (answer.state) {
    case 'found':
      return [
        answer.message ? 'caution' : 'clear',
        answer.message || wording.found(answer.count, answer.records.length),
      ];
    case 'none':
      return ['information', wording.nothing];
    case 'stopped':
      return ['information', wording.stopped];
    case 'left out':
      return ['caution', answer.message];
    default:
      return ['stop', answer.message];
  }
}

function AnswerLine({
  neighbour,
  answer,
  onAsk,
}: {
  neighbour: NeighbourRow;
  answer: AnswerSoFar | undefined;
  onAsk: () => void;
}) {
  const [kind, text] = saidOf(answer);
  const isDone = answer !== undefined && answer !== 'asking';
  const mayAsk = answer === undefined || (isDone && answer.state !== 'found' && answer.state !== 'none');
  return (
    <li>
      <Mark kind={kind} name="" /> <b>{neighbour.neighbour.name}</b>: {text}
      {isDone && answer.milliseconds ? (
        <span className="faded"> · {wording.seconds((answer.milliseconds / 1000).toFixed(1))}</span>
      ) : null}{' '}
      {mayAsk ? (
        <Button
          size="small"
          type="link"
          onClick={onAsk}
          aria-label={`${isDone ? wording.askAgain : wording.ask} ${neighbour.neighbour.name}`}
        >
          {isDone ? wording.askAgain : wording.ask}
        </Button>
      ) : null}
      {isDone && answer.told.length ? <div className="faded">{answer.told.join(' ')}</div> : null}
    </li>
  );
}

function CandidateLine({
  candidate: { facts, neighbour, worth, record },
  isShown,
  isRejected,
  isOff,
  onChoose,
}: {
  candidate: BookCandidate;
  isShown: boolean;
  isRejected: boolean;
  isOff: boolean;
  onChoose: () => void;
}) {
  return (
    <Button
      type="text"
      block
      className={isShown ? 'candidate chosen' : 'candidate'}
      aria-current={isShown}
      disabled={isOff && !isShown}
      onClick={onChoose}
    >
      <span className="candidate-main">
        <b>{[facts.edition, facts.year].filter(Boolean).join(', ') || wording.notKnown}</b>{' '}
        {neighbour.neighbour.name}
        {isRejected ? <em> · {wording.rejected}</em> : null}
      </span>
      <span className="candidate-side">
        <span title={worth.level}>{wording.complete(worth.completeness)}</span>
        <FindingCounts errors={record.errors} warnings={record.warnings} advice={record.advice} />
      </span>
    </Button>
  );
}
