import type { DeliveryReport } from '@osier/contract';
import { outcomeOf, reportHead, reportLine, type ReportRow } from '@osier/core/deliveries';
import { asExported } from '@osier/core/holdings';
import { writeIso2709 } from '@osier/core/marc';
import type { Response } from 'express';
import { notFound } from '../http/problem';
import type { Services } from '../services';
import { keptJson, keptValue } from '../store/kept-json';
import { becameRecords, recordsWithHoldings, reportColumns } from './queries.incoming';

const AT_ONCE = 1000;

/** What became of each record, in the order of the file, a thousand at a time. */
async function* reportRows(store: Services['store'], delivery: number): AsyncGenerator<ReportRow[]> {
  for (let after = 0; ;) {
    const rows = await reportColumns(store, delivery, after, AT_ONCE);
    yield rows.map(({ value, repairs, ...row }) => ({
      ...row,
      barcodes: keptValue('incoming', value)
        .copies.map((c) => c.barcode)
        .filter(Boolean),
      repairs: keptJson<unknown[]>(repairs).length,
    }));
    if (rows.length < AT_ONCE) return;
    after = rows.at(-1)!.seq;
  }
}

/** What became of each record of a delivery as a table, written as it is read; it can be asked for ever. */
export async function sendReport({ store }: Services, delivery: number, res: Response): Promise<undefined> {
  await begin(store, delivery, res, 'text/csv; charset=utf-8', 'report.csv');
  // A byte order mark, because spreadsheets take a file without it for another encoding.
  res.write(`\ufeff${reportHead()}`);
  for await (const rows of reportRows(store, delivery)) for (const row of rows) res.write(reportLine(row));
  res.end();
  return undefined;
}

/** The same, for the page that is printed. */
export async function reportList({ store }: Services, delivery: number): Promise<DeliveryReport> {
  const held = await store.read('delivery', delivery);
  if (!held) throw notFound(`Delivery ${delivery}`);
  const all: ReportRow[] = [];
  for await (const rows of reportRows(store, delivery)) all.push(...rows);
  return {
    name: held.value.name,
    arrived: held.value.arrived,
    rows: all.map((r) => ({ ...r, outcome: outcomeOf(r) })),
  };
}

/** The records of the catalogue that a delivery became, as they are now, in ISO 2709. */
export async function sendAccepted({ store }: Services, delivery: number, res: Response): Promise<undefined> {
  await begin(store, delivery, res, 'application/marc', 'accepted.mrc');
  for (let after = 0; ;) {
    const rows = await becameRecords(store, delivery, after, AT_ONCE);
    const held = await store.readMany(
      'record',
      rows.map((r) => r.record),
    );
    const by = new Map(held.map((h) => [h.id, h.value]));
    const shelved = await recordsWithHoldings(
      store,
      rows.map((r) => r.record),
    );
    const hasHoldings = new Set(shelved);
    for (const { record } of rows) {
      const marc = by.get(record);
      if (marc) res.write(writeIso2709(asExported(marc, hasHoldings.has(record))));
    }
    if (rows.length < AT_ONCE) break;
    after = rows.at(-1)!.seq;
  }
  res.end();
  return undefined;
}

/** Names the file that comes; a delivery that is not there is told instead. */
async function begin(
  store: Services['store'],
  delivery: number,
  res: Response,
  type: string,
  ending: string,
): Promise<void> {
  const held = await store.read('delivery', delivery);
  if (!held) throw notFound(`Delivery ${delivery}`);
  const name = held.value.name.replace(/\.[a-z0-9]+$/i, '').replace(/[^A-Za-z0-9_-]+/g, '-');
  res.setHeader('content-disposition', `attachment; filename="${name}-${ending}"`);
  res.type(type);
}
