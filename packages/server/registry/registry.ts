import type { RegistryAnswer, RegistryNewsList, RegistryTakeBody, RegistryTaken } from '@osier/contract';
import { NUMBERS, type RegistryName } from '@osier/core/headings';
import { MARCXML_END, MARCXML_START, marcXmlElement } from '@osier/core/marc';
import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { headingsWithKeys } from '../headings/queries';
import { authorityPath } from '../headings/authority-rows';
import { wrong } from '../http/problem';
import { failureOf } from '../neighbours/http-get';
import { lastBegun } from '../neighbours/queries';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { namesLike, namesNumbered, registryOf } from './ask';
import { CHECKS_REGISTRY } from './check';
import { countNews, newsOfRegistry } from './queries';

/** Names that are shown of an answer, and news of a list. */
const SHOWN = 10;
const MOST_NEWS = 200;

/** What the registry has of a name. That it does not answer is told in the answer: nobody waits for it to work on. */
export async function askRegistry(services: Services, name: string): Promise<RegistryAnswer> {
  const registry = await registryOf(services);
  const nothing = { count: 0, names: [] };
  if (!registry) return { registry: null, state: 'none', message: '', ...nothing };
  const called = registry.name || 'The registry';
  try {
    const { count, names } = await namesLike(services, registry, name);
    return {
      registry: called,
      state: names.length ? 'found' : 'none',
      message: '',
      count,
      names: await shown(services.store, names.slice(0, SHOWN)),
    };
  } catch (error) {
    return { registry: called, state: 'failed', message: failureOf(error).message, ...nothing };
  }
}

/** Names of the registry with the headings here that have their numbers. */
async function shown(store: Store, names: readonly RegistryName[]): Promise<RegistryAnswer['names']> {
  const found = await headingsWithKeys(
    store,
    names.map((n) => ({ group: NUMBERS, key: n.number })),
  );
  return names.map(({ number, text, seeFroms, sources, forms, isGone, replacedBy }) => ({
    ...{ number, text, isGone, replacedBy },
    ...{ seeFroms: [...seeFroms], sources: [...sources], forms: forms.map((f) => ({ ...f })) },
    heading: found.find((f) => f.key === number)?.heading ?? null,
  }));
}

/**
 * Gets names from the registry once more, and keeps them as a file of authority records, which is reviewed and loaded as any other; each
 * for the heading that it was chosen for. 422 when the registry does not answer or does not have one of them any more.
 */
export async function takeFromRegistry(
  services: Services,
  { takes }: RegistryTakeBody,
): Promise<RegistryTaken> {
  const registry = await registryOf(services);
  if (!registry) throw wrong('takes', 'No registry is set up.');
  const begins = `(${registry.agency})`;
  const numbers = takes.map(({ number }) => number.slice(begins.length));
  const strange = takes.find(({ number }) => !number.startsWith(begins));
  if (strange) throw wrong('takes', `“${strange.number}” is no number of ${registry.agency}.`);
  const { names } = await namesNumbered(services, registry, numbers).catch((error: unknown) => {
    throw wrong('takes', `The registry could not be asked: ${failureOf(error).message}`);
  });
  const by = new Map(names.map((n) => [n.number, n]));
  const records = takes.map(({ number }) => {
    const name = by.get(number);
    if (!name) throw wrong('takes', `The registry has no ${number} any more.`);
    return name.marc;
  });
  const file = Buffer.from([MARCXML_START, ...records.map(marcXmlElement), MARCXML_END].join('\n'));
  const sha256 = createHash('sha256').update(file).digest('hex');
  const path = authorityPath(services.settings.data, sha256);
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, file);
  return {
    sha256,
    name: registry.name || 'the registry',
    onto: takes.flatMap(({ heading }, i) => (heading === null ? [] : [{ seq: i + 1, heading }])),
  };
}

/** Where the registry says otherwise than the headings here, as it was asked last. */
export async function listRegistryNews(services: Services): Promise<RegistryNewsList> {
  const { store } = services;
  const registry = await registryOf(services);
  if (!registry) return { registry: null, asked: null, total: 0, rows: [] };
  return {
    registry: registry.name || 'The registry',
    asked: (await lastBegun(store, CHECKS_REGISTRY))?.started ?? null,
    total: await countNews(store, registry.agency),
    rows: await newsOfRegistry(store, registry.agency, MOST_NEWS),
  };
}
