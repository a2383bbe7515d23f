import { api, type NeighbourRow } from '@osier/contract';
import { tasteOf } from '@osier/core/neighbours';
import { Button, Input, type InputRef } from 'antd';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useApi } from '../../api/queries';
import { PageButtons } from '../../parts/PageButtons';
import { AreaHead } from '../../parts/AreaHead';
import { useHouse } from '../../parts/use-house';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { useTakesScans } from '../../shell/scan-target';
import { useAsking } from './asking-store';
import { BookPiece } from './BookPiece';
import { inOffer, shownCandidate, worksOf } from './candidates';
import { BriefRecords } from './BriefRecords';
import { CopyPiece } from './CopyPiece';
import './neighbours.css';
import { ForList, listBookOf, lookupPath } from './ForList';
import { ManyBooks } from './ManyBooks';
import { NeighboursOverview } from './NeighboursOverview';
import { OwnRecords } from './OwnRecords';
import { Results } from './Results';
import { neighboursWords as wording } from './words';

/** Other libraries: one book in the hand, or many at once. */
export default function NeighboursArea() {
  const [query] = useSearchParams();
  const { data: neighbours } = useApi(api.neighbours.list);
  const navigate = useNavigate();
  const shown = (['many', 'brief'] as const).find((page) => page === query.get('show')) ?? 'one';
  const used = neighbours?.filter((n) => n.neighbour.isUsed) ?? [];
  const out = used.filter((n) => n.out).length;
  return (
    <>
      <AreaHead
        name={wording.neighbours}
        state={
          neighbours === undefined
            ? ''
            : used.length === 0
              ? wording.noneIsSetUp
              : out
                ? wording.someDoNot(out, used.length)
                : wording.allAnswer(used.length)
        }
      >
        <PageButtons
          label={wording.show}
          pages={[
            ['one', wording.oneBook],
            ['many', wording.manyBooks],
            ['brief', wording.briefRecords],
          ]}
          chosen={shown}
          onChoose={(key) => void navigate(key === 'one' ? '/neighbours' : `/neighbours?show=${key}`)}
        />
        <Link to="/set-up?show=neighbours">{wording.setUpNeighbours}</Link>
      </AreaHead>
      {shown === 'many' ? (
        <ManyBooks />
      ) : shown === 'brief' ? (
        <BriefRecords />
      ) : (
        <OneBook neighbours={neighbours} />
      )}
    </>
  );
}

/** Looks for the book in the hand among other libraries, and copies its record. */
function OneBook({ neighbours }: { neighbours: readonly NeighbourRow[] | undefined }) {
  const [query] = useSearchParams();
  const navigate = useNavigate();
  const text = query.get('text') ?? '';
  const copied = query.get('copy');
  // A record that is looked for on behalf of a book of a list.
  const of = query.get('list');
  const book = query.get('book');
  const forList = useMemo(() => listBookOf(of, book), [of, book]);
  const mayCopy = useMay('take in deliveries');
  const { data: looked, isFetching } = useApi(
    api.neighbours.lookup,
    text === '' || !mayCopy ? null : { query: { text } },
  );
  const { text: asked, answers, chosen, rejected, begin, clear } = useAsking();
  const house = useHouse();
  const lookFor = useCallback(
    (next: string) => {
      if (next.trim() === '') clear();
      void navigate(next.trim() || forList ? lookupPath(next.trim(), forList) : '/neighbours');
    },
    [navigate, clear, forList],
  );
  useEffect(() => {
    // Coming back from another area, one finds what was looked for last.
    if (text === '') return asked ? void navigate(lookupPath(asked, forList), { replace: true }) : undefined;
    // What was read before may be older than the book that was copied a moment ago.
    if (!looked || isFetching || looked.problem !== null || asked === text) return;
    // What is here already comes first; the others are asked when the person says so.
    if (!looked.own.some((o) => o.sure)) begin(text, looked.ask);
  }, [text, looked, isFetching, asked, begin, navigate, forList]);
  // Where list and piece have no room beside each other, the list comes back for as long as nothing else is chosen.
  const [isListed, setListed] = useState(false);
  useEffect(() => setListed(false), [text, chosen, rejected]);
  const works = useMemo(
    () => (asked === text && neighbours && house ? worksOf(answers, neighbours, tasteOf(house)) : []),
    [asked, text, answers, neighbours, house],
  );
  const all = inOffer(works);
  // No other record slips in for the one that is being copied: after a reload it may still be on its way.
  const copying = all.find((c) => c.key === copied) ?? null;
  const shown = copying ?? shownCandidate(all, chosen, rejected);
  const isAsking = Object.values(answers).includes('asking');
  const used = neighbours?.filter((n) => n.neighbour.isUsed) ?? [];
  const at = (copy: string | null) =>
    `${lookupPath(text, forList)}${copy === null ? '' : `&copy=${encodeURIComponent(copy)}`}`;
  return (
    <WorkSplit
      share={36}
      open={shown !== null && !isListed}
      list={
        <div className="lookup">
          {forList ? <ForList book={forList} /> : null}
          {mayCopy ? (
            <LookupBox
              key={text}
              text={text}
              problem={looked?.problem ?? null}
              isHeld={copying !== null}
              onLook={lookFor}
            />
          ) : (
            <p className="note">{wording.cataloguersCopy}</p>
          )}
          {looked?.own.length ? (
            <OwnRecords own={looked.own} isAsked={asked === text} onAsk={() => begin(text, looked.ask)} />
          ) : null}
          {asked === text && text !== '' && neighbours ? (
            <Results
              works={works}
              shown={shown?.key ?? null}
              neighbours={neighbours}
              ask={looked?.ask.flat() ?? []}
              text={text}
              isCopying={copying !== null}
            />
          ) : null}
        </div>
      }
      piece={
        shown === null ? (
          <NeighboursOverview neighbours={used} isAtOnce={house?.askNeighbours === 'at once'} />
        ) : copying !== null ? (
          <CopyPiece
            key={`${text} ${shown.key}`}
            candidate={shown}
            others={all.filter((c) => c.key !== shown.key)}
            path={at(shown.key)}
            onBack={() => void navigate(at(null))}
            onCopied={() => {
              clear();
              void navigate('/neighbours');
            }}
          />
        ) : (
          <BookPiece
            key={shown.key}
            candidate={shown}
            isBest={shown.key === all[0]?.key}
            others={all.filter((c) => c.key !== shown.key)}
            isbn={looked?.sought.startsWith('ISBN ') ? looked.sought.slice(5) : ''}
            isAsking={isAsking}
            forList={forList}
            onCopy={() => void navigate(at(shown.key))}
            onEditions={lookFor}
            onBack={() => setListed(true)}
          />
        )
      }
    />
  );
}

/** The box that waits for the next book. */
function LookupBox({
  text,
  problem,
  isHeld,
  onLook,
}: {
  text: string;
  problem: string | null;
  /** A book is being copied: scans go to it. */
  isHeld: boolean;
  onLook: (text: string) => void;
}) {
  const [typed, setTyped] = useState(text);
  const input = useRef<InputRef>(null);
  useEffect(() => {
    if (!isHeld && (text === '' || problem !== null)) input.current?.focus({ cursor: 'all' });
  }, [text, problem, isHeld]);
  useTakesScans(wording.theIsbn, isHeld ? null : onLook);
  return (
    <form
      className="lookup-box"
      role="search"
      aria-label={wording.lookUp}
      onSubmit={(e) => {
        e.preventDefault();
        onLook(typed);
      }}
    >
      <label>
        {wording.isbnOrWords}
        <Input
          ref={input}
          data-takes-codes="scan"
          size="large"
          value={typed}
          autoComplete="off"
          status={problem ? 'error' : ''}
          placeholder={wording.scanTheIsbn}
          aria-invalid={problem !== null}
          aria-describedby={problem ? 'lookup-problem' : undefined}
          onChange={(e) => setTyped(e.target.value)}
          allowClear
        />
      </label>
      <Button htmlType="submit" size="large">
        {wording.lookUp}
      </Button>
      {problem ? (
        <p id="lookup-problem" role="alert" className="field-problem">
          {problem}
        </p>
      ) : null}
    </form>
  );
}
