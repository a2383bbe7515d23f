import { api, type BookList } from '@osier/contract';
import type { BookState } from '@osier/core/neighbours';
import { Button } from 'antd';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refreshAll, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Mark, type MarkKind } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { lookupPath } from './ForList';
import { neighboursWords as wording } from './words';

/** The groups in which books are shown: what needs somebody first. */
const ORDER: readonly BookState[] = [
  'several',
  'not found',
  'failed',
  'no number',
  'here',
  'twice',
  'found',
  'waiting',
];
const SHAPE: Readonly<Record<BookState, MarkKind>> = {
  waiting: 'information',
  found: 'clear',
  several: 'caution',
  here: 'information',
  'not found': 'stop',
  failed: 'stop',
  'no number': 'stop',
  twice: 'information',
};
/** Milliseconds between two looks at a list whose books are being looked for. */
const LOOKS_AGAIN = 1500;

/** A list of books: what was found of each, and the ways on. */
export function BookListPiece({ id, onBack }: { id: number; onBack: () => void }) {
  const { data: list, error, refetch } = useApi(api.bookLists.read, { params: { id } });
  const { say, complain } = useShell();
  const mayAct = useMay('take in deliveries');
  const isRunning = list !== undefined && list.job !== null;
  useEffect(() => {
    if (!isRunning) return;
    const again = setInterval(() => void refetch(), LOOKS_AGAIN);
    return () => clearInterval(again);
  }, [isRunning, refetch]);
  if (error) return <p role="alert">{error.message}</p>;
  if (!list) return null;
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await refreshAll();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const { counts } = list;
  const all = list.rows.length;
  const rest = counts['not found'] + counts.failed + counts.waiting;
  const params = { id };
  return (
    <div className="stack book-list">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <h2>{list.name}</h2>
      <p role="status" className="faded">
        {isRunning
          ? wording.lookingForThem(all - counts.waiting, all)
          : ORDER.filter((s) => counts[s])
              .map((s) => `${counts[s]} ${wording.states[s]}`)
              .join(', ')}
      </p>
      {mayAct && !isRunning ? (
        <div className="row">
          {list.ready ? (
            <Button
              type="primary"
              data-key="d"
              onClick={() =>
                void act(async () => {
                  await call(api.bookLists.deliver, { params });
                  say(wording.deliveryMade);
                })
              }
            >
              {wording.makeADelivery(list.ready)} <kbd>d</kbd>
            </Button>
          ) : null}
          {rest ? (
            <Button data-key="f" onClick={() => void act(() => call(api.bookLists.further, { params }))}>
              {wording.askForTheRest(rest)} <kbd>f</kbd>
            </Button>
          ) : null}
          <Button
            danger
            onClick={() =>
              void act(async () => {
                say((await call(api.bookLists.remove, { params })).sentence);
                onBack();
              })
            }
          >
            {wording.deleteList}
          </Button>
        </div>
      ) : null}
      {ORDER.filter((s) => counts[s]).map((state) => (
        <section key={state} aria-label={wording.states[state]}>
          <h3>
            <Mark kind={SHAPE[state]} name="" /> {wording.states[state]} ({counts[state]})
          </h3>
          <ul className="book-rows">
            {list.rows
              .filter((r) => r.state === state)
              .map((row) => (
                <BookRow key={row.seq} list={id} row={row} mayAct={mayAct} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function BookRow({ list, row, mayAct }: { list: number; row: BookList['rows'][number]; mayAct: boolean }) {
  const { seq, code, isbn, state, title, reason, record, delivery } = row;
  const isOpen = state === 'not found' || state === 'failed' || state === 'several';
  return (
    <li>
      <span className="mono">{code}</span>
      <span>
        {title ? (
          <b>
            <bdi>{title}</bdi>
          </b>
        ) : null}{' '}
        <span className="faded">{reason}</span>
      </span>
      <span className="row book-ways">
        {record ? <Link to={`/catalogue/${record}`}>{wording.openRecord(record)}</Link> : null}
        {delivery ? <Link to={`/deliveries/${delivery}`}>{wording.toTheDelivery}</Link> : null}
        {mayAct && isOpen && !record && !delivery ? (
          <>
            <Link to={lookupPath(isbn, { list, seq })}>{wording.lookForIt}</Link>
            {state === 'several' ? null : (
              <Link to={`/catalogue/brief?isbn=${isbn}`}>{wording.briefRecord}</Link>
            )}
          </>
        ) : null}
      </span>
    </li>
  );
}
