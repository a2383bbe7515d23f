import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useStocktakes } from './use-stocktakes';
import { stocktakeWords as wording } from './words';

const SHOWN = 8;

/** What the pane shows when no stocktake is opened: how one goes, and the last ones with their results. */
export function StocktakeOverview() {
  const { data = [] } = useStocktakes();
  return (
    <Overview>
      <OverviewSection title={wording.howAStocktakeGoes}>
        <ol>
          <li>{wording.chooseAStretchOfShelfBranch}</li>
          <li>{wording.scanItWithThePhone}</li>
          <li>{wording.settleTheFindingsNotOn}</li>
          <li>{wording.closeItItsResultIs}</li>
        </ol>
        <p className="row">
          <Link to="/copies/all?status=missing">{wording.allMissing}</Link>
          <Link to="/copies/all?status=lost">{wording.allLost}</Link>
        </p>
      </OverviewSection>
      {data.length ? (
        <OverviewSection title={wording.lastStocktakes}>
          <table className="plain">
            <thead>
              <tr>
                <th>{wording.name}</th>
                <th>{wording.state}</th>
                <th className="num">{wording.found}</th>
                <th className="num">{wording.expected}</th>
              </tr>
            </thead>
            <tbody>
              {data.slice(0, SHOWN).map((s) => (
                <tr key={s.id}>
                  <td>
                    <Link to={`/stocktake/${s.id}`}>{s.stocktake.name}</Link>
                  </td>
                  <td>{s.stocktake.state}</td>
                  <td className="num">{s.found.toLocaleString('en-GB')}</td>
                  <td className="num">{s.expected.toLocaleString('en-GB')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </OverviewSection>
      ) : null}
    </Overview>
  );
}
