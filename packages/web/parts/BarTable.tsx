import { Link } from 'react-router';
import './bar-table.css';
import { partWords as wording } from './words';

/** One row of a bar table. */
export interface BarRow {
  readonly key: string;
  readonly name: string;
  readonly n: number;
  /** Where those that are counted are shown. */
  readonly to?: string;
}

/** Counts as a table in which each row has a bar of its length: read as a picture, heard as a table, each a way to what is counted. */
export function BarTable({ caption, of, rows }: { caption: string; of: string; rows: readonly BarRow[] }) {
  const most = Math.max(1, ...rows.map((r) => r.n));
  return (
    <table className="bar-table">
      <caption className="unseen">{caption}</caption>
      <thead className="unseen">
        <tr>
          <th>{wording.kind}</th>
          <th>{of}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.key}>
            <th scope="row">{r.to ? <Link to={r.to}>{r.name}</Link> : r.name}</th>
            <td className="num">{r.n.toLocaleString('en-GB')}</td>
            <td aria-hidden>
              <span className="bar" style={{ width: `${(100 * r.n) / most}%` }} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
