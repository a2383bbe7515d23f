import type { LinkCheck, LinkResult } from '@osier/core/links';
import { request as plainRequest, type RequestOptions } from 'node:http';
import { request as secureRequest } from 'node:https';
import { OwnNetworkError, placeOf, type KnownHosts } from './own-network';

/** How links are tried. */
export interface LinkSettings {
  /** Milliseconds until a site must have answered, all its leading on taken together. */
  readonly patience: number;
  readonly hosts: KnownHosts;
}

/** What one answer said. */
interface Answer {
  readonly status: number;
  /** Where it leads on; '' where it does not. */
  readonly location: string;
}

/** A site leads on at most so often. */
const MOST_HOPS = 10;
const LEADS_ON = new Set([301, 302, 303, 307, 308]);
const FOR_GOOD = new Set([301, 308]);

class TryProblem extends Error {
  constructor(readonly result: LinkResult) {
    super(result);
  }
}

/**
 * Tries an address as a reader's browser would: one GET, its head only, and on where it leads, each step looked at as the first. Tells what
 * became of it and never throws.
 */
export async function tryLink(address: string, { patience, hosts }: LinkSettings): Promise<LinkCheck> {
  const until = Date.now() + patience;
  const seen = new Set<string>();
  let [url, movedTo] = [address, ''];
  let status: number | null = null;
  let isForGood = true;
  const end = (result: LinkResult): LinkCheck => ({ result, status, movedTo });
  try {
    for (let hop = 0; ; hop++) {
      if (seen.has(url) || hop > MOST_HOPS) return end('looping');
      seen.add(url);
      const answer = await ask(new URL(url), until - Date.now(), hosts);
      status = answer.status;
      if (!LEADS_ON.has(status) || answer.location === '')
        return end(movedTo && resultOf(status) === 'fine' ? 'moved' : resultOf(status));
      const next = nextAddress(answer.location, url);
      if (next === null) return end('faulty');
      if (url.startsWith('https:') && !next.startsWith('https:')) return end('not secure');
      // Only where every step so far is for good is the address to be corrected.
      isForGood &&= FOR_GOOD.has(status);
      if (isForGood) movedTo = next;
      url = next;
    }
  } catch (error) {
    return end(problemOf(error));
  }
}

function nextAddress(location: string, from: string): string | null {
  if (!URL.canParse(location, from)) return null;
  const next = new URL(location, from);
  next.hash = '';
  return /^https?:$/.test(next.protocol) ? next.href : null;
}

function resultOf(status: number): LinkResult {
  if (status >= 200 && status < 300) return 'fine';
  if (status === 404 || status === 410) return 'gone';
  return status === 401 || status === 403 || status === 407 ? 'needs sign-in' : 'faulty';
}

/** What is told of an error of the network or of TLS. */
function problemOf(error: unknown): LinkResult {
  if (error instanceof TryProblem) return error.result;
  if (error instanceof OwnNetworkError) return 'own network';
  const code = typeof error === 'object' && error && 'code' in error ? String(error.code) : '';
  if (/CERT|TLS|SSL|SIGNATURE|UNABLE_TO|ISSUER/.test(code)) return 'not secure';
  if (/^HPE_|ECONNRESET|EPROTO/.test(code)) return 'faulty';
  if (/TIMEDOUT|ABORT/.test(code)) return 'slow';
  return 'unreachable';
}

function ask(url: URL, patience: number, hosts: LinkSettings['hosts']): Promise<Answer> {
  if (patience <= 0) throw new TryProblem('slow');
  const options: RequestOptions = {
    method: 'GET',
    agent: false,
    headers: { host: url.host, accept: '*/*', 'user-agent': 'Osier link check' },
    path: `${url.pathname}${url.search}`,
    ...placeOf(url, hosts),
  };
  return new Promise((resolve, reject) => {
    const request = (url.protocol === 'https:' ? secureRequest : plainRequest)(options);
    const timer = setTimeout(() => request.destroy(new TryProblem('slow')), patience);
    const finish = (then: () => void) => {
      clearTimeout(timer);
      then();
    };
    request.once('response', (response) => {
      finish(() => resolve({ status: response.statusCode ?? 0, location: response.headers.location ?? '' }));
      // The head says all; what follows may never end.
      response.on('error', () => undefined);
      request.destroy();
    });
    request.on('error', (error) => finish(() => reject(error)));
    request.end();
  });
}
