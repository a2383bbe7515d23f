import express, { type Express, type Request } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pinoHttp } from 'pino-http';
import { catalogueRoutes } from './catalogue/routes';
import { copyRoutes } from './copies/routes';
import { daybookRoutes } from './daybook/routes';
import { deliveryRoutes } from './deliveries/routes';
import { recipeRoutes } from './recipes/routes';
import { registryRoutes } from './registry/routes';
import { headingRoutes } from './headings/routes';
import { bodyPatience } from './http/body-patience';
import { errorAnswers } from './http/errors';
import { hostCheck } from './http/host-check';
import { openApi } from './http/openapi';
import { originCheck } from './http/origin-check';
import { notFound } from './http/problem';
import { mount, type Route } from './http/route';
import { signInLimits } from './http/sign-in-limits';
import { errorForLog } from './log-error';
import { jobRoutes } from './jobs/routes';
import { labelRoutes } from './labels/routes';
import { linkRoutes } from './links/routes';
import { liveRoutes } from './live/routes';
import { neighbourRoutes } from './neighbours/routes';
import { peopleRoutes } from './people/routes';
import { session } from './people/session';
import { pileRoutes } from './piles/routes';
import { scannerRoutes } from './scanner/routes';
import type { Services } from './services';
import { setupRoutes } from './setup/routes';
import { sruRoutes } from './sru/routes';
import { browseRoutes } from './browse/routes';
import { searchRoutes } from './searches/routes';
import { starterRoutes } from './starters/routes';
import { supplierRoutes } from './suppliers/routes';
import { stocktakeRoutes } from './stocktake/routes';
import { todayRoutes } from './today/routes';
import { withdrawalRoutes } from './withdrawals/routes';

const BODY_LIMIT = '4mb';
/** Milliseconds without a byte after which a request is ended. */
const BODY_SILENCE = 30_000;
/** Paths that take a file as it is. */
const FILE_PATHS = /^\/(deliveries|stocktakes\/[^/]+\/load-file)\/?$/;

/** A number of hops, or addresses with commas between. */
const proxies = (said: string): number | string => (/^\d+$/.test(said) ? Number(said) : said);

/** Every path of the API. */
export const allRoutes = (services: Services): Route[] => [
  ...peopleRoutes(services.people),
  ...todayRoutes(services),
  ...deliveryRoutes(services),
  ...recipeRoutes(services),
  ...catalogueRoutes(services),
  ...linkRoutes(services),
  ...neighbourRoutes(services),
  ...labelRoutes(services),
  ...headingRoutes(services),
  ...registryRoutes(services),
  ...copyRoutes(services),
  ...pileRoutes(services),
  ...withdrawalRoutes(services),
  ...stocktakeRoutes(services),
  ...daybookRoutes(services),
  ...setupRoutes(services),
  ...browseRoutes(services),
  ...searchRoutes(services),
  ...starterRoutes(services),
  ...supplierRoutes(services),
  ...scannerRoutes(services),
  ...jobRoutes(services),
  ...liveRoutes(services),
];

/** The HTTP application: API under /api, the web application beside it. */
export function createApp(services: Services): Express {
  const { log, settings } = services;
  const app = express();
  app.disable('x-powered-by');
  if (settings.trustProxy !== '') app.set('trust proxy', proxies(settings.trustProxy));
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (req) => !req.url?.startsWith('/api') },
      // No headers and no query: ids are enough, and what people search for is theirs.
      serializers: {
        req: (r: { method: string; url: string }) => ({ method: r.method, path: r.url.split('?')[0] }),
        res: (r: { statusCode: number }) => ({ status: r.statusCode }),
        err: errorForLog,
      },
      customLogLevel: (_req, res, err) =>
        err || res.statusCode >= 500 ? 'error' : res.statusCode >= 400 ? 'info' : 'debug',
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        // Styles are computed in the page by the component library; scripts only come from here.
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.get('/api/health', (_req, res) => void res.json({ status: 'ok' }));
  app.use(hostCheck(settings.hosts));
  const api = express.Router();
  // Answers are of one person and of one moment.
  api.use((_req, res, next) => next(void res.setHeader('cache-control', 'no-store')));
  api.use(originCheck);
  api.use(session(services.people));
  api.use(bodyPatience(BODY_SILENCE));
  const routes = allRoutes(services);
  const isFile = (req: Request) => req.method === 'POST' && FILE_PATHS.test(req.path);
  const json = express.json({ limit: BODY_LIMIT });
  api.use((req, res, next) => (isFile(req) ? next() : json(req, res, next)));
  // By the account that is tried as well, which stands in the body.
  api.use(['/sign-in', '/first-head'], ...signInLimits());
  api.get('/openapi.json', (_req, res) => void res.json(openApi()));
  mount(api, routes);
  api.use((req, _res, next) => next(notFound(`/api${req.path}`)));
  app.use('/api', api);
  app.use('/sru', sruRoutes(services));
  serveWeb(app, settings.web);
  app.use(errorAnswers(log, services.store));
  return app;
}

/** The built web application; its addresses all lead to the one page. */
function serveWeb(app: Express, folder: string): void {
  const page = join(folder, 'index.html');
  if (!existsSync(page)) return;
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y' }));
  app.use(express.static(folder, { index: false }));
  app.use((req, res, next) =>
    req.method === 'GET' ? res.sendFile(page, { headers: { 'cache-control': 'no-cache' } }) : next(),
  );
}
