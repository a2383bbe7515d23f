import type { Today } from '@osier/contract';
import { Link } from 'react-router';
import { BarTable } from '../../parts/BarTable';
import { useSetUp } from '../setup/use-set-up';
import { catalogueWords as wording } from './words';

/** The most frequent findings of the catalogue, each a way to the records that have it. */
export function FrequentFindings({ findings, most }: Pick<Today, 'findings'> & { most: number }) {
  const checks = useSetUp()?.checks;
  const rows = findings.slice(0, most).map(({ value, n }) => ({
    key: value,
    name: checks?.find((c) => c.rule === value)?.title ?? value,
    n,
    to: `/catalogue?finding=${encodeURIComponent(value)}`,
  }));
  const more = findings.length - rows.length;
  return (
    <>
      <BarTable caption={wording.recordsByFinding} of={wording.records} rows={rows} />
      {more > 0 ? (
        <p className="faded">
          {wording.andMoreKindsIn(more.toLocaleString('en-GB'))}{' '}
          <Link to="/catalogue">{wording.catalogue}</Link>
          {wording.underFindings}
        </p>
      ) : null}
    </>
  );
}
