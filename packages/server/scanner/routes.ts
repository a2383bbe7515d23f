import { api } from '@osier/contract';
import { request } from 'node:http';
import { route, type Route } from '../http/route';
import { eventStream } from '../people/session';
import type { Services } from '../services';

/** Codes of a networked hand scanner. */
export const scannerRoutes = ({ settings, people }: Services): Route[] => [
  route(api.live.scanner, ({ req, res }) => {
    const stream = eventStream(people, req, res);
    const upstream = settings.scanner
      ? request(settings.scanner, (from) => from.on('data', (d: Buffer) => stream.send(d.toString('utf8'))))
      : null;
    upstream?.on('error', () => undefined).end();
    stream.onClose(() => void upstream?.destroy());
    return undefined;
  }),
];
