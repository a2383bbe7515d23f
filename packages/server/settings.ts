import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import type { KnownHost, KnownHosts } from './links/own-network';
import type { LinkSettings } from './links/try-link';

/** Settings of the server, from the environment. */
export interface Settings {
  readonly port: number;
  readonly host: string;
  /** Folder of the database and the delivered files. */
  readonly data: string;
  /** Demo mode: made-up people can be chosen with one click. */
  readonly demo: boolean;
  /** `sip2://host:port` of the loans desk, or ''. */
  readonly loansDesk: string;
  /** Seconds of silence after which the loans desk does not answer. */
  readonly loansPatience: number;
  /** Address of a scanner's event stream, or ''. */
  readonly scanner: string;
  /** Files of the certificate and its key (PEM) for https; null for http (`OSIER_TLS_CERT`, `OSIER_TLS_KEY`). */
  readonly tls: { readonly cert: string; readonly key: string } | null;
  /** Names and addresses under which it is reached, beside this machine's own (`OSIER_HOSTS`, with commas between). */
  readonly hosts: readonly string[];
  /** Which proxies may say where a request comes from (`OSIER_TRUST_PROXY`, as Express has it: a number of hops or addresses); '' for none. */
  readonly trustProxy: string;
  /** Bytes of the largest file that is taken (`OSIER_LARGEST_FILE`, in megabytes). */
  readonly largestFile: number;
  /** How web addresses of records are tried (`OSIER_LINKS_PATIENCE` in seconds, `OSIER_LINK_HOSTS`). */
  readonly links: LinkSettings;
  /** Names of neighbours that are found in the own network (`OSIER_NEIGHBOUR_HOSTS`); all others must be outside. */
  readonly neighbourHosts: KnownHosts;
  /** The hour after which the night's work begins (`OSIER_NIGHT_HOUR`, 0 to 23, by this machine's clock); null for none (`off`). */
  readonly nightHour: number | null;
  readonly logLevel: string;
  /** Folder of the built worker scripts. */
  readonly workers: string;
  /** Folder of the built web application. */
  readonly web: string;
}

/** Reads the settings; a value that cannot be used throws with a sentence that names the variable. */
export function readSettings(env: NodeJS.ProcessEnv, root: string): Settings {
  const port = Number(env.OSIER_PORT ?? 4600);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`OSIER_PORT is “${env.OSIER_PORT}”; it must be a port number from 0 to 65535.`);
  const patience = Number(env.OSIER_LOANS_PATIENCE ?? 4);
  if (!(patience > 0 && patience <= 600))
    throw new Error(
      `OSIER_LOANS_PATIENCE is “${env.OSIER_LOANS_PATIENCE}”; it must be a number of seconds up to 600.`,
    );
  const largest = Number(env.OSIER_LARGEST_FILE ?? 1024);
  if (!(largest > 0 && largest <= 100_000))
    throw new Error(
      `OSIER_LARGEST_FILE is “${env.OSIER_LARGEST_FILE}”; it must be a number of megabytes up to 100,000.`,
    );
  const host = env.OSIER_HOST ?? '127.0.0.1';
  const named = (env.OSIER_HOSTS ?? '').split(',').map((h) => h.trim());
  return {
    port,
    host,
    hosts: [...named, host].filter((h) => h !== '' && h !== '0.0.0.0' && h !== '::'),
    trustProxy: env.OSIER_TRUST_PROXY ?? '',
    largestFile: largest * 1024 * 1024,
    data: resolve(env.OSIER_DATA ?? resolve(root, 'data')),
    demo: env.OSIER_DEMO === '1',
    loansDesk: env.OSIER_LOANS_DESK ?? '',
    loansPatience: patience,
    scanner: env.OSIER_SCANNER ?? '',
    tls: tlsFiles(env),
    links: { patience: linkPatience(env) * 1000, hosts: knownHosts('OSIER_LINK_HOSTS', env) },
    neighbourHosts: knownHosts('OSIER_NEIGHBOUR_HOSTS', env),
    nightHour: nightHour(env),
    logLevel: env.OSIER_LOG ?? 'info',
    workers: resolve(root, 'packages/server/dist'),
    web: resolve(root, 'packages/web/dist'),
  };
}

function tlsFiles({
  OSIER_TLS_CERT: cert = '',
  OSIER_TLS_KEY: key = '',
}: NodeJS.ProcessEnv): Settings['tls'] {
  if (cert === '' && key === '') return null;
  for (const [name, file] of [
    ['OSIER_TLS_CERT', cert],
    ['OSIER_TLS_KEY', key],
  ] as const)
    if (file === '' || !existsSync(file))
      throw new Error(
        `${name} is “${file}”; for https both a certificate and its key must be there, as PEM files.`,
      );
  return { cert, key };
}

function nightHour({ OSIER_NIGHT_HOUR: said = '2' }: NodeJS.ProcessEnv): number | null {
  if (said === 'off') return null;
  const hour = Number(said);
  if (!/^\d{1,2}$/.test(said) || hour > 23)
    throw new Error(`OSIER_NIGHT_HOUR is “${said}”; it must be an hour from 0 to 23, or off.`);
  return hour;
}

function linkPatience(env: NodeJS.ProcessEnv): number {
  const seconds = Number(env.OSIER_LINKS_PATIENCE ?? 10);
  if (!(seconds > 0 && seconds <= 120))
    throw new Error(
      `OSIER_LINKS_PATIENCE is “${env.OSIER_LINKS_PATIENCE}”; it must be a number of seconds up to 120.`,
    );
  return seconds;
}

/** Names that are found at an address of the own network, or at another one than the name service says: `name=host:port,…`. */
function knownHosts(
  variable: 'OSIER_LINK_HOSTS' | 'OSIER_NEIGHBOUR_HOSTS',
  { [variable]: said = '' }: NodeJS.ProcessEnv,
): KnownHosts {
  const hosts = new Map<string, KnownHost>();
  for (const one of said.split(',').filter((s) => s.trim() !== '')) {
    const [, name, host, port] = /^\s*([^\s=]+)=(\S+):(\d{1,5})\s*$/.exec(one) ?? [];
    if (!name || !host || Number(port) > 65535)
      throw new Error(
        `${variable} has “${one.trim()}”; each part must be like repository.example=10.0.0.7:443.`,
      );
    hosts.set(name.toLowerCase(), { host: host.replace(/^\[|\]$/g, ''), port: Number(port) });
  }
  return hosts;
}
