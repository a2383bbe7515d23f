import { lookup } from 'node:dns';
import { BlockList, isIP, isIPv4, isIPv6, type LookupFunction } from 'node:net';

/** Addresses that are no public ones (RFC 6890 and its registry): this machine, private nets, links, tests, many at once. */
const OWN = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.88.99.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 3],
] as const)
  OWN.addSubnet(net, bits, 'ipv4');
/** Of IPv6 only the addresses that are given out for all the world, without those that carry an IPv4 address. */
const WORLD = new BlockList();
WORLD.addSubnet('2000::', 3, 'ipv6');
const CARRYING = new BlockList();
for (const [net, bits] of [
  ['2001::', 23],
  ['2001:db8::', 32],
  ['2002::', 16],
  ['3fff::', 20],
] as const)
  CARRYING.addSubnet(net, bits, 'ipv6');

/** Whether an IP address is in a network of one's own, or in none: nothing that a record says may make the server ask there. */
export function isOwnNetwork(address: string): boolean {
  if (isIPv4(address)) return OWN.check(address, 'ipv4');
  if (isIPv6(address)) return !WORLD.check(address, 'ipv6') || CARRYING.check(address, 'ipv6');
  return true;
}

/** Where a name is found that is asked for at another place than the name service says, and may be in the own network. */
export interface KnownHost {
  readonly host: string;
  readonly port: number;
}

/** Names by what they are found under. */
export type KnownHosts = ReadonlyMap<string, KnownHost>;

/** That an address leads into a network of one's own. */
export class OwnNetworkError extends Error {
  constructor() {
    super('own network');
  }
}

/** The name service’s answer without addresses of the own network, so that none is connected to whatever a name says now. */
const publicLookup: LookupFunction = (name, options, done) =>
  lookup(name, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '');
    const open = found.filter((f) => !isOwnNetwork(f.address));
    const [first] = open;
    if (!first) return done(new OwnNetworkError(), '');
    return options.all ? done(null, open) : done(null, first.address, first.family);
  });

/** Where a request for an address is sent: the place that its name is known under, else what the name service says, never the own network. */
export function placeOf(url: URL, hosts: KnownHosts) {
  const name = url.hostname.replace(/^\[|\]$/g, '');
  const known = hosts.get(name);
  if (!known && isIP(name) && isOwnNetwork(name)) throw new OwnNetworkError();
  return known
    ? { host: known.host, port: known.port, servername: name }
    : { host: name, port: url.port || undefined, lookup: publicLookup };
}
