import type { Today } from '@osier/contract';
import { Link } from 'react-router';
import { useSetUp } from '../setup/use-set-up';
import { todayWords as wording } from './words';

/** Records and copies at each branch. */
export function BranchTable({ branches }: Pick<Today, 'branches'>) {
  const names = useSetUp()?.lists.value.branches ?? [];
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>{wording.branch}</th>
          <th className="num">{wording.records}</th>
          <th className="num">{wording.copies}</th>
        </tr>
      </thead>
      <tbody>
        {branches.map((b) => (
          <tr key={b.branch}>
            <td>
              <Link to={`/catalogue?branch=${encodeURIComponent(b.branch)}`}>
                {names.find((n) => n.code === b.branch)?.name ?? b.branch}
              </Link>
            </td>
            <td className="num">{b.records.toLocaleString('en-GB')}</td>
            <td className="num">{b.copies.toLocaleString('en-GB')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
