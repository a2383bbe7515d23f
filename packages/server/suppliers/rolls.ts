import type { RollBody, RollRow } from '@osier/contract';
import { rollCounts, rollNumber, rollProblems, type LabelRoll } from '@osier/core/barcodes';
import { creation, removal, update } from '@osier/core/changes';
import { lastUsed } from '../deliveries/accept-context';
import { quoted } from '../daybook/sentences';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';

/** All label rolls with how much of each is used. */
export async function listRolls({ store }: Services): Promise<RollRow[]> {
  const rolls = await store.select('roll', '1 ORDER BY name, id');
  return Promise.all(
    rolls.map(async ({ id, version, value }) => {
      const last = await lastUsed(store, value);
      const serial = (last ?? value.from - 1) + 1;
      const next = serial > value.to ? null : rollNumber(value, serial);
      return { id, version, roll: value, ...rollCounts(value, last), next };
    }),
  );
}

async function sound({ store }: Services, roll: LabelRoll, own: number | null): Promise<LabelRoll> {
  const others = (await store.select('roll', '1')).filter((r) => r.id !== own).map((r) => r.value);
  const problems = rollProblems(roll, others);
  if (problems.length) throw wrongFields(problems);
  return { ...roll, name: roll.name.trim(), supplier: roll.supplier.trim() };
}

export async function keepRoll(services: Services, person: number, body: RollBody) {
  const roll = await sound(services, body.roll, null);
  const id = await services.store.nextIds('roll', 1);
  const sentence = `Made the label roll ${quoted(roll.name)}`;
  const changes = [creation('roll', id, roll)];
  return { id, sentence, entry: await commit(services.store, { act: 'set-up', person, sentence, changes }) };
}

export async function changeRoll(
  services: Services,
  person: number,
  id: number,
  body: RollBody & { version: number },
) {
  const held = await services.store.read('roll', id);
  if (!held) throw notFound(`Label roll ${id}`);
  const roll = await sound(services, body.roll, id);
  const sentence = `Changed the label roll ${quoted(roll.name)}`;
  const changes = [update('roll', { ...held, version: body.version }, roll)];
  return { id, sentence, entry: await commit(services.store, { act: 'set-up', person, sentence, changes }) };
}

/** A roll that a supplier sheet names cannot be taken away. */
export async function removeRoll({ store }: Services, person: number, id: number, version: number) {
  const held = await store.read('roll', id);
  if (!held) throw notFound(`Label roll ${id}`);
  const user = (await store.select('sheet', '1')).find((s) => s.value.roll === id);
  if (user)
    throw wrong('roll', `The supplier sheet ${quoted(user.value.name)} takes its numbers from this roll.`);
  const sentence = `Took the label roll ${quoted(held.value.name)} away`;
  const changes = [removal('roll', { ...held, version })];
  return { sentence, entry: await commit(store, { act: 'set-up', person, sentence, changes }) };
}
