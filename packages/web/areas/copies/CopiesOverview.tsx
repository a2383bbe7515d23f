import { Link } from 'react-router';
import { BarTable } from '../../parts/BarTable';
import { Overview, OverviewSection } from '../../parts/Overview';
import { SavedSearches } from '../../parts/searches/SavedSearches';
import { useSetUp } from '../setup/use-set-up';
import { useToday } from '../today/use-today';
import type { CopyFilterValues } from './CopyFilters';
import { FoundCharts } from './FoundCharts';
import { copiesWords as wording } from './words';

/** What the pane shows when nothing is opened: the copies by branch, type and status; `found` is what the list beside it searches for. */
export function CopiesOverview({ found }: { found?: CopyFilterValues }) {
  const { data } = useToday();
  const lists = useSetUp()?.lists.value;
  if (!data) return null;
  const named = (codes: readonly { code: string; name: string }[] | undefined, value: string) =>
    codes?.find((c) => c.code === value)?.name ?? value;
  return (
    <Overview>
      <SavedSearches of="copy" />
      {found ? (
        <OverviewSection title={wording.labels}>
          <Link to="/copies/labels?since=">{wording.labelsOfMine}</Link>
        </OverviewSection>
      ) : null}
      {found ? <FoundCharts key={JSON.stringify(found)} values={found} /> : null}
      <OverviewSection title={wording.piles}>
        <p>{wording.aPileIsANamedSet}</p>
      </OverviewSection>
      <OverviewSection title={wording.copiesByBranch}>
        <BarTable
          caption={wording.copiesByBranch}
          of={wording.copies}
          rows={data.branches.map((b) => ({
            key: b.branch,
            name: named(lists?.branches, b.branch),
            n: b.copies,
            to: `/copies/all?branch=${encodeURIComponent(b.branch)}`,
          }))}
        />
      </OverviewSection>
      <OverviewSection title={wording.copiesByType}>
        <BarTable
          caption={wording.copiesByType}
          of={wording.copies}
          rows={data.copyTypes.map((t) => ({
            key: t.value,
            name: named(lists?.types, t.value),
            n: t.n,
            to: `/copies/all?type=${encodeURIComponent(t.value)}`,
          }))}
        />
      </OverviewSection>
      <OverviewSection title={wording.copiesByStatus}>
        <BarTable
          caption={wording.copiesByStatus}
          of={wording.copies}
          rows={data.copyStatuses.map((s) => ({
            key: s.value,
            name: s.value,
            n: s.n,
            to: `/copies/all?status=${encodeURIComponent(s.value)}`,
          }))}
        />
      </OverviewSection>
    </Overview>
  );
}
