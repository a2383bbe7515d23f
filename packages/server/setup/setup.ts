import type { HouseBody, ListsBody, SetUp } from '@osier/contract';
import { creation, update } from '@osier/core/changes';
import { CHECKS } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import type { CodeLists } from '@osier/core/holdings';
import type { Act } from '@osier/core/acts';
import { wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { SETTING_ID } from '../store/store';
import type { Store } from '../store/store';
import { codesInUse } from './queries';

/** Lists, rules, people and checks as they are set up. */
export async function setUp({ store, people }: Services): Promise<SetUp> {
  const [lists, house] = [await store.lists(), await store.house()];
  return {
    lists: { version: lists.version, value: lists.value },
    house: { version: house.version, value: house.value },
    people: await people.all(),
    checks: CHECKS.map(({ rule, title, group, source }) => ({ rule, title, group, source })),
  };
}

/** Saves the code lists; a code that is in use cannot be taken away, and none may be there twice. */
export const saveLists = (
  { store }: Services,
  person: number,
  body: ListsBody,
): Promise<{ entry: number; sentence: string }> => commitPlan(store, person, (s) => planLists(s, body));

async function planLists(store: Store, { version, ...body }: ListsBody) {
  const next: CodeLists = body;
  const problems: { field: string; message: string }[] = [];
  for (const [name, list] of [
    ['branches', next.branches],
    ['locations', next.locations],
    ['types', next.types],
    ['funds', next.funds],
    ['suppliers', next.suppliers],
  ] as const) {
    const codes = list.map((e) => e.code);
    const twice = codes.find((c, i) => codes.indexOf(c) !== i);
    if (twice) problems.push({ field: name, message: `The code ${twice} is there twice.` });
  }
  for (const l of next.locations)
    if (!next.branches.some((b) => b.code === l.branch))
      problems.push({
        field: 'locations',
        message: `Location ${l.code} names the branch ${l.branch}, which is not on the list.`,
      });
  const used = await codesInUse(store);
  for (const u of used)
    if (u.code !== '' && !next[u.field].some((e) => e.code === u.code))
      problems.push({
        field: u.field,
        message: `${u.code} is used by ${u.n} ${u.field === 'branches' || u.field === 'locations' ? 'holdings' : 'copies'}; it cannot be deleted.`,
      });
  if (problems.length) throw wrongFields(problems);
  const held = await store.lists();
  const did: Act = {
    act: 'set-up',
    what: 'lists',
    counts: {
      branches: next.branches.length,
      locations: next.locations.length,
      types: next.types.length,
      funds: next.funds.length,
      suppliers: next.suppliers.length,
    },
  };
  const change =
    held.version === 0
      ? creation('lists', SETTING_ID.lists, next)
      : update('lists', { ...held, version }, next);
  return { did, changes: [change] };
}

/** Saves the house rules. */
export const saveHouse = (
  { store }: Services,
  person: number,
  body: HouseBody,
): Promise<{ entry: number; sentence: string }> => commitPlan(store, person, (s) => planHouse(s, body));

async function planHouse(store: Store, { version, ...body }: HouseBody) {
  const held = await store.house();
  const next: HouseRules = { ...held.value, ...body };
  const did: Act = { act: 'set-up', what: 'house' };
  const change =
    held.version === 0
      ? creation('house', SETTING_ID.house, next)
      : update('house', { ...held, version }, next);
  return { did, changes: [change] };
}
