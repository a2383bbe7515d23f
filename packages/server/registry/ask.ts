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

/** The names of some numbers, as far as the registry has them. */
export async function namesNumbered(
  services: Services,
  registry: Registry,
  numbers: readonly string[],
): Promise<RegistryName[]> {
  const names: RegistryName[] = [];
  for (let at = 0; at < numbers.length; at += MOST) {
    const query = numbersQuery(numbers.slice(at, at + MOST));
    if (query !== null) names.push(...(await asked(services, registry, query)).names);
  }
  return names;
}
