import { KIND_NAMES, KINDS } from '@osier/core/kinds';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openEmpty } from '../../testing/library';
import type { Store } from '../store';
import { findRows } from '.';
import { tableAttributes } from './table-models';

let folder: string;
let store: Store;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-models-'));
  store = await openEmpty(folder);
});
afterAll(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});

const columnsOf = async (table: string) =>
  (await store.rows<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`)).map((c) => c.name);

test.each(KIND_NAMES)('the model of %s has just the columns of its table', async (kind) => {
  const { table, columns, inherited = {}, keepsRemoved } = KINDS[kind];
  const declared = ['id', 'version', 'value', ...Object.keys(columns), ...Object.keys(inherited)];
  const kept = (await columnsOf(table)).filter((c) => c !== 'disputed');
  expect([...declared, ...(keepsRemoved ? ['gone'] : [])].sort()).toEqual(kept.sort());
  // Every column can be looked for and ordered by, each under its own name.
  for (const column of declared)
    expect(
      await store.reading((c) =>
        findRows<Record<string, unknown>>(c, table, {
          where: { [column]: 'nowhere' },
          order: [[column, 'DESC']],
          limit: 1,
        }),
      ),
    ).toEqual([]);
});

test.each(tableAttributes)('the model of %s has just the columns of its table', async (table, attributes) =>
  expect(Object.keys(attributes).sort()).toEqual((await columnsOf(table)).sort()),
);

test('rows of a table are added, changed, counted and taken away', async () => {
  const scans = store.table('scans');
  const kept = { purpose: 'stocktake', work: 1, at: '2026-01-01', person: 1 } as const;
  const scan = { ...kept, device: '', run: '', number: 0 };
  const ids = await store.write(async (tx) => [
    await scans.insert({ ...scan, code: 'A' }, tx),
    await scans.insert({ ...scan, code: 'B' }, tx),
  ]);
  expect(await scans.find({ order: [['id', 'DESC']] })).toEqual([
    { ...scan, id: ids[1], code: 'B', location: '' },
    { ...scan, id: ids[0], code: 'A', location: '' },
  ]);
  await store.write(async (tx) => {
    expect(await scans.update({ code: 'C' }, { code: 'A' }, tx)).toBe(1);
    expect(await scans.remove({ code: 'B' }, tx)).toBe(1);
    // Within the transaction its own writing is seen, and only there.
    expect(await store.within(tx).table('scans').count({ code: 'C' })).toBe(1);
    expect(await scans.count({ code: 'C' })).toBe(0);
  });
  expect(await scans.first({ where: { work: 1 } })).toMatchObject({ id: ids[0], code: 'C' });
});
