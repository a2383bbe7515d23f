import { marcJson, type MarcRecord } from '@osier/core/marc';
import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { beginDelivery } from '../deliveries/deliveries';
import { deliveryPath } from '../deliveries/read-delivery';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import { listThere, refuseWhileRunning } from './book-lists';

/** Makes a delivery of the records that were found and are in none yet: it is reviewed and accepted as any other. */
export async function deliverBooks(
  services: Services,
  person: number,
  id: number,
): Promise<{ delivery: number; job: number }> {
  const { store, settings } = services;
  const list = await listThere(services, id);
  refuseWhileRunning(services, id);
  const table = store.table('book_list_rows');
  const rows = (await table.find({ where: { list: id, delivery: 0 }, order: [['seq', 'ASC']] })).filter(
    (r) => r.marc !== null,
  );
  if (rows.length === 0)
    throw wrong('list', 'No record of this list was found that is not in a delivery already.');
  const records = rows.map((r) => keptJson<MarcRecord>(r.marc ?? 'null'));
  const bytes = Buffer.from(records.map((r) => `${marcJson(r)}\n`).join(''), 'utf8');
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const path = deliveryPath(settings.data, sha256);
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, bytes, { mode: 0o600 });
  const name = `${list.name} (neighbours)`;
  return beginDelivery(services, person, {
    ...{ name, format: 'json', bytes: bytes.length, sha256 },
    beginning: records,
    async also(delivery, tx) {
      const seqs = rows.map((r) => r.seq);
      const taken = await table.update({ delivery }, { list: id, seq: seqs, delivery: 0 }, tx);
      // Somebody else may have made one of them a moment ago.
      if (taken !== seqs.length) throw wrong('list', 'These records went into a delivery just now.');
    },
  });
}
