import { api } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { Button } from 'antd';
import { Link, useParams } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { when } from '../../parts/when';
import { DeliveryCounts } from './DeliveryCounts';
import './report.css';

/** What became of each record of a delivery, as a page that prints well. */
export default function DeliveryReport() {
  const id = Number(useParams().id);
  const { data, error } = useApi(api.deliveries.reportRows, { params: { id } });
  const { data: summary } = useApi(api.deliveries.summary, { params: { id } });
  if (error) return <AreaHead name="Report" state={error.message} />;
  if (!data || !summary) return null;
  return (
    <>
      <AreaHead
        name={`Report of ${data.name}`}
        state={`Arrived ${when(data.arrived)}; as of ${when(new Date().toISOString())}.`}
      >
        <span className="row no-print">
          <Link to={`/deliveries/${id}`}>Back to the delivery</Link>
          <a href={`/api/deliveries/${id}/report`}>As a table (CSV)</a>
          <a href={`/api/deliveries/${id}/accepted`}>Accepted records (ISO 2709)</a>
          <Button type="primary" onClick={() => window.print()}>
            Print {data.rows.length.toLocaleString('en-GB')} records
          </Button>
        </span>
      </AreaHead>
      <div className="report" tabIndex={0} role="region" aria-label="What became of each record">
        <DeliveryCounts summary={summary} />
        <table className="plain">
          <thead>
            <tr>
              <th className="num">No.</th>
              <th>Title</th>
              <th>Outcome</th>
              <th className="num">Record</th>
              <th>Barcodes</th>
              <th>Note</th>
            </tr>
          </thead>
          <tbody>
            {data.rows.map((r) => (
              <tr key={r.seq}>
                <td className="num">{r.seq}</td>
                <td>
                  <b>{r.title}</b>{' '}
                  <span className="faded">{[r.author, r.year, r.isbn].filter(Boolean).join(' · ')}</span>
                </td>
                <td>{r.outcome}</td>
                <td className="num">{r.record ?? ''}</td>
                <td className="mono">
                  {r.barcodes.map((b) => (
                    <div key={b}>{groupedBarcode(b)}</div>
                  ))}
                </td>
                <td>{r.note}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
