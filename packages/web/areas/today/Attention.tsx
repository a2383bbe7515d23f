import { api, type DisputedRow } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';

const placeOf = ({ kind, id }: DisputedRow): string | null =>
  kind === 'heading' ? `/headings/${id}` : kind === 'pile' ? `/copies/${id}` : null;

/** What an older catalogue had twice, or hanging on nothing: nothing of it is lost, and it stays here until it is settled. */
export default function Attention() {
  const { data, error } = useApi(api.overview.disputed);
  if (error) return <p role="alert">{error.message}</p>;
  return (
    <>
      <AreaHead
        name="Needs attention"
        state={
          data
            ? `${data.length} things are there twice or belong to nothing. Change one of each two, and it leaves this list.`
            : '…'
        }
      />
      <table className="plain" style={{ margin: 16 }}>
        <thead>
          <tr>
            <th>What</th>
            <th>Name</th>
            <th>Why</th>
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
