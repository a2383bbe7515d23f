import type { StarterBody, StarterRow } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { creation, removal, update } from '@osier/core/changes';
import { starterField, STARTERS } from '@osier/core/editing';
import type { KeptStarter } from '@osier/core/kinds';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** All starters in the order in which Osier brings them, the library's own behind them by name. */
export async function listStarters({ store }: Services): Promise<StarterRow[]> {
  const kept = await store.find('starter', {
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const row = (k: (typeof kept)[number]): StarterRow => {
    const { of, ...starter } = k.value;
    return { key: String(k.id), of, version: k.version, starter };
  };
  return [
    ...Object.entries(STARTERS).map(([key, starter]) => {
      const own = kept.find((k) => k.value.of === key);
      return own ? row(own) : { key, of: key, version: null, starter };
    }),
    ...kept.filter((k) => !Object.hasOwn(STARTERS, k.value.of)).map(row),
  ];
}

/** The starter that was typed; what is wrong with a line is told by its number. */
function readStarter({ lines, ...rest }: StarterBody): KeptStarter {
  if (rest.of && !Object.hasOwn(STARTERS, rest.of))
    throw wrong('of', `Osier brings no starter “${rest.of}”.`);
  const fields = lines.split(/\r?\n/).flatMap((line, i) => {
    if (line.trim() === '') return [];
    const read = starterField(line);
    if (!read)
      throw wrong(
        'lines',
        `Line ${i + 1} (“${line.trim().slice(0, 30)}”) is no field: write tag, two indicators (# for a blank) and codes, such as 245 10 $a $b $c.`,
      );
    return [read];
  });
  return { ...rest, fields };
}

const did = (name: string, how: 'made' | 'changed' | 'deleted'): Act => ({
  act: 'set-up',
  what: 'starter',
  names: { name },
  how,
});

/** Two starters of one name could not be told apart, nor two that stand for the same one. */
async function refuseSecond(store: Store, value: KeptStarter, id: number | null): Promise<void> {
  const others = (await store.find('starter')).filter((s) => s.id !== id);
  if (others.some((s) => s.value.name.toLowerCase() === value.name.toLowerCase()))
    throw wrong('name', `There is a starter “${value.name}” already.`);
  if (value.of && others.some((s) => s.value.of === value.of))
    throw wrong('of', 'The library has its own form of this starter already.');
}

/** Saves a starter of the library. */
export const keepStarter = ({ store }: Services, person: number, body: StarterBody) =>
  commitPlan(store, person, async (s) => {
    const value = readStarter(body);
    await refuseSecond(s, value, null);
    const id = await s.nextIds('starter', 1);
    return { did: did(value.name, 'made'), id, changes: [creation('starter', id, value)] };
  });

/** Changes a starter of the library. */
export const changeStarter = (
  { store }: Services,
  person: number,
  id: number,
  { version, ...body }: StarterBody & { version: number },
) =>
  commitPlan(store, person, async (s) => {
    const value = readStarter(body);
    const held = await s.read('starter', id);
    if (!held) throw notFound(`Starter ${id}`);
    await refuseSecond(s, value, id);
    return { did: did(value.name, 'changed'), changes: [update('starter', { ...held, version }, value)] };
  });

/** Deletes a starter of the library. */
export const removeStarter = ({ store }: Services, person: number, id: number, version: number) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('starter', id);
    if (!held) throw notFound(`Starter ${id}`);
    return { did: did(held.value.name, 'deleted'), changes: [removal('starter', { ...held, version })] };
  });
