import { followable, type Followed, type Heading, type HeadingReader } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import type { Store } from '../store/store';
import { seeFromsLeadingOn } from './queries';

/** The headings whose see-froms these records may carry. A form that is itself a heading, or leads to several, is none of them. */
export async function followedBy(
  store: Store,
  records: readonly MarcRecord[],
  read?: HeadingReader,
): Promise<Followed[]> {
  const wanted = followable(records, read);
  if (wanted.length === 0) return [];
  const rows = await seeFromsLeadingOn(store, wanted);
  const from = new Map<number, Set<string>>();
  for (const { heading, key } of rows) from.set(heading, (from.get(heading) ?? new Set<string>()).add(key));
  const held = await store.readMany('heading', [...from.keys()]);
  return held.map(({ id, value }: { id: number; value: Heading }) => ({
    heading: value,
    from: from.get(id)!,
  }));
}
