import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { SELF_SIGNED } from './self-signed';

/**
 * A simulated web site with every fate that a link may have: `/fine`, `/moved` (for good), `/for-now` (leads on for now), `/gone`, `/slow` (never
 * answers), `/looping`, `/locked`, `/faulty`, `/endless` (a page that never ends), `/inside` (leads into the own network).
 */
export function webSite(): Server {
  return createServer(answer);
}

/** The same behind a certificate that nobody vouches for. */
export const unsafeWebSite = (): Server => createSecureServer(SELF_SIGNED, answer);

const LEADS: Readonly<Record<string, readonly [status: number, to: string]>> = {
  '/moved': [301, '/fine'],
  '/for-now': [302, '/fine'],
  '/moved-to-gone': [301, '/gone'],
  '/looping': [302, '/looping-on'],
  '/looping-on': [302, '/looping'],
  '/inside': [302, 'http://127.0.0.1:1/secret'],
  '/inside-by-number': [302, 'http://2130706433/'],
  '/not-a-site': [302, 'file:///etc/passwd'],
};

function answer({ url = '/' }: IncomingMessage, res: ServerResponse): void {
  const path = url.split('?')[0] ?? '/';
  const leads = LEADS[path];
  if (path === '/slow') return;
  if (leads) return void res.writeHead(leads[0], { location: leads[1] }).end();
  if (path === '/endless') {
    res.writeHead(200, { 'content-type': 'text/plain' });
    const more = setInterval(() => res.write('more and more\n'.repeat(1000)), 5);
    return void res.once('close', () => clearInterval(more));
  }
  if (path === '/') {
    const paths = ['/fine', '/gone', '/slow', '/locked', '/faulty', '/endless', ...Object.keys(LEADS)];
    const list = paths.map((p) => `<li><a href="${p}">${p}</a></li>`).join('');
    return void res
      .writeHead(200, { 'content-type': 'text/html' })
      .end(`<h1>A simulated site</h1><ul>${list}</ul>`);
  }
  const statuses: Readonly<Record<string, number>> = { '/fine': 200, '/locked': 403, '/faulty': 503 };
  res.writeHead(statuses[path] ?? 404, { 'content-type': 'text/plain' }).end();
}
