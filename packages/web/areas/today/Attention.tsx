import { api, type DisputedRow } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { todayWords as wording } from './words';

const placeOf = ({ kind, id }: DisputedRow): string | null =>
  kind === 'heading' ? `/headings/${id}` : kind === 'pile' ? `/copies/${id}` : null;

/** What an older catalogue had twice, or hanging on nothing: nothing of it is lost, and it stays here until it is settled. */
export default function Attention() {
  const { data, error } = useApi(api.overview.disputed);
  if (error) return <p role="alert">{error.message}</p>;
  return (
    <>
      <AreaHead
        name={wording.needsAttention}
        state={data ? wording.thingsAreDuplicatesOrAttached(data.length) : '…'}
      />
      <table className="plain" style={{ margin: 16 }}>
        <thead>
          <tr>
            <th>{wording.what}</th>
            <th>{wording.name}</th>
            <th>{wording.why}</th>
          </tr>
        </thead>
        <tbody>
          {data?.map((d) => {
            const to = placeOf(d);
            return (
              <tr key={`${d.kind} ${d.id}`}>
                <td>
                  {d.kind} {d.id}
                </td>
                <td>{to ? <Link to={to}>{d.label}</Link> : d.label}</td>
                <td>{d.why}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
