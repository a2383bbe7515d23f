import type { MarcRecord } from '@osier/core/marc';
import { createServer, type Server } from 'node:http';
import { sruSearchAnswer, sendXml } from './sru-answers';

/** Milliseconds until it answers. */
const DELAY = 120;

/**
 * A simulated registry of names: a few hundred authority records, searched by SRU 1.1 (`bath.name` with words that may go on,
 * `rec.identifier`). Each has, in a local field, how many members use which form (990 $a form, $n members). Under `/slow` it never answers, under
 * `/down` with HTTP status 503.
 */
export const nameRegistry = (names: readonly MarcRecord[], pace = 1): Server =>
  createServer((req, res) => {
    const url = new URL(req.url ?? '/', 'http://registry');
    if (url.pathname.startsWith('/slow')) return;
    if (url.pathname.startsWith('/down') || url.searchParams.get('query') === null)
      return void res.writeHead(url.pathname.startsWith('/down') ? 503 : 404).end();
    setTimeout(
      () => sendXml(res, sruSearchAnswer({ prefix: 'zs:', isPacked: false }, names, url.searchParams)),
      DELAY * pace,
    );
  });
