import type { CopyCharts, CopySearch } from '@osier/contract';
import type { Services } from '../services';
import { copiesFound } from './list';
import { groupsOfCopies, type CopyGroup } from './queries.charts';

/** How the copies found are spread over classes, years of publication and statuses; each of them is counted, so this is asked for by itself. */
export async function chartCopies(
  { store: { aside: store } }: Services,
  search: CopySearch,
): Promise<CopyCharts> {
  const groups = await groupsOfCopies(store, await copiesFound(store, search));
  const by = (part: 'class' | 'decade' | 'status'): { value: string; n: number }[] => {
    const counts = new Map<string, number>();
    for (const group of groups) counts.set(group[part], (counts.get(group[part]) ?? 0) + group.n);
    return [...counts].map(([value, n]) => ({ value, n })).sort((a, b) => (a.value < b.value ? -1 : 1));
  };
  return {
    total: groups.reduce((n, g: CopyGroup) => n + g.n, 0),
    classes: by('class'),
    decades: by('decade'),
    statuses: by('status'),
  };
}
