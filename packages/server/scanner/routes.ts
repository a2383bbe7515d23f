import { request } from 'node:http';
import { route, type Route } from '../http/route';
import type { Services } from '../services';

export const scannerRoutes = ({ settings }: Services): Route[] => [
  route({
    method: 'get',
    path: '/scanner/events',
    summary: 'Codes of a networked hand scanner as server-sent events',
    permission: 'scan',
    work: ({ req, res }) => {
      res.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' });
      res.write(': here\n\n');
      const beat = setInterval(() => res.write(': still here\n\n'), 20_000);
      const upstream = settings.scanner
        ? request(settings.scanner, (from) => from.on('data', (d: Buffer) => res.write(d)))
        : null;
      upstream?.on('error', () => undefined).end();
      req.on('close', () => {
        clearInterval(beat);
        upstream?.destroy();
      });
      return undefined;
    },
  }),
];
