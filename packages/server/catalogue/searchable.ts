import { inShelfOrder, type FindPlan, type WordColumn } from '@osier/core/find';
import { ProblemError } from '../http/problem';
import { wordColumnsOf } from '../store/index-records';
import type { Store } from '../store/store';
import { withPlan } from './queries.find';
import type { IdQuery } from './queries.found';

/** The records that a plan finds; throws as `mustBeSearchable`. */
export async function searchable(store: Store, plan: FindPlan): Promise<IdQuery> {
  return withPlan(await mustBeSearchable(store, plan));
}

/**
 * Gives a plan with the places of call numbers as this library shelves them. Throws a 503 with the sentence why while the index of an older version lacks a
 * column that it asks for.
 */
export async function mustBeSearchable(store: Store, plan: FindPlan): Promise<FindPlan> {
  const asked = columnsOf(plan);
  if (asked.size > 0) {
    const there = await wordColumnsOf(store);
    const missing = [...asked].find((column) => !there.includes(column));
    if (missing)
      throw new ProblemError(
        503,
        `“${missing}” cannot be searched yet: the search index is being rebuilt. Try again when that job has ended.`,
      );
  }
  return inShelfOrder(plan, (await store.house()).value.prefixOrder ?? []);
}

function columnsOf(plan: FindPlan): Set<WordColumn> {
  const columns = new Set<WordColumn>();
  const left: FindPlan[] = [plan];
  for (let p = left.pop(); p; p = left.pop())
    if (p.type === 'and' || p.type === 'or') left.push(...p.of);
    else if (p.type === 'not') left.push(p.of);
    else if (p.type === 'words' && p.column !== null) columns.add(p.column === 'public' ? 'local' : p.column);
  return columns;
}
