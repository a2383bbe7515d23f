import type { HeadingBody } from '@osier/contract';
import { quoted, type Act } from '@osier/core/acts';
import { update } from '@osier/core/changes';
import {
  headingGroup,
  headingIdentity,
  headingText,
  identityOf,
  incomingAuthority,
  seeFromKey,
  seeFroms,
  type Heading,
} from '@osier/core/headings';
import { changedTags, marcOf } from '../catalogue/records';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { refuseMerging } from './merging';
import { headingsWithKeys } from './queries';

/** Refuses see-froms (4XX) that were not there before and are a heading already: its own, or another. */
export async function refuseCircles(
  store: Store,
  id: number | null,
  before: Heading,
  after: Heading,
  field: 'marc' | 'seeFroms',
): Promise<void> {
  const known = new Set(seeFroms(before).map(seeFromKey));
  const own = identityOf(after);
  const fresh = seeFroms(after)
    .map(seeFromKey)
    .filter((key) => !known.has(key));
  if (fresh.includes(own.key))
    throw wrong(field, 'A see-from (4XX) is the form of the heading itself. Take it away.');
  const group = headingGroup(own);
  const found = await headingsWithKeys(
    store,
    fresh.map((key) => ({ group, key })),
  );
  const other = found.find((f) => f.isOwn && f.heading !== id);
  const [held] = other ? await store.readMany('heading', [other.heading]) : [];
  if (held)
    throw wrong(
      field,
      `The see-from ${quoted(headingText(held.value))} is heading ${held.id} here. Merge the two instead.`,
    );
}

/** Saves an authority record. Its form stays what it is: that is changed with the records that carry it. */
export const saveHeading = (
  { store }: Services,
  person: number,
  id: number,
  { version, marc: body }: HeadingBody,
): Promise<{ entry: number; version: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const [held] = await s.readMany('heading', [id]);
    if (!held) throw notFound(`Heading ${id}`);
    if (held.value.mergedInto !== null)
      throw wrong('marc', `This heading was merged into heading ${held.value.mergedInto}.`);
    await refuseMerging(s, [held]);
    const marc = marcOf(body);
    const { heading, problem } = incomingAuthority(marc);
    if (!heading) throw wrong('marc', problem ?? 'This is no authority record.');
    const after: Heading = { ...heading, mergedInto: null };
    if (headingIdentity(identityOf(after)) !== headingIdentity(identityOf(held.value)))
      throw wrong(
        'marc',
        `The form (1XX) or its vocabulary (008/11) is another. Change the form with “Change form…”, so that the records follow.`,
      );
    await refuseCircles(s, id, held.value, after, 'marc');
    const did: Act = {
      act: 'edit-heading',
      names: { heading: headingText(after) },
      tags: changedTags(held.value.marc, marc),
    };
    return { did, version: version + 1, changes: [update('heading', { ...held, version }, after)] };
  });
