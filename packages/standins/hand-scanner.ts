import { createServer, type Server, type ServerResponse } from 'node:http';
import { misread } from './misread';
import type { Shelf } from './shelf';
import { scannerPage } from './scanner-page';

/**
 * A simulated hand scanner on the network: a page to "scan" copies of a shelf, an event stream that carries the codes to
 * whoever listens (`GET /events`), and a file of stored codes (`GET /file`).
 */
export function handScanner(shelves: readonly Shelf[]): Server {
  const listeners = new Set<ServerResponse>();
  const page = scannerPage(shelves);
  return createServer((req, res) => {
    const url = new URL(req.url ?? '/', 'http://scanner');
    if (url.pathname === '/events') {
      res.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-cache' });
      res.write(': scanner\n\n');
      listeners.add(res);
      req.on('close', () => listeners.delete(res));
    } else if (url.pathname === '/scan' && req.method === 'POST') {
      const code = (url.searchParams.get('code') ?? '').slice(0, 60);
      const read = url.searchParams.get('clean') ? code : misread(code, Math.random);
      for (const l of listeners) l.write(`data: ${JSON.stringify({ code: read })}\n\n`);
      res
        .writeHead(200, { 'content-type': 'application/json' })
        .end(JSON.stringify({ code: read, heard: listeners.size }));
    } else if (url.pathname === '/') {
      res.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page);
    } else {
      res.writeHead(404).end();
    }
  });
}
