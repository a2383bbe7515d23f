import type { RollBody, RollRow } from '@osier/contract';
import {
  nextSerial,
  rollCheck,
  rollCounts,
  rollNumber,
  rollProblems,
  serialIn,
  spoiledAsKept,
  isSpoiled,
  type LabelRoll,
} from '@osier/core/barcodes';
import { counted, creation, removal, update } from '@osier/core/changes';
import { quoted, type Act } from '@osier/core/acts';
import { codeProblem } from '@osier/core/holdings';
import type { StoredObject } from '@osier/core/kinds';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { rollUse, usedNumbers } from '../projections/roll-numbers';
import type { Store } from '../store/store';

/** All label rolls with how much of each is used. */
export async function listRolls({ store }: Services): Promise<RollRow[]> {
  const rolls = await store.find('roll', {
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return Promise.all(
    rolls.map(async (held) => {
      const { id, version, value } = held;
      const use = await rollUse(store, held);
      const serial = nextSerial(value, use.last);
      const { branches = [], types = [], ...more } = value;
      const { note = '', spoiled = [], warnBelow = 0, isClosed = false, ...roll } = more;
      return {
        id,
        version,
        roll: {
          ...roll,
          check: rollCheck(value),
          ...{ branches: [...branches], types: [...types] },
          ...{ note, spoiled: [...spoiled], warnBelow, isClosed },
        },
        counts: rollCounts(value, use),
        next: serial === null ? null : rollNumber(value, serial),
      };
    }),
  );
}

/** The roll as it may be kept: beside the others, and not smaller than what of it is used. */
async function sound(store: Store, roll: LabelRoll, own: StoredObject<'roll'> | null): Promise<LabelRoll> {
  const others = (await store.find('roll')).filter((r) => r.id !== own?.id).map((r) => r.value);
  const problems = rollProblems(roll, others);
  const lists = (await store.lists()).value;
  const codes = (field: 'branches' | 'types', what: string) =>
    (roll[field] ?? []).flatMap((c) => codeProblem(field, what, c, lists[field])?.message ?? []);
  for (const message of codes('branches', 'branch')) problems.push({ field: 'branches', message });
  for (const message of codes('types', 'type')) problems.push({ field: 'types', message });
  if (own !== null) problems.push(...(await numbersLost(store, roll, own)));
  if (problems.length) throw wrongFields(problems);
  return {
    ...roll,
    ...{ name: roll.name.trim(), supplier: roll.supplier.trim(), note: roll.note?.trim() ?? '' },
    spoiled: spoiledAsKept(roll),
  };
}

/** Numbers that are on copies, or were, stay numbers of their roll, and do not become spoiled. */
async function numbersLost(store: Store, roll: LabelRoll, held: StoredObject<'roll'>) {
  const used = await usedNumbers(store, held.id);
  const lost = used.filter((number) => serialIn(roll, number) === null);
  // One that was spoiled before was given to its copy on purpose.
  const spoiled = used.filter((number) => isSpoiled(roll, number) && !isSpoiled(held.value, number));
  const span = (numbers: readonly string[]) =>
    numbers.length === 1 ? numbers[0]! : `${numbers[0]!} to ${numbers.at(-1)!}`;
  const of = (numbers: readonly string[]) =>
    `${counted(numbers.length, 'number')} of this roll ${numbers.length === 1 ? 'is' : 'are'} used`;
  return [
    ...(lost.length
      ? [{ field: 'to' as const, message: `${of(lost)} and would fall outside it: ${span(lost)}.` }]
      : []),
    ...(spoiled.length
      ? [{ field: 'spoiled' as const, message: `${of(spoiled)} and cannot be spoiled: ${span(spoiled)}.` }]
      : []),
  ];
}

/** Keeps a new label roll. */
export const keepRoll = ({ store }: Services, person: number, body: RollBody) =>
  commitPlan(store, person, async (s) => {
    const roll = await sound(s, body.roll, null);
    const id = await s.nextIds('roll', 1);
    const did = setUpAct('made', roll.name);
    return { did, id, changes: [creation('roll', id, roll)] };
  });

/** Changes a label roll; numbers of it that are used stay in it. */
export const changeRoll = (
  { store }: Services,
  person: number,
  id: number,
  body: RollBody & { version: number },
) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('roll', id);
    if (!held) throw notFound(`Label roll ${id}`);
    const roll = await sound(s, body.roll, held);
    const did = setUpAct('changed', roll.name);
    return {
      did,
      id,
      changes: [update('roll', { ...held, version: body.version }, roll)],
    };
  });

/** Deletes a label roll. One that a supplier sheet names stays. */
export const removeRoll = ({ store }: Services, person: number, id: number, version: number) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('roll', id);
    if (!held) throw notFound(`Label roll ${id}`);
    const user = (await s.find('sheet')).find((x) => x.value.roll === id);
    if (user)
      throw wrong('roll', `The supplier sheet ${quoted(user.value.name)} takes its numbers from this roll.`);
    const did = setUpAct('deleted', held.value.name);
    return { did, changes: [removal('roll', { ...held, version })] };
  });

const setUpAct = (how: 'made' | 'changed' | 'deleted', name: string): Act => ({
  act: 'set-up',
  what: 'roll',
  how,
  names: { name },
});
