import type { DeliveryRow } from '@osier/contract';
import { creation } from '@osier/core/changes';
import { DEFAULT_SETTINGS, settingsOf, sheetFor, type Delivery } from '@osier/core/deliveries';
import { recogniseFormat, recordReader, type FileFormat, type MarcRecord } from '@osier/core/marc';
import { rename, rm } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { quoted } from '@osier/core/acts';
import { ProblemError } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { authorityPath } from '../headings/authority-rows';
import { keepFile } from './keep-file';
import type { Transaction } from '../store/database';
import { keptValue } from '../store/kept-json';
import { supplierOf } from './settings';
import { deliveriesWithCounts, firstOfSameFile } from './queries';
import { deliveryPath } from './read-delivery';

/** Takes a file in: looks whether it is MARC, keeps it, and starts reading it. A file that is not MARC leaves nothing. */
export async function takeIn(
  { store, settings, jobs }: Services,
  person: number,
  name: string,
  body: IncomingMessage,
): Promise<{ delivery: number | null; job: number | null; authorities: string | null }> {
  const kept = await keepFile(body, settings);
  try {
    const { head, bytes, sha256 } = kept;
    const recognised = recogniseFormat(head);
    if ('problem' in recognised)
      throw new ProblemError(415, `${quoted(name)} was not loaded. ${recognised.problem}`);
    const beginning = firstRecords(recognised.format, head);
    // Authority records are never titles: a file of them goes to the headings, where what else is in it is told.
    if (beginning.filter((r) => r.leader[6] === AUTHORITY).length * 2 > beginning.length) {
      await rename(kept.path, authorityPath(settings.data, sha256));
      return { delivery: null, job: null, authorities: sha256 };
    }
    if (recognised.format === 'iso2709' && beginning.length === 0 && !mayBeginLater(head, bytes))
      throw new ProblemError(
        415,
        `${quoted(name)} was not loaded. This is not MARC: no record can be read in it.`,
      );
    await rename(kept.path, deliveryPath(settings.data, sha256));
    const begun = await beginDelivery({ store, jobs }, person, {
      ...{ name, bytes, sha256, format: recognised.format },
      beginning,
    });
    return { ...begun, authorities: null };
  } finally {
    await rm(kept.path, { force: true });
  }
}

/** Makes a delivery of a file that is kept under its digest, and starts reading it. */
export async function beginDelivery(
  { store, jobs }: Pick<Services, 'store' | 'jobs'>,
  person: number,
  file: Pick<Delivery, 'name' | 'format' | 'bytes' | 'sha256'> & {
    readonly beginning: readonly MarcRecord[];
    /** What else is written with it. */
    readonly also?: (delivery: number, tx: Transaction) => Promise<void>;
  },
): Promise<{ delivery: number; job: number }> {
  const { beginning, also, ...of } = file;
  const id = await store.nextIds('delivery', 1);
  // Nothing that it decides can become false: a delivery keeps the settings it came with.
  const sheets = await store.find('sheet', {
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const fits = sheetFor(
    of.name,
    beginning.slice(0, FIRST),
    sheets.map((s) => ({ ...s.value, id: s.id })),
  );
  const value: Delivery = {
    ...of,
    arrived: new Date().toISOString(),
    sheet: fits && { id: fits.sheet.id, name: fits.sheet.name, why: fits.why },
    settings: fits ? settingsOf(sheets.find((s) => s.id === fits.sheet.id)!.value) : DEFAULT_SETTINGS,
  };
  await commit(store, {
    did: { act: 'deliver', names: { delivery: of.name } },
    person,
    changes: [creation('delivery', id, value)],
    also: async (tx) => {
      const begun = { delivery: id, state: 'reading', unreadable: 0, repaired: 0 } as const;
      await store.table('readings').insert(begun, tx);
      await also?.(id, tx);
    },
  });
  const job = await jobs.begin('read-delivery', `Reading ${of.name}`, person, { delivery: id });
  return { delivery: id, job: job.id };
}

/** Leader/06 of an authority record (MARC 21 Authority, leader). */
const AUTHORITY = 'z';
/** A first record that is longer than what was looked at cannot be read yet. */
const mayBeginLater = (head: Uint8Array, bytes: number): boolean =>
  bytes > head.length && /^\s*\d{5}[a-z]/.test(new TextDecoder('latin1').decode(head.subarray(0, 40)));

/** The records at the beginning of a file, by which its supplier is known. */
function firstRecords(format: FileFormat, head: Uint8Array): MarcRecord[] {
  return recordReader(format)
    .push(head)
    .flatMap((r) => (r.record ? [r.record] : []));
}
const FIRST = 5;

/** All deliveries, or one, with how far each is. */
export async function listDeliveries({ store, jobs }: Services, only?: number): Promise<DeliveryRow[]> {
  const rows = await deliveriesWithCounts(store, only);
  const running = jobs.running();
  return Promise.all(
    rows.map(async ({ value, ...r }) => {
      const d = keptValue('delivery', value);
      const same = await firstOfSameFile(store, d.sha256, r.id);
      const before = same ? keptValue('delivery', same.value) : null;
      return {
        ...r,
        name: d.name,
        format: d.format,
        bytes: d.bytes,
        arrived: d.arrived,
        job: running.find((j) => j.work.delivery === r.id)?.id ?? null,
        supplier: supplierOf(d) || null,
        sameAs: same && before ? { id: same.id, name: before.name, arrived: before.arrived } : null,
      };
    }),
  );
}
