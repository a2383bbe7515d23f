import type { SheetBody, SheetRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import { sheetProblems, type SheetContext, type SupplierSheet } from '@osier/core/deliveries';
import { BUILT_IN } from '@osier/core/recipes';
import { quoted } from '../daybook/sentences';
import { notFound, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';

/** What settings are checked against: lists, rolls and recipes as they are now. */
export async function sheetContext({ store }: Services): Promise<SheetContext> {
  const recipes = await store.rows<{ id: number }>('SELECT id FROM recipes');
  return {
    lists: (await store.lists()).value,
    rolls: await store.select('roll', '1 ORDER BY id'),
    recipes: [...BUILT_IN.map((r) => r.id), ...recipes.map((r) => String(r.id))],
  };
}

export const listSheets = async ({ store }: Services): Promise<SheetRow[]> =>
  (await store.select('sheet', '1 ORDER BY name, id')).map(({ id, version, value }) => ({
    id,
    version,
    sheet: value,
  }));

async function sound(
  services: Services,
  body: SheetBody['sheet'],
  own: number | null,
): Promise<SupplierSheet> {
  const sheet = { ...body, name: body.name.trim() } as unknown as SupplierSheet;
  const others = (await services.store.select('sheet', '1')).filter((s) => s.id !== own).map((s) => s.value);
  const problems = sheetProblems(sheet, await sheetContext(services), others);
  if (problems.length) throw wrongFields(problems);
  return sheet;
}

export async function keepSheet(services: Services, person: number, body: SheetBody) {
  const sheet = await sound(services, body.sheet, null);
  const id = await services.store.nextIds('sheet', 1);
  const sentence = `Made the supplier sheet ${quoted(sheet.name)}`;
  const changes = [creation('sheet', id, sheet)];
  return { id, sentence, entry: await commit(services.store, { act: 'set-up', person, sentence, changes }) };
}

export async function changeSheet(
  services: Services,
  person: number,
  id: number,
  body: SheetBody & { version: number },
) {
  const held = await services.store.read('sheet', id);
  if (!held) throw notFound(`Supplier sheet ${id}`);
  const sheet = await sound(services, body.sheet, id);
  const sentence = `Changed the supplier sheet ${quoted(sheet.name)}`;
  const changes = [update('sheet', { ...held, version: body.version }, sheet)];
  return { id, sentence, entry: await commit(services.store, { act: 'set-up', person, sentence, changes }) };
}

/** Deliveries keep their settings; only new ones no longer find the sheet. */
export async function removeSheet({ store }: Services, person: number, id: number, version: number) {
  const held = await store.read('sheet', id);
  if (!held) throw notFound(`Supplier sheet ${id}`);
  const sentence = `Took the supplier sheet ${quoted(held.value.name)} away`;
  const changes = [removal('sheet', { ...held, version })];
  return { sentence, entry: await commit(store, { act: 'set-up', person, sentence, changes }) };
}
