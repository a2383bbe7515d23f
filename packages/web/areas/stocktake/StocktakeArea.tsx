import { Button } from 'antd';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { StartStocktake } from './StartStocktake';
import { Progress } from './Progress';
import { StocktakeOverview } from './StocktakeOverview';
import { StocktakePiece } from './StocktakePiece';
import { useStocktakes } from './use-stocktakes';
import '../../parts/verdicts.css';
import './stocktake.css';
import { stocktakeWords as wording } from './words';

/** Stocktakes, each of a stretch. */
export default function StocktakeArea() {
  const { id } = useParams();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const answer = useStocktakes();
  const rows = answer.data ?? [];
  const mayManage = useMay('manage stocktakes');
  const starting = mayManage && query.has('start');
  const open = rows.filter((r) => r.stocktake.state === 'open').length;
  return (
    <>
      <AreaHead
        name={wording.stocktake}
        state={rows.length ? wording.openClosed(open, rows.length - open) : wording.noStocktakeYet}
      >
        {mayManage ? (
          <Button type="primary" data-key="n" onClick={() => void navigate('/stocktake?start=1')}>
            {wording.startAStocktake}
          </Button>
        ) : null}
      </AreaHead>
      <WorkSplit
        share={27}
        open={id !== undefined || starting}
        list={
          <WorkList
            items={rows}
            label={wording.stocktakes}
            idOf={(r) => r.id}
            selected={id ? Number(id) : null}
            rowHeight={58}
            onOpen={(r) => void navigate(`/stocktake/${r.id}`)}
            answer={answer}
            empty={mayManage ? wording.chooseAStretchOfShelf : wording.noStocktakeYetTheHead}
            row={(r) => (
              <>
                <div className="one">
                  <b>{r.stocktake.name}</b>
                  <span className="said-decision">{r.stocktake.state}</span>
                </div>
                <div className="two">
                  <span className="main">{wording.ofFound(r.found, r.expected)}</span>
                  {r.findings === null ? null : <span>{wording.findings(r.findings)}</span>}
                </div>
                <Progress part={r.found} whole={r.expected} name={r.stocktake.name} />
              </>
            )}
          />
        }
        piece={
          starting ? (
            <StartStocktake onClose={() => void navigate('/stocktake')} />
          ) : id ? (
            <StocktakePiece key={id} id={Number(id)} />
          ) : (
            <StocktakeOverview />
          )
        }
      />
    </>
  );
}
