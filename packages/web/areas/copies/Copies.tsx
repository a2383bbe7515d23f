import { api } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { countedOn } from '@osier/core/piles';
import { Button } from 'antd';
import { lazy } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { BeginPile } from './BeginPile';
import '../../parts/verdicts.css';
import './copies.css';
import { CopiesPages } from './CopiesPages';
import { CopiesOverview } from './CopiesOverview';
import { PilePiece } from './PilePiece';
import { copiesWords as wording } from './words';

const Labels = lazy(() => import('./Labels'));
const AllCopies = lazy(() => import('./AllCopies'));
const AllHoldings = lazy(() => import('./AllHoldings'));

/** The Copies: all of them as a list, holdings, piles, and labels. */
export default function Copies() {
  const { id } = useParams();
  if (id === 'all') return <AllCopies />;
  if (id === 'holdings') return <AllHoldings />;
  return id === 'labels' ? <Labels /> : <Piles />;
}

/** Piles of copies and records to work on together. */
function Piles() {
  const { id } = useParams();
  const navigate = useNavigate();
  const answer = useApi(api.piles.list);
  const piles = answer.data;
  const [query] = useSearchParams();
  const beginning = query.get('start') === '1';
  const mayKeep = useMay('keep piles');
  return (
    <>
      <AreaHead
        name={wording.copies}
        state={
          piles ? (piles.length ? wording.kept(counted(piles.length, 'pile')) : wording.noPileIsKept) : '…'
        }
      >
        <CopiesPages shown="piles" />
        {mayKeep ? (
          <Button type="primary" data-key="n" onClick={() => void navigate('/copies?start=1')}>
            {wording.newPile2}
          </Button>
        ) : null}
      </AreaHead>
      <WorkSplit
        share={27}
        open={id !== undefined || beginning}
        list={
          <WorkList
            items={piles ?? []}
            label={wording.piles}
            idOf={(p) => p.id}
            selected={id ? Number(id) : null}
            onOpen={(p) => void navigate(`/copies/${p.id}`)}
            answer={answer}
            empty={wording.aPileIsANamed}
            row={(p) => (
              <>
                <div className="one">
                  <b>
                    <bdi>{p.name}</bdi>
                  </b>
                  <span className="said-decision">{countedOn(p.of, p.count)}</span>
                </div>
                <div className="two">
                  <span className="main">{p.note || wording.startedBy(p.by)}</span>
                  <span>{p.madeOn}</span>
                </div>
              </>
            )}
          />
        }
        piece={
          beginning ? (
            <BeginPile onClose={() => void navigate('/copies')} />
          ) : id ? (
            <PilePiece key={id} id={Number(id)} onBack={() => void navigate('/copies')} />
          ) : (
            <CopiesOverview />
          )
        }
      />
    </>
  );
}
