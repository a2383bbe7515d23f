import type { JobState, SettingsBody } from '@osier/contract';
import { counted, update } from '@osier/core/changes';
import {
  settingsProblems,
  type Delivery,
  type DeliverySettings,
  type IncomingRecord,
} from '@osier/core/deliveries';
import { copiesFrom } from '@osier/core/holdings';
import { describe } from '@osier/core/matching';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import { tryPlan } from '../store/commit';
import type { Store } from '../store/store';
import { sheetContext } from '../suppliers/sheets';
import { keysOf } from './keys';
import { throughDelivery } from './in-chunks';
import { matcherFor, type ToMatch } from './matcher';
import { waitingRecords, withTheirFields } from './incoming-records';
import { keepMatchedBefore, keepMatches, wasWorkedOn } from './queries';
import { copyWork, settingsFor } from './settings';

/**
 * Gives one delivery other settings and matches its waiting records anew; where the file must be read otherwise, it is
 * read anew, which is possible as long as nothing of it was accepted.
 */
export async function changeSettings(
  { store, jobs }: Services,
  person: number,
  id: number,
  body: SettingsBody,
): Promise<JobState> {
  const { anew, name } = await tryPlan(store, person, (s) => planSettings(s, id, body));
  return anew
    ? jobs.begin('read-delivery', `Reading ${name} anew`, person, { delivery: id })
    : jobs.begin('match-delivery', `Matching ${name} anew`, person, { delivery: id });
}

async function planSettings(store: Store, id: number, { version, sheet, settings: body }: SettingsBody) {
  const held = await store.read('delivery', id);
  if (!held) throw notFound(`Delivery ${id}`);
  const settings = body as unknown as DeliverySettings;
  const problems = settingsProblems(settings, await sheetContext({ store }));
  if (problems.length) throw wrongFields(problems);
  const now = settingsFor(held.value);
  const anew = (['format', 'charset', 'recipe'] as const).some((k) => now[k] !== settings[k]);
  if (anew) {
    if (await wasWorkedOn(store, id))
      throw wrong(
        'format',
        'Format, characters and recipe belong to the reading, and records of this delivery were already worked on. Load the file again to read it otherwise; a recipe can be run at any time.',
      );
  }
  const from = sheet === null ? null : await store.read('sheet', sheet);
  const next: Delivery = {
    ...held.value,
    sheet:
      from && held.value.sheet?.id === sheet
        ? held.value.sheet
        : from && { id: from.id, name: from.value.name, why: 'it was chosen by hand' },
    settings,
  };
  const { name } = held.value;
  const did = { act: 'settings' as const, names: { delivery: name } };
  return { did, changes: [update('delivery', { ...held, version }, next)], anew, name };
}

/** Job: matches the waiting records anew. What a person decided stays; copies are read anew. */
export const matchDelivery = deliveryJob(async (services, run, id, delivery) => {
  const { store } = services;
  const settings = settingsFor(delivery);
  const work = await copyWork(store, settings);
  const match = matcherFor(settings, work);
  const toMatch = ({ value: { seq }, fields }: IncomingRecord): ToMatch => {
    const { marc } = fields.value;
    const description = describe(marc);
    return { seq, description, keys: keysOf(description), copies: copiesFrom(marc, work.rules) };
  };
  const upTo = Number(run.cursor.place ?? 0);
  if (upTo === 0) await store.write((tx) => keepMatchedBefore(store, id, tx));
  // A killed server had already matched those before; the matcher must know them.
  for await (const rows of waitingRecords(store, id)) {
    const before = rows.filter((r) => r.value.seq <= upTo);
    if (before.length) await match(before.map(toMatch), store);
    if (before.length < rows.length) break;
  }
  const totals = await throughDelivery(services, run, {
    delivery: id,
    leaveOut: new Set(),
    did: (t) => ({
      act: 'match',
      names: { delivery: delivery.name },
      counts: { changed: t.changed ?? 0, meanwhile: t.meanwhile },
    }),
    async plan(chunk, store) {
      const matched = await match((await withTheirFields(store, chunk)).map(toMatch), store);
      const changes = chunk.map((c, i) => {
        const { value } = c;
        const { outcome, target, copies } = matched[i]!;
        const decision = value.chosen ? {} : { decision: outcome, target };
        return update('incoming', c, { ...value, ...decision, copies });
      });
      const changed = changes.filter((c) => c.before!.decision !== c.after!.decision).length;
      return {
        changes,
        totals: { changed },
        also: async (tx) => {
          const rows = chunk.map(
            (c, i) => [c.id, JSON.stringify(matched[i]!.matches), matched[i]!.repeats] as const,
          );
          await keepMatches(store, rows, tx);
        },
      };
    },
  });
  return `${counted(totals.changed ?? 0, 'record')} came to another outcome.`;
});
