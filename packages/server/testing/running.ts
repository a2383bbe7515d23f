import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import type { AddressInfo, Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobState } from '@osier/contract';
import { loansDesk, type Loan } from '../../standins/loans-desk';
import type { KnownHosts } from '../links/own-network';
import type { LinkSettings } from '../links/try-link';
import { startOsier, type Running } from '../start';
import { keptJson } from '../store/kept-json';
import { breachOf } from './keeps-contract';
import { layLibrary, LIBRARY, root } from './library';

export { root };

/** What of the demo library is on loan, as the stand-in of the loans desk is told. */
const loansOfLibrary = (): Loan[] => keptJson(readFileSync(join(LIBRARY, 'outside/loans.json'), 'utf8'));

export const demoFile = (name: string): string => join(root, 'demo/files', name);

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}
export type Ask = <T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
  headers?: Record<string, string>,
) => Promise<Answer<T>>;

/** A server on a real SQLite file in a folder of its own, with the demo library and the loans desk's stand-in. */
export async function startTesting(
  options: {
    fill?: boolean;
    demo?: boolean;
    loans?: boolean;
    trustProxy?: string;
    links?: LinkSettings;
    neighbourHosts?: KnownHosts;
    nightHour?: number;
  } = {},
) {
  const folder = mkdtempSync(join(tmpdir(), 'osier-'));
  if (options.fill !== false) layLibrary(folder);
  const desk: Server = loansDesk(loansOfLibrary());
  await new Promise<void>((done) => desk.listen(0, '127.0.0.1', done));
  const running: Running = await startOsier({
    port: 0,
    host: '127.0.0.1',
    data: folder,
    demo: options.demo ?? true,
    scanner: '',
    // A test machine may stall for a while.
    loansPatience: 60,
    hosts: [],
    trustProxy: options.trustProxy ?? '',
    largestFile: 64 * 1024 * 1024,
    neighbourHosts: options.neighbourHosts ?? new Map(),
    links: options.links ?? { patience: 2000, hosts: new Map() },
    nightHour: options.nightHour ?? null,
    tls: null,
    logLevel: 'silent',
    workers: join(root, 'packages/server/dist'),
    web: join(folder, 'no-web'),
    loansDesk:
      options.loans === false
        ? 'sip2://127.0.0.1:1'
        : `sip2://127.0.0.1:${(desk.address() as AddressInfo).port}`,
  });
  await running.services.background.idle();

  const asking =
    (cookie: string): Ask =>
    async <T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
      const isFile = body instanceof Uint8Array;
      const response = await fetch(`${running.address}/api${path}`, {
        method,
        headers: {
          ...(cookie ? { cookie } : {}),
          ...(body === undefined || isFile ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        body: body === undefined ? undefined : isFile ? (body as unknown as BodyInit) : JSON.stringify(body),
      });
      const text = await response.text();
      const answered: unknown = response.headers.get('content-type')?.includes('json')
        ? JSON.parse(text)
        : text;
      const breach = breachOf(method, path, response.status, answered);
      if (breach) throw new Error(breach);
      return { status: response.status, headers: response.headers, body: answered as T };
    };
  /** Signs in as one of the demo people: 1 head, 2 cataloguer, 3 assistant. */
  const as = async (person: number): Promise<Ask> => {
    const { headers } = await asking('')('POST', '/sign-in/demo', { person });
    return asking(headers.get('set-cookie')!.split(';')[0]!);
  };
  const jobDone = async (ask: Ask, id: number): Promise<JobState> => {
    // Long work lets requests go first: who asks all the time makes it slower.
    for (let wait = 5; ; wait = Math.min(wait * 2, 80)) {
      const { body } = await ask<JobState>('GET', `/jobs/${id}`);
      if (body.state !== 'running' && body.state !== 'waiting') return body;
      await new Promise((r) => setTimeout(r, wait));
    }
  };
  const stop = async () => {
    await running.stop();
    desk.close();
    // A request that was cut off may still be writing its part of a file.
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
  };
  return { running, folder, as, ask: asking(''), jobDone, stop };
}

/** Everything in the store that a person would call the catalogue, row by row. */
export async function catalogueOf({ services }: Running): Promise<Record<string, unknown[]>> {
  const tables = ['records', 'headings', 'holdings', 'copies'];
  const rows = await Promise.all(
    tables.map((t) =>
      services.store.rows<{ id: number; value: string }>(`SELECT id, value FROM ${t} ORDER BY id`),
    ),
  );
  const keys = await services.store.rows('SELECT kind, key, record FROM record_keys ORDER BY 1, 2, 3');
  return { ...Object.fromEntries(tables.map((t, i) => [t, rows[i]!])), keys };
}
