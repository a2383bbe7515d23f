import { changeCopies } from './copies/change-many';
import { loadLoanFigures } from './copies/loan-figures';
import { takeAuthorities } from './headings/authority-file';
import { makeHeadings } from './headings/make-headings';
import { mergeAllSame } from './headings/merge-all';
import { mergeManyHeadings } from './headings/merge';
import type { Express } from 'express';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app';
import { cleanRecords } from './catalogue/clean';
import { undoLarge } from './daybook/undo-job';
import { acceptDelivery } from './deliveries/accept';
import { clearLeftOvers } from './deliveries/keep-file';
import { matchDelivery } from './deliveries/change-settings';
import { cleanDelivery } from './deliveries/clean';
import { decideDelivery } from './deliveries/decide';
import { readDelivery } from './deliveries/read-delivery';
import { takeBack } from './deliveries/take-back';
import { beginCheckingRecords, checkAllRecords, checkWhenRulesChange } from './jobs/check-records';
import { jobsOf } from './jobs/jobs';
import { beginRebuildingKeys, rebuildKeys, orderWhenRulesChange } from './jobs/rebuild-keys';
import { tryAllLinks } from './links/links';
import { noLoansDesk } from './loans/ports';
import { sip2LoansDesk } from './loans/sip2';
import { errorForLog } from './log-error';
import { askingNeighbours } from './neighbours/asking';
import { secretsOf } from './neighbours/secrets';
import { picturesOf } from './neighbours/covers';
import { everyNight } from './neighbours/every-night';
import { GROWS, growBriefRecords } from './neighbours/grow-records';
import { CHECKS_REGISTRY, checkRegistry } from './registry/check';
import { lookUpBooks } from './neighbours/look-up-books';
import { sruNeighbours } from './neighbours/sru';
import { z3950Neighbours } from './neighbours/yaz-client';
import { peopleOf } from './people/people';
import { fillPile } from './piles/fill';
import type { Services } from './services';
import { closeStocktake } from './stocktake/close';
import { askSome, reckonSome } from './stocktake/reckoning';
import { loadScanFile } from './stocktake/scan-file';
import { settleMany } from './stocktake/settle-many';
import type { Settings } from './settings';
import { pairTouched } from './projections/alike-records';
import { keepingUp } from './projections/background';
import { compareTouched } from './projections/look-alikes';
import { tellLoans } from './withdrawals/tell-loans';
import { withdrawMany } from './withdrawals/withdraw-many';
import { openStore } from './store/open-store';
import { workerPool, type WorkerPool } from './workers/pool';

/** Milliseconds after which it is seen whether long work is done. */
const PAUSE = 500;
const pause = async (left: number): Promise<number> => {
  await new Promise((resolve) => setTimeout(resolve, PAUSE));
  return left;
};

/** A running Osier. */
export interface Running {
  readonly services: Services;
  readonly app: Express;
  readonly address: string;
  stop(): Promise<void>;
}

/** Work that makes or changes headings by the thousand: they are compared at one go when it is over. */
const CHANGES_HEADINGS = [
  ...['read-delivery', 'accept-delivery', 'take-back', 'undo', 'clean-records'],
  ...['take-authorities', 'make-headings', 'merge-headings', 'merge-all'],
];
/** Jobs that change many copies. */
const CHANGES_COPIES = ['withdraw-copies', 'change-copies', 'load-loans', 'undo', 'close-stocktake'];

/** Opens the store, takes up unfinished jobs, and listens. */
export async function startOsier(settings: Settings): Promise<Running> {
  const log = pino({ level: settings.logLevel, serializers: { err: errorForLog } });
  const store = await openStore(settings.data, settings.workers);
  const jobs = jobsOf(store, log);
  const loans = settings.loansDesk
    ? sip2LoansDesk(settings.loansDesk, settings.loansPatience * 1000)
    : noLoansDesk;
  const pool = workerPool(settings.workers);
  const { aside } = store;
  const background = keepingUp(
    aside,
    [
      {
        name: 'comparing names',
        of: ['heading', 'distinct'],
        some: (isStopped) =>
          jobs.running().some(({ kind }) => CHANGES_HEADINGS.includes(kind))
            ? pause(1)
            : compareTouched(aside, pool.names, { isStopped }),
      },
      {
        name: 'comparing records',
        of: ['record', 'apart'],
        // Long work writes records by the thousand: they are compared when it is done.
        some: () => (jobs.running().length ? pause(1) : pairTouched(aside, pool.pairRecords)),
      },
      {
        name: 'reckoning stocktakes',
        of: ['stocktake', 'scanbatch', 'settled', 'copy', 'holding'],
        // Work that changes copies by the thousand is over first.
        some: () =>
          jobs.running().some(({ kind }) => CHANGES_COPIES.includes(kind))
            ? pause(1)
            : reckonSome(aside, pool.reckonStocktake),
      },
      {
        name: 'telling the loans desk',
        of: ['withdrawn', 'settled', 'house'],
        some: () => tellLoans(aside, loans),
      },
      { name: 'asking about loans', of: ['stocktake', 'scanbatch'], some: () => askSome(aside, loans) },
    ],
    log,
  );
  const people = peopleOf(store, settings.demo);
  const secrets = secretsOf(settings.data);
  const { neighbourHosts } = settings;
  const asking = askingNeighbours(
    { sru: sruNeighbours(neighbourHosts), 'z39.50': z3950Neighbours(neighbourHosts) },
    secrets,
    picturesOf(neighbourHosts),
  );
  const services: Services = {
    ...{ store, jobs, people, loans, settings, log, background, pool },
    neighbours: { asking, secrets },
  };
  jobs.register('read-delivery', readDelivery(services));
  jobs.register('clean-delivery', cleanDelivery(services));
  jobs.register('accept-delivery', acceptDelivery(services));
  jobs.register('decide-delivery', decideDelivery(services));
  jobs.register('match-delivery', matchDelivery(services));
  jobs.register('change-copies', changeCopies(services));
  jobs.register('load-loans', loadLoanFigures(services));
  jobs.register('take-authorities', takeAuthorities(services));
  jobs.register('make-headings', makeHeadings(services));
  jobs.register('merge-all', mergeAllSame(services));
  jobs.register('merge-headings', mergeManyHeadings(services));
  jobs.register('take-back', takeBack(services));
  jobs.register('clean-records', cleanRecords(services));
  jobs.register('fill-pile', fillPile(services));
  jobs.register('undo', undoLarge(services));
  jobs.register('load-scans', loadScanFile(services));
  jobs.register('settle-findings', settleMany(services));
  jobs.register('withdraw-copies', withdrawMany(services));
  jobs.register('close-stocktake', closeStocktake(services));
  jobs.register('rebuild-keys', rebuildKeys(services));
  jobs.register('look-up-books', lookUpBooks(services));
  jobs.register(GROWS, growBriefRecords(services));
  jobs.register(CHECKS_REGISTRY, checkRegistry(services));
  jobs.register('try-links', tryAllLinks(services));
  jobs.register('check-records', checkAllRecords(services));
  await clearLeftOvers(settings.data);
  const resumed = await jobs.resume();
  if (resumed) log.info({ jobs: resumed }, 'took up unfinished work');
  await beginRebuildingKeys(services);
  await beginCheckingRecords(services);
  checkWhenRulesChange(services);
  orderWhenRulesChange(services);
  const noMoreNights = everyNight(services);
  const app = createApp(services);
  const server = settings.tls
    ? createTlsServer({ cert: readFileSync(settings.tls.cert), key: readFileSync(settings.tls.key) }, app)
    : createServer(app);
  // A file may take as long as it takes; a request that says nothing is ended by `bodyPatience`.
  server.requestTimeout = 0;
  // Longer than browsers and proxies keep an idle connection: the server must not close one on which a request is just coming.
  server.keepAliveTimeout = 75_000;
  await new Promise<void>((resolve, reject) =>
    server.once('error', reject).listen(settings.port, settings.host, resolve),
  );
  const { port } = server.address() as AddressInfo;
  const host = settings.host.includes(':') ? `[${settings.host}]` : settings.host;
  return {
    services,
    app,
    address: `${settings.tls ? 'https' : 'http'}://${host}:${port}`,
    stop() {
      noMoreNights();
      return stop(server, services, pool);
    },
  };
}

async function stop(
  server: Server,
  { jobs, loans, store, background }: Services,
  pool: WorkerPool,
): Promise<void> {
  const closed = new Promise<void>((resolve) => server.close(() => resolve()));
  // Event streams never end by themselves.
  setTimeout(() => server.closeAllConnections(), 200).unref();
  await jobs.stop();
  await background.stop();
  await pool.close();
  await closed;
  loans.close();
  await store.close();
}
