import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import { OwnNetworkError, placeOf, type KnownHosts } from '../links/own-network';
import { NeighbourFailure } from './ports';

/** How something is got from a neighbour. */
export interface GetOptions {
  readonly hosts: KnownHosts;
  /** Name and password; null where none is asked for. */
  readonly signOn: { readonly user: string; readonly password: string } | null;
  readonly signal: AbortSignal;
  /** What is wanted, as HTTP has it; XML where nothing is said. */
  readonly accept?: string;
  /** Bytes that it may have; those of an answer where nothing is said. */
  readonly largest?: number;
}

/** Bytes that an answer may have. */
export const LARGEST_ANSWER = 16 * 1024 * 1024;
/** How often a neighbour may lead on to another address. */
const MOST_HOPS = 5;
const LEADS_ON = new Set([301, 302, 303, 307, 308]);

/** Gets the bytes of an answer; each address that it leads on to is looked at as the first. Throws `NeighbourFailure`. */
export async function getAnswer(address: string, options: GetOptions): Promise<Uint8Array> {
  let url = new URL(address);
  let { signOn } = options;
  for (let hop = 0; ; hop++) {
    const response = await ask(url, signOn, options);
    const { statusCode: status = 0, headers } = response;
    const next =
      LEADS_ON.has(status) && headers.location ? nextUrl(headers.location, url, options.hosts) : null;
    if (next === null) return bodyOf(response, status, options.largest ?? LARGEST_ANSWER);
    response.destroy();
    if (hop === MOST_HOPS)
      throw new NeighbourFailure('faulty', 'It leads on from one address to another without end.');
    // A password goes to nobody but whom it was typed for.
    if (next.host !== url.host) signOn = null;
    url = next;
  }
}

function nextUrl(location: string, from: URL, hosts: KnownHosts): URL {
  const next = URL.canParse(location, from.href) ? new URL(location, from.href) : null;
  if (next === null || !/^https?:$/.test(next.protocol))
    throw new NeighbourFailure('faulty', 'It leads on to an address that is no web address.');
  if (from.protocol === 'https:' && next.protocol !== 'https:')
    throw new NeighbourFailure('faulty', 'It leads on from a secure address to one that is not secure.');
  // What is named as being inside is asked by its own address only: nobody outside may lead there.
  if (next.hostname !== from.hostname && hosts.has(next.hostname)) throw failureOf(new OwnNetworkError());
  return next;
}

function ask(
  url: URL,
  signOn: GetOptions['signOn'],
  { hosts, signal, accept = 'application/xml, text/xml, */*;q=0.5' }: GetOptions,
): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    try {
      const request = (url.protocol === 'https:' ? secureRequest : plainRequest)({
        method: 'GET',
        agent: false,
        signal,
        headers: {
          host: url.host,
          accept,
          'accept-encoding': 'identity',
          'user-agent': 'Osier',
          ...(signOn && {
            authorization: `Basic ${Buffer.from(`${signOn.user}:${signOn.password}`, 'utf8').toString('base64')}`,
          }),
        },
        path: `${url.pathname}${url.search}`,
        ...placeOf(url, hosts),
      });
      request.once('response', resolve);
      request.on('error', (error) => reject(failureOf(error)));
      request.end();
    } catch (error) {
      reject(failureOf(error));
    }
  });
}

async function bodyOf(response: IncomingMessage, status: number, largest: number): Promise<Uint8Array> {
  if (status === 401 || status === 403) {
    response.destroy();
    throw new NeighbourFailure('refused', 'It refuses the sign-on. Check name and password in Set-up.');
  }
  if (status === 404 || status === 410) {
    response.destroy();
    throw new NeighbourFailure(
      'faulty',
      `There is nothing at its address (HTTP ${status}). Check the address in Set-up.`,
    );
  }
  const chunks: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const chunk of response) {
      const piece = Buffer.isBuffer(chunk) ? chunk : Buffer.from(String(chunk));
      bytes += piece.length;
      if (bytes > largest)
        throw new NeighbourFailure(
          'faulty',
          `Its answer is larger than ${largest / 1024 / 1024} MB and was not read.`,
        );
      chunks.push(piece);
    }
  } catch (error) {
    throw failureOf(error);
  } finally {
    response.destroy();
  }
  // Diagnostics come with other statuses too.
  if (
    status >= 400 &&
    !/^\s*<(?!!doctype html|html)/i.test(Buffer.concat(chunks).subarray(0, 200).toString('latin1'))
  )
    throw new NeighbourFailure(
      status >= 500 || status === 429 ? 'down' : 'faulty',
      `It answers with HTTP status ${status}.`,
    );
  return Buffer.concat(chunks);
}

/** What an error of the network, of TLS or of the time limit means. */
export function failureOf(error: unknown): NeighbourFailure {
  if (error instanceof NeighbourFailure) return error;
  if (error instanceof OwnNetworkError)
    return new NeighbourFailure(
      'own network',
      'Its address leads into this server’s own network. If that is meant, name it in OSIER_NEIGHBOUR_HOSTS.',
    );
  const code = typeof error === 'object' && error && 'code' in error ? String(error.code) : '';
  if (code === 'ABORT_ERR') return new NeighbourFailure('stopped', 'It was not waited for.');
  if (/CERT|TLS|SSL|SIGNATURE|UNABLE_TO|ISSUER/.test(code))
    return new NeighbourFailure(
      'faulty',
      'Its connection is not secure: nobody vouches for its certificate.',
    );
  if (/ENOTFOUND|EAI_AGAIN/.test(code))
    return new NeighbourFailure('down', 'The name in its address is not known.');
  if (/ECONNRESET|EPIPE|EPROTO|^HPE_/.test(code))
    return new NeighbourFailure('down', 'It broke the connection off.');
  return new NeighbourFailure('down', 'It cannot be reached.');
}
