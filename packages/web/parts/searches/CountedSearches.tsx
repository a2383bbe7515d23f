import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useCalmApi } from '../../api/queries';
import { OverviewSection } from '../Overview';
import { addressOfSearch } from './search-address';
import { searchWords as wording } from './words';

/** Each of them is a search: others’ work does not have them counted again at once. */
const pause = () => 30_000;
const NOWHERE = {};

/** The saved searches that Today shows, with how much each finds. Nothing where there are none. */
export function CountedSearches() {
  const { data = [] } = useCalmApi(api.searches.counted, NOWHERE, pause);
  if (data.length === 0) return null;
  return (
    <OverviewSection title={wording.savedSearches}>
      <table className="plain">
        <tbody>
          {data.map((s) => (
            <tr key={s.id}>
              <td>
                <Link to={addressOfSearch(s.of, s.search)}>{s.name}</Link>
                {s.problem ? <div className="faded">{s.problem}</div> : null}
              </td>
              <td className="num">{s.n === null ? '' : wording.found(s.of, s.n, s.isMore)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </OverviewSection>
  );
}
