import { briefOf } from '@osier/core/access';
import { creation, removal } from '@osier/core/changes';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';

/** Takes a record out of what the public sees, or shows it again. */
export const suppressRecord = (
  { store }: Services,
  person: number,
  id: number,
  isSuppressed: boolean,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const [held, standing] = [await s.read('record', id), await s.read('suppressed', id)];
    if (!held) throw notFound(`Record ${id}`);
    if (isSuppressed === (standing !== null))
      throw wrong(
        'isSuppressed',
        isSuppressed ? 'This record is suppressed already.' : 'The public sees this record already.',
      );
    return {
      did: {
        act: 'suppress',
        names: { title: briefOf(held.value).title },
        how: isSuppressed ? 'suppressed' : 'shown',
      },
      changes: [standing ? removal('suppressed', standing) : creation('suppressed', id, { reason: '' })],
    };
  });
