import type { WithdrawalListRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import { codeProblem } from '@osier/core/holdings';
import type { WithdrawalListValue } from '@osier/core/withdrawals';
import { quoted, type Act } from '@osier/core/acts';
import { today } from '../day';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { countCodes, openListNamed } from './queries';

/** The withdrawal lists, the newest first. */
export async function listWithdrawals({ store }: Services): Promise<WithdrawalListRow[]> {
  const lists = await store.find('withdrawlist', { order: [['id', 'DESC']] });
  const counts = new Map((await countCodes(store)).map((r) => [r.work, r.n]));
  return lists.map((l) => ({ id: l.id, ...l.value, codes: counts.get(l.id) ?? 0 }));
}

/** Starts a withdrawal list. */
export const startList = (
  { store }: Services,
  person: { id: number; name: string },
  body: { name: string; branch: string; reason: string },
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const problem = codeProblem('branch', 'branch', body.branch, (await s.lists()).value.branches);
    if (problem) throw wrongFields([problem]);
    const { name } = body;
    const same = await openListNamed(s, name);
    if (same) throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const id = await s.nextIds('withdrawlist', 1);
    const value: WithdrawalListValue = { ...body, state: 'open', by: person.name, madeOn: today() };
    const did: Act = { act: 'start-list', names: { list: name } };
    return { did, id, changes: [creation('withdrawlist', id, value)] };
  });

/** Changes name, reason or branch of an open list. */
export const changeList = (
  { store }: Services,
  person: number,
  id: number,
  { version, ...body }: { version: number; name: string; branch: string; reason: string },
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const list = await openList(s, id);
    const problem = codeProblem('branch', 'branch', body.branch, (await s.lists()).value.branches);
    if (problem) throw wrongFields([problem]);
    const same = await openListNamed(s, body.name);
    if (same && same.id !== id)
      throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const did: Act = { act: 'change-list', names: { list: body.name } };
    return { did, changes: [update('withdrawlist', { ...list, version }, { ...list.value, ...body })] };
  });

/** Deletes an open list; the scans stay with its number, so that undoing brings all of it back. */
export const deleteList = (
  { store }: Services,
  person: number,
  id: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const list = await openList(s, id);
    const did: Act = { act: 'delete-list', names: { list: list.value.name } };
    return { did, changes: [removal('withdrawlist', list)] };
  });

/** A list that can be worked on; one that is done is refused. */
export async function openList(store: Store, id: number): Promise<StoredObject<'withdrawlist'>> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  if (list.value.state === 'done') throw wrong('list', 'This list is done. Start a new one.');
  return list;
}
