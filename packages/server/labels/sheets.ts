import type { Act } from '@osier/core/acts';
import type { Done, LabelSheetBody, LabelSheetRow } from '@osier/contract';
import { creation, removal, update } from '@osier/core/changes';
import type { LabelSheet } from '@osier/core/labels';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';

/** The sheets of labels that the library keeps, by name. */
export const listLabelSheets = async ({ store }: Services): Promise<LabelSheetRow[]> =>
  (
    await store.find('labelsheet', {
      order: [
        ['name', 'ASC'],
        ['id', 'ASC'],
      ],
    })
  ).map(({ id, version, value: sheet }) => ({ id, version, sheet }));

/** Keeps a sheet under its name; with a number, that sheet becomes this one. */
export const keepLabelSheet = (
  { store }: Services,
  person: number,
  { sheet, id, version }: LabelSheetBody,
): Promise<Done & { id: number }> =>
  commitPlan(store, person, async (s) => {
    const others = (await s.find('labelsheet')).filter((o) => o.id !== id);
    if (others.some((o) => o.value.name.toLowerCase() === sheet.name.toLowerCase()))
      throw wrong('sheet.name', `There is a sheet “${sheet.name}” already.`);
    if (id === undefined) {
      const made = await s.nextIds('labelsheet', 1);
      return { did: keepSheetAct('kept', sheet), id: made, changes: [creation('labelsheet', made, sheet)] };
    }
    const held = await s.read('labelsheet', id);
    if (!held) throw notFound(`Sheet of labels ${id}`);
    return {
      did: keepSheetAct('changed', sheet),
      id,
      changes: [update('labelsheet', { ...held, version: version ?? held.version }, sheet)],
    };
  });

/** Deletes a sheet of labels. */
export const removeLabelSheet = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('labelsheet', id);
    if (!held) throw notFound(`Sheet of labels ${id}`);
    return {
      did: keepSheetAct('deleted', held.value),
      changes: [removal('labelsheet', { ...held, version })],
    };
  });

const keepSheetAct = (how: 'kept' | 'changed' | 'deleted', { name: sheet }: LabelSheet): Act => ({
  ...{ act: 'keep-sheet', names: { sheet }, how },
});
