import type { LinkPage, LinkRow } from '@osier/contract';
import { LINK_RESULTS, linksOf, linkSentence, type LinkResult } from '@osier/core/links';
import { string, number, object } from 'yup';
import { cursorOf, placeIn } from '../http/cursor';
import { notFound, wrong } from '../http/problem';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import type { Services } from '../services';
import {
  addressesAfter,
  checksOf,
  countAddresses,
  countsOfLinks,
  forgetUnused,
  keepChecks,
  linksFound,
  type KeptCheck,
} from './queries';
import { tryLink } from './try-link';

const PAGE = 100;
/** Links of one record that are tried while one waits. */
const MOST_AT_ONCE = 20;
/** Addresses that a job tries at the same time, and of those at one site. */
const BESIDE = 12;
const BESIDE_AT_A_SITE = 2;
const CHUNK = 60;

/** The links of a record, each with what was found when it was tried last. */
export async function linksOfRecord({ store }: Services, id: number): Promise<{ rows: LinkRow[] }> {
  const record = await store.read('record', id);
  if (!record) throw notFound(`Record ${id}`);
  const links = linksOf(record.value);
  const checks = new Map(
    (
      await checksOf(
        store,
        links.map((l) => l.url),
      )
    ).map((c) => [c.url, c]),
  );
  return {
    rows: links.map(({ url, text }): LinkRow => {
      const check = checks.get(url);
      return { url, text, found: check ? foundOf(check) : null };
    }),
  };
}

const foundOf = (check: KeptCheck) => ({
  at: check.at,
  result: check.result,
  movedTo: check.movedTo,
  sentence: linkSentence(check),
});

/** Tries the links of a record now. */
export async function tryLinksOfRecord(services: Services, id: number): Promise<{ rows: LinkRow[] }> {
  const { rows } = await linksOfRecord(services, id);
  if (rows.length === 0) throw wrong('links', 'This record has no web address that can be tried.');
  await tryAll(
    services,
    rows.slice(0, MOST_AT_ONCE).map((r) => r.url),
  );
  return linksOfRecord(services, id);
}

/** Tries addresses, not too many at a time at one site, and keeps what was found. */
async function tryAll(
  { store, settings }: Services,
  urls: readonly string[],
  isCancelled: () => boolean = () => false,
): Promise<KeptCheck[]> {
  const waiting = [...urls];
  const busy = new Map<string, number>();
  const found: KeptCheck[] = [];
  const siteOf = (url: string) => new URL(url).host;
  /** The next address at a site that is not busy. */
  const take = (): string | undefined => {
    const at = waiting.findIndex((url) => (busy.get(siteOf(url)) ?? 0) < BESIDE_AT_A_SITE);
    return at < 0 ? undefined : waiting.splice(at, 1)[0];
  };
  const worker = async (): Promise<void> => {
    for (let url = take(); url !== undefined && !isCancelled(); url = take()) {
      const site = siteOf(url);
      busy.set(site, (busy.get(site) ?? 0) + 1);
      const check = await tryLink(url, settings.links);
      busy.set(site, busy.get(site)! - 1);
      found.push({ url, at: new Date().toISOString(), ...check });
    }
  };
  // A worker that finds all sites busy ends; those that keep them busy go on with the rest.
  await Promise.all(Array.from({ length: BESIDE }, worker));
  await store.write((tx) => keepChecks(store, found, tx));
  return found;
}

/** A page of the links that were found so, by default the gravest kind that there is. */
export async function listLinks(
  { store }: Services,
  asked: LinkResult | undefined,
  cursor: string | undefined,
): Promise<LinkPage> {
  const rows = await countsOfLinks(store.aside);
  const n = (result: LinkResult | null) => rows.find((r) => r.result === result)?.n ?? 0;
  const counts = LINK_RESULTS.map((result) => ({ result, n: n(result) })).filter((c) => c.n > 0);
  const result = asked ?? counts[0]?.result ?? 'gone';
  const [url, record] = placeIn<readonly [url: string, record: number]>(cursor, ['', 0]) ?? ['', 0];
  const found = await linksFound(store, result, { url, record }, PAGE + 1);
  const page = found.slice(0, PAGE);
  const last = page.at(-1);
  return {
    rows: page.map((l) => ({ record: l.record, title: l.title, url: l.url, found: foundOf(l) })),
    next: found.length > PAGE && last ? cursorOf([last.url, last.record]) : null,
    result,
    counts,
    untried: n(null),
  };
}

/** Begins trying the links of all records. */
export async function beginTryingLinks({ store, jobs }: Services, person: number) {
  if (jobs.running().some((j) => j.kind === 'try-links'))
    throw wrong('links', 'The links are being tried already.');
  const total = await countAddresses(store);
  if (total === 0) throw wrong('links', 'No record has a web address that can be tried.');
  return jobs.begin('try-links', 'Trying the links of all records', person, {}, total);
}

const cursor = object({
  place: string().defined().default(''),
  done: number().integer().default(0),
  bad: number().integer().default(0),
});

/** Job: tries the addresses of all records, in their order. */
export const tryAllLinks =
  (services: Services): JobWork =>
  async (run) => {
    const { store } = services;
    let { place, done, bad } = keptWork(cursor, run.cursor);
    while (!run.cancelled()) {
      const urls = await addressesAfter(store.aside, place, CHUNK);
      const last = urls.at(-1);
      if (last === undefined) {
        await store.write((tx) => forgetUnused(store, tx));
        return `Tried ${done.toLocaleString('en-GB')} addresses; ${bad.toLocaleString('en-GB')} of them need a look.`;
      }
      const found = await tryAll(services, urls, run.cancelled);
      if (run.cancelled()) break;
      place = last;
      done += urls.length;
      bad += found.filter((f) => f.result !== 'fine' && f.result !== 'needs sign-in').length;
      await store.reserve((tx) => run.keep({ place, done, bad }, done, tx));
    }
    return null;
  };
