import { headingGroup, headingsOf } from '@osier/core/headings';
import { subjectString } from '@osier/core/marc';
import type { Candidate, CopyCounts } from '@osier/core/withdrawals';
import { headingKeyKind } from '../store/index-records';
import type { Store } from '../store/store';
import { copiesOfTitles, headingsOnce, type CopyOfTitle } from './queries';

/** How many copies some records have, where and of which part; and for records all of whose copies are among `codes`, which headings only they carry. */
export async function countsOf(
  store: Store,
  records: readonly number[],
  codes: readonly string[],
): Promise<(c: Candidate) => CopyCounts> {
  const byRecord = new Map<number, CopyOfTitle[]>();
  for (const row of await copiesOfTitles(store, records)) {
    const own = byRecord.get(row.record);
    if (own) own.push(row);
    else byRecord.set(row.record, [row]);
  }
  const listed = new Set(codes);
  const whole = [...byRecord].filter(([, all]) => all.every((c) => listed.has(c.barcode))).map(([id]) => id);
  const headings = await soleHeadings(store, whole);
  return ({ recordId, branch, part }) => {
    const all = byRecord.get(recordId) ?? [];
    return {
      anywhere: all.length,
      atBranch: all.filter((c) => c.branch === branch).length,
      ofPart: all.some((c) => c.part !== part) && part !== '' ? all.filter((c) => c.part === part).length : 0,
      headings: headings.get(recordId) ?? [],
    };
  };
}

/** A heading as it is read, subdivisions behind dashes. */
const HEADING = { tag: '650', ind1: ' ', ind2: ' ' };

/** The headings of each of some records that no other record carries, as they are written there. */
export async function soleHeadings(
  store: Store,
  records: readonly number[],
): Promise<ReadonlyMap<number, readonly string[]>> {
  if (records.length === 0) return new Map();
  const once = new Map<number, Set<string>>();
  for (const { record, kind, key } of await headingsOnce(store, records))
    once.set(record, (once.get(record) ?? new Set()).add(`${kind} ${key}`));
  const found = new Map<number, readonly string[]>();
  for (const { id, value } of await store.readMany('record', [...once.keys()])) {
    const own = headingsOf(value).filter((h) =>
      once.get(id)?.has(`${headingKeyKind(headingGroup(h))} ${h.key}`),
    );
    found.set(id, [...new Set(own.map((h) => subjectString({ ...HEADING, subfields: h.subfields })))]);
  }
  return found;
}
