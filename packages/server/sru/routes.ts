import { Router, type Request } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Services } from '../services';
import { answerSru } from './sru';

/** Requests that one address may make in a minute. */
const A_MINUTE = 240;
/** Searches of others that are worked at together; the rest waits, and too many are sent away. */
const BESIDE = 2;
const MOST_WAITING = 20;

/** Searching by SRU for other catalogues, without signing in, where the house answers them. */
export function sruRoutes(services: Services): Router {
  const router = Router();
  let busy = 0;
  const waiting: (() => void)[] = [];
  const turn = async <T>(work: () => Promise<T>): Promise<T> => {
    if (busy >= BESIDE) await new Promise<void>((next) => waiting.push(next));
    busy++;
    try {
      return await work();
    } finally {
      busy--;
      waiting.shift()?.();
    }
  };
  router.use(
    rateLimit({
      windowMs: 60_000,
      limit: A_MINUTE,
      standardHeaders: true,
      legacyHeaders: false,
      validate: false,
      keyGenerator: (req) => ipKeyGenerator(req.ip ?? ''),
      handler: (_req, res) =>
        void res.status(429).type('text/plain').send('Too many requests. Wait a minute.\n'),
    }),
  );
  router.get('/', (req, res, next) => {
    void (async () => {
      try {
        if (!((await services.store.house()).value.answersOthers ?? false))
          return void res.status(404).type('text/plain').send('This catalogue does not answer others.\n');
        if (waiting.length >= MOST_WAITING)
          return void res
            .status(503)
            .type('text/plain')
            .send('Too many searches at once. Try again in a moment.\n');
        const xml = await turn(() => answerSru(services, saidBy(req), placeOf(req)));
        res.type('text/xml; charset=utf-8').send(xml);
      } catch (error) {
        next(error);
      }
    })();
  });
  return router;
}

/** The parameters of a request, each once. */
const saidBy = (req: Request): ReadonlyMap<string, string> =>
  new Map(new URL(req.originalUrl, 'http://local').searchParams);

function placeOf(req: Request): { host: string; port: number } {
  const url = URL.canParse(`${req.protocol}://${req.get('host') ?? ''}`)
    ? new URL(`${req.protocol}://${req.get('host') ?? ''}`)
    : null;
  const port = Number(url?.port) || (req.protocol === 'https' ? 443 : 80);
  return { host: url?.hostname ?? 'localhost', port };
}
