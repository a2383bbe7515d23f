import type { StocktakeDetail } from '@osier/contract';
import { useSetUp } from '../setup/use-set-up';
import { when } from '../../parts/when';
import { stocktakeWords as wording } from './words';

/** The walks and files of a stocktake, each with its scans. */
export function Runs({ stocktake: { runs } }: { stocktake: StocktakeDetail }) {
  const locations = useSetUp()?.lists.value.locations ?? [];
  if (runs.length === 0) return null;
  const nameOf = (code: string) => locations.find((l) => l.code === code)?.name ?? code;
  return (
    <details className="runs">
      <summary>
        {wording.walksAndFiles} <span className="faded">{runs.length}</span>
      </summary>
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.name}</th>
            <th>{wording.location}</th>
            <th>{wording.whenScanned}</th>
            <th className="num">{wording.scansHead}</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((r) => (
            <tr key={r.id}>
              <td>{r.name || wording.walkOf(r.person)}</td>
              <td>{r.location ? nameOf(r.location) : wording.allOfTheStretch}</td>
              <td>{r.began.length > 10 ? when(r.began) : r.began}</td>
              <td className="num">{r.scans.toLocaleString('en-GB')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
