import { api } from '@osier/contract';
import { Button, Select, type ButtonProps } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { Mark } from '../../parts/Mark';
import { SideBySide } from '../../parts/SideBySide';
import { FieldView } from '../../parts/field-editor/FieldView';
import { useAct } from '../../parts/use-act';
import { useAsking } from './asking-store';
import type { BookCandidate } from './candidates';
import { Cover } from './Cover';
import type { ListBook } from './ForList';
import { neighboursWords as wording } from './words';

/** A record held against the book in the hand, large enough for an arm's length, with why it is offered. */
export function BookPiece({
  candidate,
  isBest,
  others,
  isbn,
  isAsking,
  forList,
  onCopy,
  onEditions,
  onBack,
}: {
  candidate: BookCandidate;
  isBest: boolean;
  others: readonly BookCandidate[];
  /** What was looked for, in 13 digits; '' for something else. */
  isbn: string;
  isAsking: boolean;
  /** The book of a list that it is looked for; null for the one in the hand. */
  forList: ListBook | null;
  onCopy: () => void;
  /** Looks for other editions by what is typed for them. */
  onEditions: (text: string) => void;
  /** Back to the list, where there is room for one of both only. */
  onBack: () => void;
}) {
  const { facts, neighbour, record, rating, worth, key } = candidate;
  const { reject, choose } = useAsking();
  const [beside, setBeside] = useState<string | null>(null);
  const [hasFields, setHasFields] = useState(false);
  const copy = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // While others may still answer with a better one, nothing is to be pressed by the way.
    if (!isAsking) copy.current?.focus();
  }, [isAsking]);
  const { act } = useAct();
  const navigate = useNavigate();
  const takeFor = async ({ list, seq }: ListBook) => {
    const body = { neighbour: neighbour.id, marc: record.marc };
    const done = await act(async () => ({
      ...(await call(api.bookLists.choose, { params: { id: list, seq }, body })),
      entry: null,
    }));
    if (done) void navigate(`/neighbours?show=many&list=${list}`);
  };
  const other = others.find((o) => o.key === beside);
  const lines: readonly (readonly [string, string])[] = [
    [wording.author, facts.author],
    [wording.edition, facts.edition],
    [wording.publisher, facts.publisher],
    [wording.year, facts.year],
    [wording.pages, facts.pages],
    [wording.size, facts.size],
  ];
  return (
    <div className="stack book-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <p className="faded book-source">
        {wording.from(neighbour.neighbour.name)}
        {isBest ? ` · ${wording.best}` : ''}
      </p>
      <section aria-label={wording.againstTheBook} className="book-facts">
        <h2>
          <bdi>{facts.title}</bdi>
        </h2>
        <div className="book-sight">
          <dl>
            {lines.map(([name, text]) => (
              <div key={name}>
                <dt>{name}</dt>
                <dd>{text ? <bdi>{text}</bdi> : <span className="faded">{wording.notSaid}</span>}</dd>
              </div>
            ))}
            <div>
              <dt>{wording.isbn}</dt>
              <dd className="mono">
                {facts.isbns.join(', ') || <span className="faded">{wording.notSaid}</span>}
                {isbn && !facts.isbns.includes(isbn) ? (
                  <p className="book-other-isbn">
                    <Mark kind="caution" name="" /> {wording.anotherIsbn}
                  </p>
                ) : null}
              </dd>
            </div>
          </dl>
          <Cover key={key} candidate={candidate} />
        </div>
      </section>
      <div className="row">
        {forList ? (
          <KeyButton ref={copy} type="primary" letter="l" onClick={() => void takeFor(forList)}>
            {wording.takeForTheList}
          </KeyButton>
        ) : null}
        <KeyButton
          ref={forList ? undefined : copy}
          type={forList ? 'default' : 'primary'}
          letter="c"
          onClick={onCopy}
        >
          {wording.copyThisRecord}
        </KeyButton>
        {others.length ? (
          <KeyButton letter="n" onClick={() => reject(key)}>
            {wording.notThisOne}
          </KeyButton>
        ) : null}
        {isbn ? (
          <KeyButton letter="e" onClick={() => onEditions(editionsOf(candidate))}>
            {wording.otherEditions}
          </KeyButton>
        ) : null}
        {others.length ? (
          <Select<string | null>
            aria-label={wording.compareWith}
            data-key="m"
            popupMatchSelectWidth={false}
            value={beside}
            placeholder={wording.compareWith}
            allowClear
            onChange={(next) => setBeside(next ?? null)}
            options={others.map((o) => ({ value: o.key, label: nameOf(o) }))}
          />
        ) : null}
      </div>
      {other ? (
        <>
          <SideBySide
            columns={[
              { name: neighbour.neighbour.name, record: record.marc },
              { name: nameOf(other), record: other.record.marc },
            ]}
          />
          <div className="row">
            <Button size="small" onClick={() => choose(other.key)}>
              {wording.takeThatOne(other.neighbour.neighbour.name)}
            </Button>
          </div>
        </>
      ) : null}
      <section className="book-reasons" aria-label={wording.why}>
        <dl>
          <Reason name={wording.why}>{rating.reasons.join(', ') || wording.notKnown}</Reason>
          {rating.doubts.length ? <Reason name={wording.against}>{rating.doubts.join(', ')}</Reason> : null}
          {worth.lacks.length ? <Reason name={wording.lacks}>{worth.lacks.join(', ')}</Reason> : null}
          <Reason name={wording.classes}>{worth.classes.join(', ') || wording.notSaid}</Reason>
          <Reason name={wording.changed}>{worth.date || wording.notKnown}</Reason>
        </dl>
        {record.told.length ? (
          <p className="faded">
            {wording.repaired}: {record.told.join(' ')}
          </p>
        ) : null}
        {record.left.length ? <p className="faded">{wording.leftOut(record.left.join(', '))}</p> : null}
      </section>
      <div className="row">
        <Button size="small" aria-expanded={hasFields} onClick={() => setHasFields(!hasFields)}>
          {wording.allFields}
        </Button>
      </div>
      {hasFields ? <FieldView record={record.marc} findings={[]} /> : null}
    </div>
  );
}

const nameOf = ({ neighbour, facts }: BookCandidate): string =>
  [neighbour.neighbour.name, facts.edition, facts.year].filter(Boolean).join(', ');

/** A button with the letter that presses it. */
const KeyButton = ({
  letter,
  children,
  ...rest
}: ButtonProps & { letter: string; ref?: React.Ref<HTMLButtonElement> }) => (
  <Button size="large" data-key={letter} {...rest}>
    {children} <kbd>{letter}</kbd>
  </Button>
);

const Reason = ({ name, children }: { name: string; children: string }) => (
  <div>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </div>
);

/** What finds other editions of a book: the words of its title and the surname. */
const editionsOf = ({ description: { main, author } }: BookCandidate): string =>
  [main, author.split(' ')[0] ?? ''].filter(Boolean).join(' / ');
