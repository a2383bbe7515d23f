import { api, type PileDetail, type PileScans } from '@osier/contract';
import { call } from '../../api/call';
import { countedOn } from '@osier/core/piles';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { BatchSheet } from '../../parts/BatchSheet';
import { cleanRecordsBatch } from '../../parts/clean-batch';
import { Mark } from '../../parts/Mark';
import { RecipeSelect } from '../../parts/RecipeSelect';
import { useTicks } from '../../parts/ticks';
import { ScanField } from '../../parts/ScanField';
import { useAct } from '../../parts/use-act';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { PiledLine } from './PiledLine';
import { PileName } from './PileName';
import { copiesWords as wording } from './words';

/** A pile: what lies on it, scanned onto and taken off, and what is done with all of it. */
export function PilePiece({ id, onBack }: { id: number; onBack: () => void }) {
  const pages = useInfiniteQuery({
    queryKey: ['/piles', id],
    initialPageParam: '',
    getNextPageParam: (last: PileDetail) => last.next,
    queryFn: ({ pageParam }) => call(api.piles.read, { params: { id }, query: { after: pageParam } }),
  });
  const { data: recipes = [] } = useApi(api.recipes.list);
  const [recipe, setRecipe] = useState<string | null>(null);
  const ticked = useTicks(`pile ${id}`);
  const [said, setSaid] = useState('');
  const [unknown, setUnknown] = useState<PileScans['unknown']>([]);
  const [naming, setNaming] = useState(false);
  const { act } = useAct();
  const mayKeep = useMay('keep piles');
  const mayClean = useMay('edit records');
  const { say, complain } = useShell();
  if (pages.error) return <p role="alert">{pages.error.message}</p>;
  const pile = pages.data?.pages[0];
  if (!pages.data || !pile) return null;
  const rows = pages.data.pages.flatMap((p) => p.rows);
  const chosen = rows.filter((r) => ticked.ids.has(r.object)).map((r) => r.object);
  const things = (n: number) => countedOn(pile.of, n);

  const scan = async (codes: string[]) => {
    try {
      const answer = await call(api.piles.scan, { params: { id }, body: { codes } });
      if (answer.entry) say(answer.sentence, answer.entry);
      setUnknown((before) => [...answer.unknown, ...before]);
      setSaid(
        [
          answer.added && wording.added(things(answer.added)),
          answer.repeated && wording.alreadyThere(answer.repeated),
          answer.unknown.length && wording.notKnown(answer.unknown.length),
        ]
          .filter(Boolean)
          .join(', '),
      );
      void refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const takeOff = async () => {
    if (await act(() => call(api.piles.takeOff, { params: { id }, body: { objects: chosen } })))
      ticked.clear();
  };
  const takeAway = async () => {
    if (await act(() => call(api.piles.remove, { params: { id }, body: { version: pile.version } })))
      onBack();
  };
  return (
    <div className="stack">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToThePiles}
      </Button>
      {naming ? (
        <PileName pile={pile} onDone={() => setNaming(false)} />
      ) : (
        <div className="piece-head">
          <div>
            <h2>
              <bdi>{pile.name}</bdi>
            </h2>
            <p className="faded">
              {wording.startedByOn(
                things(pile.count),
                pile.by,
                pile.madeOn,
                pile.note ? ` · ${pile.note}` : '',
              )}
            </p>
          </div>
          <span className="row">
            {pile.count > 0 ? (
              <>
                <Link to={`/catalogue?pile=${id}`}>{wording.seeItInTheCatalogue}</Link>
                <Link to={`/copies/labels?pile=${id}`}>{wording.printLabels}</Link>
              </>
            ) : null}
            {mayClean && pile.count > pile.gone && recipes.length > 0 ? (
              <RecipeSelect
                label={wording.runARecipeOverThis}
                placeholder={pile.of === 'record' ? wording.cleanTheseRecords : wording.cleanTheirRecords}
                recipes={recipes}
                onChoose={setRecipe}
              />
            ) : null}
          </span>
        </div>
      )}
      {mayKeep ? (
        <ScanField
          label={pile.of === 'copy' ? wording.scanOrPasteBarcodes : wording.barcodesIsbnsRecordNumbersR12}
          name={pile.name}
          said={said}
          takesFiles
          onScan={scan}
        />
      ) : null}
      {unknown.length ? (
        <div className="note caution" role="alert">
          <div className="row spread">
            <b>
              <Mark kind="caution" /> {wording.notAddedToThePile(unknown.length)}
            </b>
            <Button size="small" className="fix" onClick={() => setUnknown([])}>
              {wording.dismiss}
            </Button>
          </div>
          <ul className="unknown-scans">
            {unknown.map((u, i) => (
              <li key={i}>
                <span className="mono">{u.code}</span> {u.message}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {pile.gone ? (
        <p className="note information">
          <Mark kind="information" />{' '}
          {wording.ofThisPileNotIn(
            things(pile.gone),
            pile.gone === 1 ? 'is' : 'are',
            pile.gone === 1 ? 'It' : wording.they,
          )}
        </p>
      ) : null}
      {pile.count === 0 ? (
        <p className="faded">{wording.thePileIsEmptyScan}</p>
      ) : (
        <section className="verdict-group" aria-label={wording.onThisPile}>
          <h3 className="row spread">
            <span>{wording.onThisPile}</span>
            {mayKeep && chosen.length ? (
              <Button size="small" onClick={() => void takeOff()}>
                {wording.removeFromPile(things(chosen.length))}
              </Button>
            ) : null}
          </h3>
          {rows.map((row) => (
            <PiledLine
              key={row.object}
              row={row}
              of={pile.of}
              ticked={ticked.ids.has(row.object)}
              onTick={mayKeep ? () => ticked.flip(row.object) : undefined}
            />
          ))}
          {pages.hasNextPage ? (
            <Button
              size="small"
              className="fix more"
              disabled={pages.isFetchingNextPage}
              onClick={() => void pages.fetchNextPage()}
            >
              {wording.showMoreAreNotShown((pile.count - pile.gone - rows.length).toLocaleString('en-GB'))}
            </Button>
          ) : null}
        </section>
      )}
      {mayKeep && !naming ? (
        <div className="row">
          <Button size="small" className="fix" onClick={() => setNaming(true)}>
            {wording.changeNameAndNote}
          </Button>
          <Button size="small" className="fix" onClick={() => void takeAway()}>
            {wording.deletePile}
          </Button>
          <span className="faded">{wording.whatIsOnItStays}</span>
        </div>
      ) : null}
      {recipe !== null ? (
        <BatchSheet
          title={wording.cleanThePile(pile.name)}
          batch={cleanRecordsBatch({ recipe, q: '', pile: id })}
          onClose={() => setRecipe(null)}
        />
      ) : null}
    </div>
  );
}
