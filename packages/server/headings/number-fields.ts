import {
  headingGroup,
  headingIdentity,
  headingsOf,
  numberForRecords,
  withHeadingNumbers,
  type HeadingUse,
} from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import type { Store } from '../store/store';
import { headingsWithKeys } from './queries';

/** Records with the numbers of their headings in their fields ($0), as far as the headings have one of an agency. */
export async function withNumbersOfHeadings(
  store: Store,
  records: readonly MarcRecord[],
): Promise<MarcRecord[]> {
  const uses = new Map<string, HeadingUse>();
  for (const record of records) for (const use of headingsOf(record)) uses.set(headingIdentity(use), use);
  const found = await headingsWithKeys(
    store,
    [...uses.values()].map((use) => ({ group: headingGroup(use), key: use.key })),
  );
  const own = found.filter((f) => f.isOwn);
  const held = new Map(
    (await store.readMany('heading', [...new Set(own.map((f) => f.heading))])).map((h) => [
      Number(h.id),
      h.value,
    ]),
  );
  const numbers = new Map<string, string>(
    own.flatMap(({ group, key, heading }) => {
      const value = held.get(heading);
      const number = value ? numberForRecords(value) : null;
      return number === null ? [] : [[`${group} ${key}`, number] as const];
    }),
  );
  return records.map((r) => withHeadingNumbers(r, (use) => numbers.get(headingIdentity(use)) ?? null));
}
