import { BarTable } from '../../parts/BarTable';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useSetUp } from '../setup/use-set-up';
import { useToday } from '../today/use-today';

/** What the pane shows when no pile is opened: the copies by branch, type and status. */
export function CopiesOverview() {
  const { data } = useToday();
  const lists = useSetUp()?.lists.value;
  if (!data) return null;
  const named = (codes: readonly { code: string; name: string }[] | undefined, value: string) =>
    codes?.find((c) => c.code === value)?.name ?? value;
  return (
    <Overview>
      <OverviewSection title="Piles">
        <p>
          A pile is a named set of copies or records to work on together. Open one at the left to scan onto
          it, to clean what is on it with a recipe, or to see it in the Catalogue.
        </p>
      </OverviewSection>
      <OverviewSection title="Copies by branch">
        <BarTable
          caption="Copies by branch"
          of="Copies"
          rows={data.branches.map((b) => ({
            key: b.branch,
            name: named(lists?.branches, b.branch),
            n: b.copies,
            to: `/catalogue?branch=${encodeURIComponent(b.branch)}`,
          }))}
        />
      </OverviewSection>
      <OverviewSection title="Copies by type">
        <BarTable
          caption="Copies by type"
          of="Copies"
          rows={data.copyTypes.map((t) => ({ key: t.value, name: named(lists?.types, t.value), n: t.n }))}
        />
      </OverviewSection>
      <OverviewSection title="Copies by status">
        <BarTable
          caption="Copies by status"
          of="Copies"
          rows={data.copyStatuses.map((s) => ({ key: s.value, name: s.value, n: s.n }))}
        />
      </OverviewSection>
    </Overview>
  );
}
