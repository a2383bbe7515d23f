import type { NeighbourBody, NeighbourRow } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { creation, removal, update } from '@osier/core/changes';
import { inOrder, type Neighbour } from '@osier/core/neighbours';
import { BUILT_IN } from '@osier/core/recipes';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** The neighbours in the order in which they are asked, each with how it stands. */
export async function listNeighbours({ store, neighbours }: Services): Promise<NeighbourRow[]> {
  const kept = await store.find('neighbour');
  return inOrder(kept.map((n) => ({ ...n, neighbour: n.value }))).map(({ id, version, value }) => {
    const { secret, ...neighbour } = value;
    const out = neighbours.asking.standing(id);
    return {
      id,
      version,
      neighbour,
      hasPassword: secret !== '',
      out: out && { since: instant(out.since), until: instant(out.until), why: out.why },
    };
  });
}
const instant = (milliseconds: number): string => new Date(milliseconds).toISOString();

const act = (how: 'made' | 'changed' | 'deleted', name: string): Act => ({
  act: 'set-up',
  what: 'neighbour',
  how,
  names: { name },
});

/** Adds a neighbour. */
export async function keepNeighbour({ store, neighbours }: Services, person: number, body: NeighbourBody) {
  const secret = await neighbours.secrets.seal(body.password ?? '');
  return commitPlan(store, person, async (s) => {
    const value = await sound(s, { ...body.neighbour, secret }, null);
    const id = await s.nextIds('neighbour', 1);
    return { did: act('made', value.name), id, changes: [creation('neighbour', id, value)] };
  });
}

/** Changes a neighbour; without a password that is typed it keeps the one it has. */
export async function changeNeighbour(
  { store, neighbours }: Services,
  person: number,
  id: number,
  body: NeighbourBody & { readonly version: number },
) {
  const sealed = body.password === null ? null : await neighbours.secrets.seal(body.password);
  const done = await commitPlan(store, person, async (s) => {
    const held = await s.read('neighbour', id);
    if (!held) throw notFound(`Neighbour ${id}`);
    // A password goes to nobody but whom it was typed for.
    if (sealed === null && held.value.secret !== '' && originOf(held.value) !== originOf(body.neighbour))
      throw wrong('password', 'Type the password again: the address is another one.');
    const value = await sound(s, { ...body.neighbour, secret: sealed ?? held.value.secret }, id);
    return {
      did: act('changed', value.name),
      id,
      changes: [update('neighbour', { ...held, version: body.version }, value)],
    };
  });
  neighbours.asking.forget(id);
  return done;
}

/** Whom a password is sent to. */
export function originOf({ protocol, address }: Pick<Neighbour, 'protocol' | 'address'>): string {
  return protocol === 'sru' && URL.canParse(address)
    ? `${protocol} ${new URL(address).origin}`
    : `${protocol} ${address}`;
}

/** Deletes a neighbour. */
export const removeNeighbour = ({ store }: Services, person: number, id: number, version: number) =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('neighbour', id);
    if (!held) throw notFound(`Neighbour ${id}`);
    return { did: act('deleted', held.value.name), changes: [removal('neighbour', { ...held, version })] };
  });

async function sound(store: Store, value: Neighbour, own: number | null): Promise<Neighbour> {
  const others = await store.find('neighbour');
  const same = (name: string) => name.toLowerCase() === value.name.toLowerCase();
  if (others.some((o) => o.id !== own && same(o.value.name)))
    throw wrong('name', `There is a neighbour “${value.name}” already.`);
  if (value.recipe !== '' && !BUILT_IN.some((r) => r.id === value.recipe)) {
    const recipe = /^\d+$/.test(value.recipe) ? await store.read('recipe', Number(value.recipe)) : null;
    if (!recipe) throw wrong('recipe', 'This recipe is no longer there. Choose another one.');
  }
  return value;
}
