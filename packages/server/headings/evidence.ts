import type { SeenHeadings } from '@osier/contract';
import { judgedWith, seenInRecords, shorterFirst, type SeenHeading } from '@osier/core/headings';
import { notFound } from '../http/problem';
import { partnersAmong } from '../projections/look-alikes';
import type { Store } from '../store/store';
import { shownHeadings } from './headings';
import { firstCarrying } from './queries';

/** Records of each heading that are looked at. */
const MOST = 60;

/** What the records of some headings say for and against their being one; of a heading with many records, the first of them. */
export async function headingEvidence(store: Store, ids: readonly number[]): Promise<SeenHeadings> {
  const held = await store.readMany('heading', ids);
  if (held.length !== new Set(ids).size) throw notFound('One of these headings');
  const carried = await firstCarrying(store, ids, MOST + 1);
  const of = (id: number) => carried.filter((c) => c.heading === id).map((c) => c.record);
  const looked = new Set(ids.flatMap((id) => of(id).slice(0, MOST)));
  const records = await store.readMany('record', [...looked]);
  const seen = seenInRecords(
    held.map(({ id, value }) => ({ id, heading: value })),
    records.map((r) => r.value),
  );
  const shown = await shownHeadings(store, ids);
  const partners = await partnersAmong(store, ids);
  const pairs = seen.flatMap((a, i) =>
    seen.slice(i + 1).map((b) => {
      const { verdict, evidence } = judgedWith(a, b, rivalsOf(a, b, partners));
      return { a: a.id, b: b.id, verdict, evidence: [...evidence] };
    }),
  );
  return {
    headings: seen.map(({ id, years, languages, roles, sources }) => ({
      ...shown.get(id)!,
      ...{ languages: [...languages], roles: [...roles], sources: [...sources] },
      years: years && { first: years[0], last: years[1] },
      isPart: of(id).length > MOST,
    })),
    pairs,
  };
}

/** How many others look like the one that says less, and not like the other. */
function rivalsOf(
  a: SeenHeading,
  b: SeenHeading,
  partners: ReadonlyMap<number, ReadonlySet<number>>,
): number {
  const [short, long] = shorterFirst(a, b);
  const ofLong = partners.get(long.id);
  return [...(partners.get(short.id) ?? [])].filter((id) => id !== long.id && !ofLong?.has(id)).length;
}
