import { numbersQuery, registryQuery, type RegistryName } from '@osier/core/headings';
import type { Registry } from '@osier/core/house';
import { searchAddress } from '@osier/core/neighbours';
import { getAnswer } from '../neighbours/http-get';
import { NeighbourFailure } from '../neighbours/ports';
import type { Services } from '../services';
import type { NamesAnswer } from './read-names';

/** Names that are asked for at once, and how long they are waited for. */
const MOST = 20;
const PATIENCE = 6000;

/** The registry as it is set up; null for none. */
export async function registryOf({ store }: Services): Promise<Registry | null> {
  const { registry } = (await store.house()).value;
  return registry && registry.address !== '' ? registry : null;
}

/** What the registry answers to a query. Throws `NeighbourFailure` when it does not answer, or with something that is no answer. */
async function asked({ settings, pool }: Services, registry: Registry, query: string): Promise<NamesAnswer> {
  const address = searchAddress(
    { address: registry.address, version: '1.1', schema: 'marcxml', most: MOST },
    query,
  );
  const patience = AbortSignal.timeout(PATIENCE);
  const bytes = await getAnswer(address, { hosts: settings.neighbourHosts, signOn: null, signal: patience });
  const answer = await pool.readNames(bytes);
  if (answer.problem !== null) throw new NeighbourFailure('faulty', answer.problem);
  return answer;
}

/** Names that begin with the words of one. */
export async function namesLike(services: Services, registry: Registry, name: string): Promise<NamesAnswer> {
  const query = registryQuery(name);
  return query === null ? { count: 0, names: [], problem: null } : asked(services, registry, query);
}

/** What the registry has of some numbers. */
export interface NumberedNames {
  readonly names: readonly RegistryName[];
  /** Numbers that it has, but nothing that could be read as a name. */
  readonly unread: ReadonlySet<string>;
}

/** The names of some numbers. Where it gives fewer than it says to have, the others are asked for one by one: that one is missing in an answer does not mean that it is no more. */
export async function namesNumbered(
  services: Services,
  registry: Registry,
  numbers: readonly string[],
): Promise<NumberedNames> {
  const names: RegistryName[] = [];
  const unread = new Set<string>();
  const askFor = (some: readonly string[]) => asked(services, registry, numbersQuery(some) ?? '');
  for (let at = 0; at < numbers.length; at += MOST) {
    const some = numbers.slice(at, at + MOST);
    const answer = await askFor(some);
    names.push(...answer.names);
    if (answer.count <= answer.names.length) continue;
    const given = new Set(answer.names.map((n) => n.number));
    for (const number of some) {
      if (given.has(`(${registry.agency})${number}`)) continue;
      const one = await askFor([number]);
      names.push(...one.names);
      if (one.count > 0 && one.names.length === 0) unread.add(number);
    }
  }
  return { names, unread };
}
