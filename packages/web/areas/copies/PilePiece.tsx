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
import { ScanField } from '../../parts/ScanField';
import { useAct } from '../../parts/use-act';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { PiledLine } from './PiledLine';
import { PileName } from './PileName';

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
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
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
  const chosen = rows.filter((r) => ticked.has(r.object)).map((r) => r.object);
  const things = (n: number) => countedOn(pile.of, n);

  const scan = async (codes: string[]) => {
    try {
      const answer = await call(api.piles.scan, { params: { id }, body: { codes } });
      if (answer.entry) say(answer.sentence, answer.entry);
      setUnknown((before) => [...answer.unknown, ...before]);
      setSaid(
        [
          answer.added && `${things(answer.added)} put on`,
          answer.repeated && `${answer.repeated} were there already`,
          answer.unknown.length && `${answer.unknown.length} not known`,
        ]
          .filter(Boolean)
          .join(', '),
      );
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const takeOff = async () => {
    if (await act(() => call(api.piles.takeOff, { params: { id }, body: { objects: chosen } })))
      setTicked(new Set());
  };
  const takeAway = async () => {
    if (await act(() => call(api.piles.remove, { params: { id }, body: { version: pile.version } })))
      onBack();
  };
  const flip = (object: number) =>
    setTicked(
      ticked.has(object) ? new Set([...ticked].filter((x) => x !== object)) : new Set([...ticked, object]),
    );
  return (
    <div className="stack">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        Back to the piles
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
              {things(pile.count)} · begun by {pile.by} on {pile.madeOn}
              {pile.note ? ` · ${pile.note}` : ''}
            </p>
          </div>
          <span className="row">
            {pile.count > 0 ? <Link to={`/catalogue?pile=${id}`}>See it in the Catalogue</Link> : null}
            {mayClean && pile.count > pile.gone && recipes.length > 0 ? (
              <RecipeSelect
                label="Run a recipe over this pile"
                placeholder={pile.of === 'record' ? 'Clean these records…' : 'Clean their records…'}
                recipes={recipes}
                onChoose={setRecipe}
              />
            ) : null}
          </span>
        </div>
      )}
      {mayKeep ? (
        <ScanField
          label={pile.of === 'copy' ? 'Scan or paste barcodes' : 'Barcodes, ISBNs, record numbers (r12)'}
          name={pile.name}
          said={said}
          onScan={(codes) => void scan(codes)}
        />
      ) : null}
      {unknown.length ? (
        <div className="note caution" role="alert">
          <div className="row spread">
            <b>
              <Mark kind="caution" /> Not put on the pile: {unknown.length}
            </b>
            <Button size="small" className="fix" onClick={() => setUnknown([])}>
              I have seen them
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
          <Mark kind="information" /> {things(pile.gone)} of this pile {pile.gone === 1 ? 'is' : 'are'} not in
          the catalogue now. {pile.gone === 1 ? 'It' : 'They'} will be here again when that is undone.
        </p>
      ) : null}
      {pile.count === 0 ? (
        <p className="faded">
          Nothing lies here yet. Scan into the field above, or search the Catalogue and put what is found on
          this pile.
        </p>
      ) : (
        <section className="verdict-group" aria-label="On this pile">
          <h3 className="row spread">
            <span>On this pile</span>
            {mayKeep && chosen.length ? (
              <Button size="small" onClick={() => void takeOff()}>
                Take {things(chosen.length)} off
              </Button>
            ) : null}
          </h3>
          {rows.map((row) => (
            <PiledLine
              key={row.object}
              row={row}
              of={pile.of}
              ticked={ticked.has(row.object)}
              onTick={mayKeep ? () => flip(row.object) : undefined}
            />
          ))}
          {pages.hasNextPage ? (
            <Button
              size="small"
              className="fix more"
              disabled={pages.isFetchingNextPage}
              onClick={() => void pages.fetchNextPage()}
            >
              Show more · {(pile.count - pile.gone - rows.length).toLocaleString('en-GB')} are not shown
            </Button>
          ) : null}
        </section>
      )}
      {mayKeep && !naming ? (
        <div className="row">
          <Button size="small" className="fix" onClick={() => setNaming(true)}>
            Change name and note
          </Button>
          <Button size="small" className="fix" onClick={() => void takeAway()}>
            Delete pile
          </Button>
          <span className="faded">What lies on it stays in the catalogue.</span>
        </div>
      ) : null}
      {recipe !== null ? (
        <BatchSheet
          title={`Clean the pile ${pile.name}`}
          batch={cleanRecordsBatch({ recipe, q: '', pile: id })}
          onClose={() => setRecipe(null)}
        />
      ) : null}
    </div>
  );
}
