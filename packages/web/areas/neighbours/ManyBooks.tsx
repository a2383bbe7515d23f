import { api } from '@osier/contract';
import { useNavigate, useSearchParams } from 'react-router';
import { Button } from 'antd';
import { useApi } from '../../api/queries';
import { Overview, OverviewSection } from '../../parts/Overview';
import { when } from '../../parts/when';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { BookListPiece } from './BookListPiece';
import { StartBookList } from './StartBookList';
import { neighboursWords as wording } from './words';

/** Lists of books that are looked for together. */
export function ManyBooks() {
  const [query] = useSearchParams();
  const navigate = useNavigate();
  const answer = useApi(api.bookLists.list);
  const mayStart = useMay('take in deliveries');
  const id = Number(query.get('list') ?? 0);
  const isStarting = mayStart && query.has('start');
  const to = (more = '') => void navigate(`/neighbours?show=many${more}`);
  return (
    <WorkSplit
      share={27}
      open={id > 0 || isStarting}
      list={
        <>
          {mayStart ? (
            <div className="row list-act">
              <Button type="primary" data-key="n" onClick={() => to('&start=1')}>
                {wording.startAList} <kbd>n</kbd>
              </Button>
            </div>
          ) : null}
          <WorkList
            items={answer.data ?? []}
            label={wording.bookLists}
            idOf={(l) => l.id}
            selected={id || null}
            onOpen={(l) => to(`&list=${l.id}`)}
            answer={answer}
            empty={wording.noListYet}
            row={(l) => (
              <>
                <div className="one">
                  <b>{l.name}</b>
                  <span>{wording.books(Object.values(l.counts).reduce((a, b) => a + b, 0))}</span>
                </div>
                <div className="two">
                  <span className="main">
                    {l.by} · {when(l.at)}
                  </span>
                  <span>
                    {l.counts.found + l.counts.several} {wording.states.found}
                  </span>
                </div>
              </>
            )}
          />
        </>
      }
      piece={
        isStarting ? (
          <StartBookList onStarted={(list) => to(`&list=${list}`)} onBack={() => to()} />
        ) : id > 0 ? (
          <BookListPiece key={id} id={id} onBack={() => to()} />
        ) : (
          <Overview>
            <OverviewSection title={wording.howManyBooksGo}>
              <ol>
                {wording.manySteps.map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
            </OverviewSection>
          </Overview>
        )
      }
    />
  );
}
