import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { MarcRecord } from '@osier/core/marc';
import { handScanner } from './hand-scanner';
import { loansDesk, type Loan } from './loans-desk';
import { neighbourCatalogues } from './neighbours';
import type { Shelf } from './shelf';
import { nameRegistry } from './registry';
import { unsafeWebSite, webSite } from './web-site';

/**
 * The world outside, simulated, in one process. Ports follow each other: loans desk (SIP2), hand scanner (HTTP),
 * neighbours (SRU), the registry of names (SRU), a web site that links lead to (HTTP), and one that is not secure (HTTPS).
 */
const first = Number(process.env.OSIER_OUTSIDE_PORT ?? 4611);
const folder = process.env.OSIER_OUTSIDE_DATA ?? '.';
const read = <T>(name: string): T => JSON.parse(readFileSync(join(folder, name), 'utf8')) as T;

const servers = [
  { name: 'loans desk', port: first, server: loansDesk(read<Loan[]>('loans.json')) },
  { name: 'hand scanner', port: first + 1, server: handScanner(read<Shelf[]>('shelves.json')) },
  {
    name: 'neighbours',
    port: first + 2,
    server: neighbourCatalogues(read<Record<string, readonly MarcRecord[]>>('neighbours.json')),
  },
  { name: 'registry', port: first + 3, server: nameRegistry(read<readonly MarcRecord[]>('registry.json')) },
  { name: 'web site', port: first + 4, server: webSite() },
  { name: 'web site that is not secure', port: first + 5, server: unsafeWebSite() },
];
for (const { name, port, server } of servers) {
  server.on('error', (error) => {
    process.stderr.write(`The simulated ${name} could not start on port ${port}: ${error.message}\n`);
    process.exitCode = 1;
  });
  server.listen(port, '127.0.0.1');
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => process.exit(0));
