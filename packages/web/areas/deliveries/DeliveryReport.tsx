import { api } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { Button } from 'antd';
import { Link, useParams } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { when } from '../../parts/when';
import { DeliveryCounts } from './DeliveryCounts';
import '../../parts/report.css';
import { deliveriesWords as wording } from './words';

/** What became of each record of a delivery, as a page that prints well. */
export default function DeliveryReport() {
  const id = Number(useParams().id);
  const { data, error } = useApi(api.deliveries.reportRows, { params: { id } });
  const { data: summary } = useApi(api.deliveries.summary, { params: { id } });
  if (error) return <AreaHead name={wording.report} state={error.message} />;
  if (!data || !summary) return null;
  return (
    <>
      <AreaHead
        name={wording.reportOf(data.name)}
        state={wording.arrivedAsOf(when(data.arrived), when(new Date().toISOString()))}
      >
        <span className="row no-print">
          <Link to={`/deliveries/${id}`}>{wording.backToTheDelivery}</Link>
          <a href={`/api/deliveries/${id}/report`}>{wording.asATableCsv}</a>
          <a href={`/api/deliveries/${id}/accepted`}>{wording.acceptedRecordsIso2709}</a>
          <Button type="primary" onClick={() => window.print()}>
            {wording.printRecords(data.rows.length.toLocaleString('en-GB'))}
          </Button>
        </span>
      </AreaHead>
      <div className="report" tabIndex={0} role="region" aria-label={wording.eachRecord}>
        <DeliveryCounts summary={summary} />
        <table className="plain">
          <thead>
            <tr>
              <th className="num">{wording.no}</th>
              <th>{wording.title}</th>
              <th>{wording.outcome}</th>
              <th className="num">{wording.record}</th>
              <th>{wording.barcodes}</th>
              <th>{wording.note}</th>
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
