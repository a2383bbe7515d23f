import type { SheetBody, SheetRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import { sheetProblems, type SheetContext, type SupplierSheet } from '@osier/core/deliveries';
import { BUILT_IN } from '@osier/core/recipes';
import type { Act } from '@osier/core/acts';
import { notFound, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** What settings are checked against: lists, rolls and recipes as they are now. */
export async function sheetContext({ store }: { readonly store: Store }): Promise<SheetContext> {
  const recipes = await store.find('recipe');
  return {
    lists: (await store.lists()).value,
    rolls: await store.find('roll', { order: [['id', 'ASC']] }),
    recipes: [...BUILT_IN.map((r) => r.id), ...recipes.map((r) => String(r.id))],
  };
}

/** The supplier sheets by name. */
export const listSheets = async ({ store }: Services): Promise<SheetRow[]> =>
  (
    await store.find('sheet', {
      order: [
        ['name', 'ASC'],
        ['id', 'ASC'],
      ],
    })
  ).map(({ id, version, value }) => ({
    id,
    version,
    sheet: value,
  }));

async function sound(store: Store, body: SheetBody['sheet'], own: number | null): Promise<SupplierSheet> {
  const sheet = { ...body, name: body.name.trim() } as unknown as SupplierSheet;
  const others = (await store.find('sheet')).filter((s) => s.id !== own).map((s) => s.value);
  const problems = sheetProblems(sheet, await sheetContext({ store }), others);
  if (problems.length) throw wrongFields(problems);
  return sheet;
}

/** Keeps a new supplier sheet. */
export const keepSheet = ({ store }: Services, person: number, body: SheetBody) =>
  commitPlan(store, person, async (s) => {
    const sheet = await sound(s, body.sheet, null);
    const id = await s.nextIds('sheet', 1);
    const did = setUpAct('made', sheet.name);
    return { did, id, changes: [creation('sheet', id, sheet)] };
  });

/** Changes a supplier sheet. */
export const changeSheet = (
  { store }: Services,
  person: number,
  id: number,
  body: SheetBody & { version: number },
) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('sheet', id);
    if (!held) throw notFound(`Supplier sheet ${id}`);
    const sheet = await sound(s, body.sheet, id);
    const did = setUpAct('changed', sheet.name);
    const changes = [update('sheet', { ...held, version: body.version }, sheet)];
    return { did, id, changes };
  });

/** Deletes a supplier sheet. Deliveries keep their settings; only new ones no longer find the sheet. */
export const removeSheet = ({ store }: Services, person: number, id: number, version: number) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('sheet', id);
    if (!held) throw notFound(`Supplier sheet ${id}`);
    const did = setUpAct('deleted', held.value.name);
    return { did, changes: [removal('sheet', { ...held, version })] };
  });

const setUpAct = (how: 'made' | 'changed' | 'deleted', name: string): Act => ({
  act: 'set-up',
  what: 'sheet',
  how,
  names: { name },
});
