import type { AlikeRow } from '@osier/contract';
import type { MarcRecord } from '@osier/core/marc';
import { DEFAULT_RULE, describe, findMatches, type Match } from '@osier/core/matching';
import { candidatesFor } from '../deliveries/find-candidates';
import { keysOf } from '../deliveries/keys';
import type { Store } from '../store/store';
import { briefsOf } from './queries';

/** The records of the catalogue that may be the same as one that is not among them, the surest first. */
export async function matchesHeld(store: Store, marc: MarcRecord): Promise<Match[]> {
  const description = describe(marc);
  const sharing = await candidatesFor(store, keysOf(description));
  return findMatches(description, [...sharing.values()].flat(), DEFAULT_RULE);
}

/** The same, as they are shown before the record is saved. */
export async function alikeRows(store: Store, marc: MarcRecord): Promise<AlikeRow[]> {
  const matches = await matchesHeld(store, marc);
  const briefs = new Map(
    (
      await briefsOf(
        store,
        matches.map((m) => m.record),
      )
    ).map((b) => [b.id, b]),
  );
  return matches.flatMap(({ record, sure, points, doubts }) => {
    const brief = briefs.get(record);
    if (!brief) return [];
    const { title, author, year, copies, branches } = brief;
    const shared = points.map((p) => p.said);
    return [
      {
        record,
        title,
        author,
        year,
        sure,
        shared,
        doubts,
        copies,
        branches: branches.split(' ').filter(Boolean),
      },
    ];
  });
}
