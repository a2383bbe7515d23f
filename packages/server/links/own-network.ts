import { BlockList, isIPv4, isIPv6 } from 'node:net';

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
