import type { Act } from '@osier/core/acts';
import type { Done, LocalFieldBody, LocalFieldRow } from '@osier/contract';
import { counted, creation, removal, update } from '@osier/core/changes';
import { localFieldProblems, type KeptLocalField, type LocalField } from '@osier/core/holdings';
import { notFound, wrong, wrongFields } from '../http/problem';
import { countLocalValues } from '../projections/local-values';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** The local fields of copies, in the order in which they were made. */
export const localFieldsOf = (store: Store): Promise<KeptLocalField[]> =>
  store.find('localfield', { order: [['id', 'ASC']] });

/** The local fields; `isCounted` with how many copies have something in each. */
export async function listLocalFields({ store }: Services, isCounted: boolean): Promise<LocalFieldRow[]> {
  const [held, values] = [
    await store.find('localfield', { order: [['id', 'ASC']] }),
    isCounted ? await countLocalValues(store) : null,
  ];
  return held.map(({ id, version, value: { name, form, choices, types } }) => ({
    ...{ id, version },
    field: { name, form, choices: [...choices], types: [...types] },
    values: values && (values.get(id) ?? 0),
  }));
}

/** The field as it is kept; throws what is wrong with it. */
async function asKept(store: Store, body: LocalField, own: number | null): Promise<LocalField> {
  const others = (await store.find('localfield')).filter((f) => f.id !== own).map((f) => f.value);
  const problems = localFieldProblems(body, others, (await store.lists()).value.types);
  if (problems.length) throw wrongFields(problems);
  const { name, form, choices, types } = body;
  return {
    name: name.trim(),
    form,
    choices: choices.map((c) => c.trim()).filter(Boolean),
    types: [...types],
  };
}

/** Keeps a new local field. */
export const keepLocalField = (
  { store }: Services,
  person: number,
  { field: body }: LocalFieldBody,
): Promise<Done & { id: number }> =>
  commitPlan(store, person, async (s) => {
    const field = await asKept(s, body, null);
    const id = await s.nextIds('localfield', 1);
    return { did: setUpAct('made', field), id, changes: [creation('localfield', id, field)] };
  });

/** Changes a local field. What it holds is another only while no copy has something in it. */
export const changeLocalField = (
  { store }: Services,
  person: number,
  id: number,
  { version, field: body }: LocalFieldBody & { readonly version: number },
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('localfield', id);
    if (!held) throw notFound(`Local field ${id}`);
    const field = await asKept(s, body, id);
    const values = (await countLocalValues(s)).get(id) ?? 0;
    if (field.form !== held.value.form && values > 0)
      throw wrong('form', `${counted(values, 'copy has', 'copies have')} something in it; clear that first.`);
    return { did: setUpAct('changed', field), changes: [update('localfield', { ...held, version }, field)] };
  });

/** Deletes a local field. What copies have in it is kept with them, unseen, for the day on which this is undone. */
export const removeLocalField = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('localfield', id);
    if (!held) throw notFound(`Local field ${id}`);
    const values = (await countLocalValues(s)).get(id) ?? 0;
    return {
      did: setUpAct('deleted', held.value, values),
      changes: [removal('localfield', { ...held, version })],
    };
  });

const setUpAct = (how: 'made' | 'changed' | 'deleted', { name }: LocalField, values = 0): Act => ({
  act: 'set-up',
  what: 'localfield',
  how,
  names: { name },
  ...(values && { values }),
});
