import { api } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { PrinterOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import '../../parts/report.css';
import { withdrawalsWords as wording } from './words';

/** The copies of a list that are to be pulled, in the order of the shelf, to be printed and taken along; what was scanned is ticked. */
export function SlipList({ id, name, children }: { id: number; name: string; children: ReactNode }) {
  const { data: rows } = useApi(api.withdrawals.pull, { params: { id } });
  if (!rows) return null;
  const pulled = rows.filter((r) => r.pulled).length;
  return (
    <div className="report slip-list">
      <div className="piece-head">
        <div>
          <h2>{wording.slipListOf(name)}</h2>
          <p className="faded">{wording.pulledOf(pulled, rows.length)}</p>
        </div>
        <span className="row no-print">
          <Link to={`/withdrawals/${id}`}>{wording.backToTheList}</Link>
          <Button icon={<PrinterOutlined />} onClick={() => window.print()}>
            {wording.print}
          </Button>
        </span>
      </div>
      {children}
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.pulled}</th>
            <th>{wording.place}</th>
            <th>{wording.callNumber}</th>
            <th>{wording.title}</th>
            <th>{wording.barcode}</th>
            <th>{wording.status}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.code}>
              <td>
                {r.pulled ? (
                  wording.isPulled
                ) : (
                  <span className="to-tick" role="img" aria-label={wording.toPull} />
                )}
              </td>
              <td>{r.place}</td>
              <td className="mono">{r.callNumber}</td>
              <td>
                <bdi>{r.title}</bdi>
              </td>
              <td className="mono">{groupedBarcode(r.code)}</td>
              <td>{r.status}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
