import type { JobState } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { numberIn, registryNews } from '@osier/core/headings';
import { number as count, object, string } from 'yup';
import { wrong } from '../http/problem';
import { JobStopped, OSIER, type JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import { failureOf } from '../neighbours/http-get';
import { lastBegun } from '../neighbours/queries';
import type { Services } from '../services';
import { namesNumbered, registryOf, type NumberedNames } from './ask';
import { countNumbered, headingsNumbered, type NumberedThere } from './queries';

/** The name of the job. */
export const CHECKS_REGISTRY = 'check-registry';
/** Headings that are asked for together. */
const CHUNK = 20;

const cursor = object({
  after: string().default(''),
  done: count().default(0),
  news: count().default(0),
});

/** Begins to ask the registry for all headings that have a number there. */
export async function beginCheckingRegistry(services: Services, person: number): Promise<JobState> {
  const registry = await registryOf(services);
  if (!registry) throw wrong('registry', 'No registry is set up.');
  if (services.jobs.running().some((j) => j.kind === CHECKS_REGISTRY))
    throw wrong('registry', 'The registry is being asked already.');
  const total = await countNumbered(services.store, registry.agency);
  if (total === 0) throw wrong('registry', `No heading has a number of ${registry.agency} yet.`);
  return services.jobs.begin(CHECKS_REGISTRY, `Asking ${registry.name || 'the registry'}`, person, {}, total);
}

/** Begins it at night, unless it was begun this night, or there is nothing to ask. `since` is the beginning of the night. */
export async function checkRegistryAtNight(services: Services, since: number): Promise<void> {
  const registry = await registryOf(services);
  if (!registry) return;
  const last = await lastBegun(services.store, CHECKS_REGISTRY);
  if (last && Date.parse(last.started) >= since) return;
  if (services.jobs.running().some((j) => j.kind === CHECKS_REGISTRY)) return;
  if ((await countNumbered(services.store, registry.agency)) === 0) return;
  await beginCheckingRegistry(services, OSIER);
}

/** Job: asks the registry for each heading that has a number there, and keeps where it says otherwise. What does not answer changes nothing. */
export const checkRegistry =
  (services: Services): JobWork =>
  async (run) => {
    const { store } = services;
    const registry = await registryOf(services);
    if (!registry) return 'No registry is set up any more.';
    let { after, done, news } = keptWork(cursor, run.cursor);
    while (!run.cancelled()) {
      const chunk = await headingsNumbered(store.aside, registry.agency, after, CHUNK);
      const last = chunk.at(-1);
      if (!last)
        return `Asked ${registry.name || 'the registry'} for ${counted(done, 'heading')}: ${news === 0 ? 'it says the same of all of them' : `of ${news.toLocaleString('en-GB')} it says something else`}.`;
      const numbers = chunk.map((c) => c.key.slice(registry.agency.length + 2));
      const found = await namesNumbered(services, registry, numbers).catch((error: unknown) => {
        if (run.stopping()) throw new JobStopped('The server stops.');
        throw new JobStopped(`The registry could not be asked: ${failureOf(error).message}`);
      });
      if (run.cancelled()) break;
      after = last.key;
      done += chunk.length;
      const at = new Date().toISOString();
      const rows = await newsOf(services, registry.agency, chunk, found);
      news += rows.filter((r) => r.says !== null).length;
      await store.write(async (tx) => {
        const table = store.table('registry_news');
        for (const { heading, says, form, number } of rows) {
          await table.remove({ heading }, tx);
          if (says !== null) await table.insert({ heading, says, form, number, at }, tx);
        }
        await run.keep({ after, done, news }, done, tx);
      });
    }
    return null;
  };

/** What the registry says of some headings as they are now; one whose number is another by now, or a cancelled one, or of which nothing could be read, is left as it is. */
async function newsOf(
  { store }: Services,
  agency: string,
  chunk: readonly NumberedThere[],
  { names, unread }: NumberedNames,
) {
  const by = new Map(names.map((n) => [n.number, n]));
  const asked = new Set(chunk.map((c) => `${c.heading} ${c.key}`));
  const held = await store.aside.readMany('heading', [...new Set(chunk.map((c) => c.heading))]);
  return held.flatMap(({ id, value }) => {
    const own = numberIn(value.marc, agency);
    const number = `(${agency})${own}`;
    if (own === null || unread.has(own) || !asked.has(`${id} ${number}`)) return [];
    const theirs = by.get(number) ?? null;
    const says = registryNews(value, theirs);
    const form = says === 'gone' ? (theirs?.replacedBy ?? '') : (theirs?.text ?? '');
    return [{ heading: Number(id), says, number, form }];
  });
}
