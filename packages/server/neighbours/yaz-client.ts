import type { Sought } from '@osier/core/neighbours';
import { spawn } from 'node:child_process';
import { lookup } from 'node:dns/promises';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { isIP } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isOwnNetwork, OwnNetworkError, type KnownHosts } from '../links/own-network';
import { failureOf } from './http-get';
import { NeighbourFailure, type AskedNeighbour, type NeighbourPort, type RawAnswer } from './ports';

/** The program that speaks Z39.50, of the package yaz. */
const PROGRAM = 'yaz-client';
/** Characters of what the program says that are kept. */
const MOST_SAID = 200_000;

/** Neighbours by Z39.50 (ISO 23950), through a program that is kept by others. Records come as ISO 2709. */
export const z3950Neighbours = (hosts: KnownHosts): NeighbourPort => ({
  async search(asked, sought, signal) {
    // The program reads its commands word by word: a blank or a quotation mark would make another password of it.
    if (/[\s"\\\p{C}]/u.test(asked.neighbour.user + asked.password))
      throw new NeighbourFailure(
        'refused',
        'Name and password for Z39.50 cannot have blanks, quotation marks or backslashes.',
      );
    const query = prefixQuery(sought, asked);
    if (query === null) throw new NeighbourFailure('no index', 'It has no index for this; see Set-up.');
    const place = await targetOf(asked.neighbour.address, hosts).catch((error: unknown) => {
      throw failureOf(error);
    });
    return throughProgram(asked, place, query, signal);
  },
  // Explain of Z39.50 is served by hardly anybody.
  explain: () => Promise.resolve(null),
});

/** The address that is connected to: a name is looked up once, so that it cannot lead elsewhere a moment later. */
async function targetOf(address: string, hosts: KnownHosts): Promise<string> {
  const [name = '', port = '210'] = address.split(':');
  const known = hosts.get(name.toLowerCase());
  if (known) return `${known.host}:${known.port}`;
  if (isIP(name) && isOwnNetwork(name)) throw new OwnNetworkError();
  const found = await lookup(name, { all: true });
  const open = found.find((f) => !isOwnNetwork(f.address));
  if (!open) throw new OwnNetworkError();
  return `${open.family === 6 ? `[${open.address}]` : open.address}:${port}`;
}

/** The same search in prefix notation, by use attributes; null where there is no attribute for it. */
function prefixQuery(sought: Sought, { neighbour: { indexes } }: AskedNeighbour): string | null {
  const term = (use: string, text: string) => `@attr 1=${use.replace(/\D/g, '')} "${plain(text)}"`;
  if (sought.by === 'isbn') {
    if (indexes.isbn === '') return null;
    const [long, short] = [
      term(indexes.isbn, sought.isbn13),
      sought.isbn10 && term(indexes.isbn, sought.isbn10),
    ];
    return short ? `@or ${long} ${short}` : long;
  }
  if (sought.by !== 'words')
    return indexes[sought.by] === '' ? null : term(indexes[sought.by], sought.number);
  const title = (sought.name === '' ? indexes.words || indexes.title : indexes.title || indexes.words) || '';
  const name = indexes.name || indexes.words;
  const parts = [
    ...words(sought.title).map((w) => title && term(title, w)),
    ...words(sought.name).map((w) => name && term(name, w)),
  ].filter(Boolean);
  const [first, ...rest] = parts;
  return first === undefined ? null : rest.reduce((left, right) => `@and ${left} ${right}`, first);
}
const words = (text: string): string[] => text.split(/\s+/).filter(Boolean).slice(0, 20);
/** Text that cannot end its quotation, nor begin another command. */
const plain = (text: string): string => text.replace(/[\p{C}"\\]/gu, ' ').trim();

/** One search through the program: it is told what to do line by line and writes the records to a file. */
async function throughProgram(
  asked: AskedNeighbour,
  place: string,
  query: string,
  signal: AbortSignal,
): Promise<RawAnswer> {
  const { neighbour, password } = asked;
  const folder = await mkdtemp(join(tmpdir(), 'osier-z-'));
  const file = join(folder, 'records.mrc');
  try {
    const count = await new Promise<number>((resolve, reject) => {
      const program = spawn(PROGRAM, ['-m', file], {
        signal,
        stdio: ['pipe', 'pipe', 'ignore'],
        cwd: folder,
      });
      let said = '';
      let hits: number | null = null;
      program.on('error', (error) => reject(missing(error) ?? failureOf(error)));
      program.stdin.on('error', () => undefined);
      const tell = (line: string) => program.stdin.write(`${line}\n`);
      if (neighbour.user) tell(`authentication ${neighbour.user} ${password}`);
      tell(`open ${place}/${plain(neighbour.database) || 'Default'}`);
      tell('format usmarc');
      tell('elements F');
      tell(`find ${query}`);
      program.stdout.on('data', (data: Buffer) => {
        if (said.length < MOST_SAID) said += data.toString('utf8');
        if (hits === null) {
          const found = /Number of hits: (\d+)[,\s]/.exec(said)?.[1];
          const isOver = found !== undefined || REFUSED.test(said);
          if (!isOver) return;
          hits = Number(found ?? 0);
          if (hits > 0) tell(`show 1+${Math.min(hits, neighbour.most)}`);
          tell('quit');
        }
      });
      program.on('close', () => {
        const why = problemIn(said);
        if (why) reject(why);
        else resolve(hits ?? 0);
      });
    });
    const bytes = count === 0 ? new Uint8Array(0) : await readFile(file).catch(() => new Uint8Array(0));
    return { format: 'iso2709', bytes, count };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const missing = (error: Error): NeighbourFailure | null =>
  'code' in error && error.code === 'ENOENT'
    ? new NeighbourFailure(
        'faulty',
        'Z39.50 needs the program yaz-client (package yaz), which is not installed on the server.',
      )
    : null;
const REFUSED = /error|refused|rejected|Connection closed|Target closed|Not connected/i;

/** What the program says went wrong; null for nothing. */
function problemIn(said: string): NeighbourFailure | null {
  if (/rejected by v3 target|Init rejected/i.test(said))
    return new NeighbourFailure('refused', 'It refuses the sign-on. Check name and password in Set-up.');
  const hits = Number(/Number of hits: (\d+)[,\s]/.exec(said)?.[1] ?? NaN);
  const diagnostic = /Diagnostic message\(s\) from database:\s*(?:\[\d+\] )?(.+)/.exec(said)?.[1];
  if (hits > 0 || (hits === 0 && !diagnostic)) return null;
  if (diagnostic) return new NeighbourFailure('faulty', `It says: ${diagnostic.slice(0, 200)}.`);
  return new NeighbourFailure('down', 'It cannot be reached.');
}
