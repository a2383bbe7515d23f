import { briefOf } from '@osier/core/access';
import { counted, removal } from '@osier/core/changes';
import { wrong, notFound } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';

/** Deletes a record with its empty holdings. Copies go by way of a withdrawal list, so that the register has them. */
export const removeRecord = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('record', id);
    if (!held) throw notFound(`Record ${id}`);
    const [holdings, copies] = await Promise.all([
      s.find('holding', { where: { record: id } }),
      s.find('copy', { where: { record: id } }),
    ]);
    if (copies.length)
      throw wrong(
        'copies',
        `${counted(copies.length, 'copy', 'copies')} hang on this record. Withdraw ${copies.length === 1 ? 'it' : 'them'} in Withdrawals: the record goes with the last one.`,
      );
    return {
      did: {
        act: 'delete-record',
        names: { title: briefOf(held.value).title },
        counts: { holdings: holdings.length },
      },
      changes: [...holdings.map((h) => removal('holding', h)), removal('record', { ...held, version })],
    };
  });
