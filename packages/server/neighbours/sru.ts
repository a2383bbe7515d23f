import { explainAddress, searchAddress, soughtCql } from '@osier/core/neighbours';
import type { KnownHosts } from '../links/own-network';
import { getAnswer } from './http-get';
import { NeighbourFailure, type AskedNeighbour, type NeighbourPort } from './ports';

/** Neighbours by SRU over HTTP. */
export function sruNeighbours(hosts: KnownHosts): NeighbourPort {
  const get = ({ neighbour, password }: AskedNeighbour, address: string, signal: AbortSignal) =>
    getAnswer(address, { hosts, signal, signOn: neighbour.user ? { user: neighbour.user, password } : null });
  return {
    async search(asked, sought, signal) {
      const { neighbour } = asked;
      const query = soughtCql(sought, neighbour.indexes);
      if (query === null) throw new NeighbourFailure('no index', 'It has no index for this; see Set-up.');
      return { format: 'sru', bytes: await get(asked, searchAddress(neighbour, query), signal), count: null };
    },
    explain: (asked, signal) => get(asked, explainAddress(asked.neighbour), signal),
  };
}
