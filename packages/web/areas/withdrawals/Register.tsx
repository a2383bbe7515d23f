import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import { withdrawalsWords as wording } from './words';

/** The register of withdrawn copies, kept for ever. */
export function Register() {
  const { data } = useApi(api.withdrawals.register);
  const rows = data?.rows ?? [];
  if (data && rows.length === 0)
    return (
      <p className="faded" style={{ padding: 16 }}>
        {wording.nothingHasBeenWithdrawnYet}
      </p>
    );
  return (
    <div style={{ padding: '8px 16px', overflow: 'auto' }}>
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.withdrawn}</th>
            <th>{wording.barcode}</th>
            <th>{wording.title}</th>
            <th>{wording.stoodAt}</th>
            <th>{wording.reason}</th>
            <th>{wording.by}</th>
            <th>{wording.entry}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, entry, restored, withdrawn: w }) => (
            <tr key={id}>
              <td>{w.withdrawnOn}</td>
              <td>
                <Barcode code={w.copy.barcode} />
              </td>
              <td>
                {w.title}
                {w.lastCopy ? (
                  <small className="faded"> {wording.lastCopyRecordDeletedToo(w.record)}</small>
                ) : null}
              </td>
              <td>
                {w.callNumber}, {w.location}
              </td>
              <td>{w.reason || '–'}</td>
              <td>{w.by}</td>
              <td>
                <Link to={`/daybook/${entry}`}>{entry}</Link>
                {restored ? (
                  <>
                    {' '}
                    <Mark kind="information" name="undone" /> {wording.undone}
                  </>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
