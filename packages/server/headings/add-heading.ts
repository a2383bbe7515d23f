import type { AddHeadingBody } from '@osier/contract';
import { quoted, type Act } from '@osier/core/acts';
import { creation } from '@osier/core/changes';
import {
  headingGroup,
  headingText,
  identityOf,
  isEstablished,
  kindOfTracing,
  newAuthority,
  unnamedHeading,
  vocabularyOfNew,
  type Heading,
} from '@osier/core/headings';
import type { DataField } from '@osier/core/marc';
import { today } from '../day';
import { ProblemError, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { typedForm } from './merging';
import { nearAllowed } from './near';
import { headingsWithKeys } from './queries';
import { refuseCircles } from './save-heading';

/** Refuses a form that is a heading already, or leads to one. */
async function refuseKnown(store: Store, heading: Heading): Promise<void> {
  const { kind, vocabulary, key } = identityOf(heading);
  const group = headingGroup({ kind, vocabulary });
  const [found] = await headingsWithKeys(store, [{ group, key }]);
  const [held] = found ? await store.readMany('heading', [found.heading]) : [];
  if (!found || !held) return;
  const name = `${quoted(headingText(held.value))} (heading ${held.id})`;
  if (!found.isOwn) throw wrong('form', `This form is a see-from of ${name}.`);
  throw wrong(
    'form',
    isEstablished(held.value)
      ? `There is ${name} already.`
      : `There is ${name} already, as records have it. Open it to add its sources.`,
  );
}

/** See-froms as they were typed, as 4XX. */
function typedSeeFroms(heading: Heading, typed: readonly string[]): DataField[] {
  try {
    return typed.map((form) => {
      const made = typedForm(heading, form);
      return { ...made, tag: `4${made.tag.slice(1)}` };
    });
  } catch (error) {
    if (error instanceof ProblemError) throw wrong('seeFroms', error.problem.detail);
    throw error;
  }
}

/** Makes a heading by hand, with its authority record. One that looks like an established one is made only when the person says so. */
export const addHeading = (
  { store }: Services,
  person: number,
  body: AddHeadingBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { source } = body;
    const vocabulary = vocabularyOfNew(body.kind, body.vocabulary);
    const unnamed = unnamedHeading(body.kind, vocabulary);
    const form = typedForm(unnamed, body.form);
    const parts = { kind: kindOfTracing(form) ?? body.kind, vocabulary, form, source, on: today() };
    const bare = newAuthority({ ...parts, seeFroms: [] });
    await refuseKnown(s, bare);
    const heading = newAuthority({ ...parts, seeFroms: typedSeeFroms(unnamed, body.seeFroms) });
    await refuseCircles(s, null, bare, heading, 'seeFroms');
    const made = creation('heading', await s.nextIds('heading', 1), heading);
    await nearAllowed(s, [made], body.withErrors);
    const did: Act = { act: 'add-heading', names: { heading: headingText(heading) } };
    return { did, id: made.id, changes: [made] };
  });
