import { may, type WithdrawalListRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import { codeProblem } from '@osier/core/holdings';
import type { WithdrawalListValue } from '@osier/core/withdrawals';
import { quoted, type Act } from '@osier/core/acts';
import { today } from '../day';
import { notFound, wrong, wrongFields } from '../http/problem';
import { person as personOf } from '../people/people';
import { personById } from '../people/queries';
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
  { confirmer, ...body }: ListBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    await refuseWrong(s, body.branch, confirmer);
    const { name } = body;
    const same = await openListNamed(s, name);
    if (same) throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const id = await s.nextIds('withdrawlist', 1);
    const value: WithdrawalListValue = {
      ...{ ...body, state: 'open', by: person.name, madeOn: today() },
      ...(confirmer !== 0 && { confirmer }),
    };
    const did: Act = { act: 'start-list', names: { list: name } };
    return { did, id, changes: [creation('withdrawlist', id, value)] };
  });

/** A list as it is sent. */
interface ListBody {
  readonly name: string;
  readonly branch: string;
  readonly reason: string;
  /** 0 for anybody who may. */
  readonly confirmer: number;
}

/** Refuses a branch that is not there, and a person who may not confirm. */
async function refuseWrong(store: Store, branch: string, confirmer: number): Promise<void> {
  const problem = codeProblem('branch', 'branch', branch, (await store.lists()).value.branches);
  if (problem) throw wrongFields([problem]);
  if (confirmer === 0) return;
  const row = await personById(store, confirmer);
  const who = row && personOf(row);
  if (!row || !who || row.active !== 1 || !may(who.role, 'confirm withdrawals', who.rights))
    throw wrong(
      'confirmer',
      `${who?.name ?? 'This person'} may not confirm withdrawals. Choose another person.`,
    );
}

/** Changes name, reason, branch or the person to confirm of an open list. */
export const changeList = (
  { store }: Services,
  person: number,
  id: number,
  { version, confirmer, ...body }: ListBody & { version: number },
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const list = await openList(s, id);
    await refuseWrong(s, body.branch, confirmer);
    const same = await openListNamed(s, body.name);
    if (same && same.id !== id)
      throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const did: Act = { act: 'change-list', names: { list: body.name } };
    const { confirmer: _, ...rest } = list.value;
    const next: WithdrawalListValue = { ...rest, ...body, ...(confirmer !== 0 && { confirmer }) };
    return { did, changes: [update('withdrawlist', { ...list, version }, next)] };
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
