import type { DeliveryRow } from '@osier/contract';
import { creation } from '@osier/core/changes';
import { DEFAULT_SETTINGS, settingsOf, sheetFor, type Delivery } from '@osier/core/deliveries';
import { recogniseFormat, recordReader, type FileFormat, type MarcRecord } from '@osier/core/marc';
import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { quoted } from '../daybook/sentences';
import { ProblemError } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { deliveryPath } from './read-delivery';

const LARGEST = 600 * 1024 * 1024;

/** Takes a file in: looks whether it is MARC, keeps it, and starts reading it. A file that is not MARC leaves nothing. */
export async function takeIn(
  { store, settings, jobs }: Services,
  person: number,
  name: string,
  body: Readable,
): Promise<{ delivery: number; job: number }> {
  const temporary = join(settings.data, 'deliveries', `arriving-${randomUUID()}`);
  await mkdir(dirname(temporary), { recursive: true });
  try {
    const { head, bytes, sha256 } = await keepFile(body, temporary);
    const recognised = recogniseFormat(head);
    if ('problem' in recognised)
      throw new ProblemError(415, `${quoted(name)} was not taken in. ${recognised.problem}`);
    await rename(temporary, deliveryPath(settings.data, sha256));
    const id = await store.nextIds('delivery', 1);
    // Nothing that it decides can become false: a delivery keeps the settings it came with.
    const sheets = await store.select('sheet', '1 ORDER BY name, id');
    const fits = sheetFor(
      name,
      firstRecords(recognised.format, head),
      sheets.map((s) => ({ ...s.value, id: s.id })),
    );
    const value: Delivery = {
      name,
      format: recognised.format,
      bytes,
      sha256,
      arrived: new Date().toISOString(),
      sheet: fits && { id: fits.sheet.id, name: fits.sheet.name, why: fits.why },
      settings: fits ? settingsOf(sheets.find((s) => s.id === fits.sheet.id)!.value) : DEFAULT_SETTINGS,
    };
    await commit(store, {
      act: 'deliver',
      person,
      sentence: `Took in the delivery ${quoted(name)}`,
      changes: [creation('delivery', id, value)],
      also: (tx) =>
        store.run(
          "INSERT INTO readings (delivery, state, unreadable, repaired) VALUES (:id, 'reading', 0, 0)",
          { id },
          tx,
        ),
    });
    const job = await jobs.begin('read-delivery', `Reading ${name}`, person, { delivery: id });
    return { delivery: id, job: job.id };
  } finally {
    await rm(temporary, { force: true });
  }
}

/** The records at the beginning of a file, by which its supplier is known. */
function firstRecords(format: FileFormat, head: Uint8Array): MarcRecord[] {
  return recordReader(format)
    .push(head)
    .flatMap((r) => (r.record ? [r.record] : []))
    .slice(0, FIRST);
}
const FIRST = 5;

async function keepFile(
  body: Readable,
  path: string,
): Promise<{ head: Uint8Array; bytes: number; sha256: string }> {
  const file = createWriteStream(path);
  const hash = createHash('sha256');
  const head: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const chunk of body as AsyncIterable<Buffer>) {
      if (bytes < 65536) head.push(chunk);
      bytes += chunk.length;
      if (bytes > LARGEST)
        throw new ProblemError(413, 'A delivery may have up to 600 MB. Split the file and try again.');
      hash.update(chunk);
      if (!file.write(chunk)) await new Promise<void>((resolve) => file.once('drain', () => resolve()));
    }
  } finally {
    file.end();
    await finished(file);
  }
  return { head: Buffer.concat(head), bytes, sha256: hash.digest('hex') };
}

interface DeliveryColumns {
  id: number;
  value: string;
  state: DeliveryRow['state'];
  problem: string | null;
  unreadable: number;
  repaired: number;
  records: number;
  waiting: number;
  accepted: number;
  skipped: number;
}
const COUNTS = `SELECT d.id, d.value, r.state, r.problem, r.unreadable, r.repaired, COUNT(i.id) AS records,
  COALESCE(SUM(i.state = 'waiting'), 0) AS waiting, COALESCE(SUM(i.state = 'accepted'), 0) AS accepted, COALESCE(SUM(i.state = 'skipped'), 0) AS skipped
  FROM deliveries d LEFT JOIN readings r ON r.delivery = d.id LEFT JOIN incoming i ON i.delivery = d.id`;

export async function listDeliveries({ store, jobs }: Services, only?: number): Promise<DeliveryRow[]> {
  const rows = await store.rows<DeliveryColumns>(
    `${COUNTS} ${only ? 'WHERE d.id = :only' : ''} GROUP BY d.id ORDER BY d.id DESC`,
    { only },
  );
  const running = jobs.running();
  return Promise.all(
    rows.map(async ({ value, ...r }) => {
      const d = JSON.parse(value) as Delivery;
      const same = await store.row<{ id: number; value: string }>(
        'SELECT id, value FROM deliveries WHERE sha256 = :sha256 AND id < :id ORDER BY id LIMIT 1',
        { sha256: d.sha256, id: r.id },
      );
      const before = same ? (JSON.parse(same.value) as Delivery) : null;
      return {
        ...r,
        name: d.name,
        format: d.format,
        bytes: d.bytes,
        arrived: d.arrived,
        job: running.find((j) => j.work.delivery === r.id)?.id ?? null,
        supplier: (d as Partial<Delivery>).sheet?.name ?? null,
        sameAs: same && before ? { id: same.id, name: before.name, arrived: before.arrived } : null,
      };
    }),
  );
}
