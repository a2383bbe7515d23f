import { rollNumber, type LabelRoll } from '@osier/core/barcodes';
import { creation, removal, update } from '@osier/core/changes';
import { headingFrom } from '@osier/core/headings';
import type { Copy, Holding } from '@osier/core/holdings';
import { field, type MarcRecord } from '@osier/core/marc';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { breaches } from '../testing/invariants';
import { commit } from './commit';
import { ConflictError, NothingChanged } from './conflict';
import { disputed, disputedCount } from './disputed';
import { initial } from './migrations/001-initial';
import { recipes } from './migrations/002-recipes';
import { suppliers } from './migrations/003-suppliers';
import { incomingFields } from './migrations/004-incoming-fields';
import { searchIndexes } from './migrations/005-search-indexes';
import { piles } from './migrations/007-piles';
import { searchOrder } from './migrations/008-search-order';
import { openEmpty } from '../testing/library';
import { openStore } from './open-store';
import { rollUse } from '../projections/roll-numbers';
import type { Store } from './store';
import { undoEntry } from './undo';
import { TESTED } from '../testing/tested';

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-inv-'));
  store = await openEmpty(folder);
});
afterEach(async () => {
  await store.close().catch(() => undefined);
  rmSync(folder, { recursive: true });
});

const marc: MarcRecord = { leader: '00000nam a2200000 i 4500', fields: [field('245', '10', 'a', 'Eels')] };
const holding = (record: number, more: Partial<Holding> = {}): Holding => ({
  record,
  branch: 'MR',
  location: 'OPEN',
  scheme: 'own',
  prefix: '',
  class: '1',
  item: '',
  suffix: '',
  note: '',
  ...more,
});
const copy = (of: number, barcode: string, number: number): Copy => ({
  holding: of,
  barcode,
  number,
  type: 'BK',
  price: null,
  fund: '',
  supplier: '',
  acquired: '',
  condition: '',
  note: '',
  status: 'available',
  lastSeen: '',
});
const act = (...changes: Parameters<typeof commit>[1]['changes']) =>
  commit(store, { did: TESTED, person: 1, changes });
const title = () =>
  act(creation('record', 1, marc), creation('holding', 1, holding(1)), creation('copy', 1, copy(1, 'A1', 1)));

test('what there is only once is refused by name, in one commit and across two', async () => {
  await title();
  await expect(act(creation('copy', 2, copy(1, 'a1', 2)))).rejects.toMatchObject({
    conflicts: [{ kind: 'copy', id: 1, takes: 'barcode ["a1"]' }],
  });
  await expect(act(creation('copy', 2, copy(1, 'A2', 1)))).rejects.toMatchObject({
    conflicts: [{ id: 1, takes: 'number [1,"",1]' }],
  });
  await act(creation('copy', 2, { ...copy(1, 'A2', 1), part: 'v. 2' }));
  await expect(act(creation('copy', 3, { ...copy(1, 'A3', 1), part: 'V.2' }))).rejects.toMatchObject({
    conflicts: [{ id: 2, takes: 'number [1,"v 2",1]' }],
  });
  await expect(act(creation('holding', 2, holding(1)))).rejects.toBeInstanceOf(ConflictError);
  const use = {
    kind: 'topic',
    vocabulary: 'lcsh',
    key: 'EELS',
    subfields: [{ code: 'a', value: 'Eels' }],
    ...{ tag: '150', ind1: ' ', ind2: ' ' },
  } as const;
  await act(creation('heading', 1, headingFrom(use)));
  await expect(act(creation('heading', 2, headingFrom(use)))).rejects.toMatchObject({
    conflicts: [{ kind: 'heading', id: 1 }],
  });
  await act(creation('heading', 2, headingFrom({ ...use, vocabulary: 'mesh' })));
  expect(await breaches(store)).toEqual([]);
});

test('nothing hangs on what is not there', async () => {
  await title();
  await expect(act(creation('copy', 2, copy(9, 'A2', 1)))).rejects.toMatchObject({
    conflicts: [{ kind: 'holding', id: 9 }],
  });
  const held = (await store.read('holding', 1))!;
  await expect(act(removal('holding', held))).rejects.toMatchObject({
    conflicts: [{ kind: 'holding', id: 1, dependsOn: 'copy' }],
  });
  // The database refuses it too, whatever the program does.
  await expect(store.write((tx) => store.run('DELETE FROM holdings WHERE id = 1', {}, tx))).rejects.toThrow(
    /FOREIGN KEY/,
  );
  expect(await breaches(store)).toEqual([]);
});

test('what was undone and given away since is a conflict that names what has it', async () => {
  await title();
  const entry = await act(removal('copy', (await store.read('copy', 1))!));
  await act(creation('copy', 2, copy(1, 'A1', 1)));
  await expect(undoEntry(store, entry, 1)).rejects.toMatchObject({
    conflicts: [{ kind: 'copy', id: 2, takes: expect.stringMatching(/barcode|number/) as string }],
  });
  expect(await breaches(store)).toEqual([]);
});

test('an act that changes nothing leaves no entry', async () => {
  await title();
  const held = (await store.read('copy', 1))!;
  await expect(act(update('copy', held, { ...held.value }))).rejects.toBeInstanceOf(NothingChanged);
  expect(await store.rows('SELECT id FROM daybook')).toHaveLength(1);
});

test('the ledger of a label roll: number nought counts, a wrong check digit does not, what is undone is free again', async () => {
  const roll: LabelRoll = { name: 'R', prefix: '9', from: 0, to: 99, length: 8, check: true, supplier: '' };
  await act(creation('roll', 1, roll));
  const use = () => rollUse(store, { id: 1, version: 1, value: roll });
  await title();
  expect(await use()).toEqual({ used: 0, last: null, usedSpoiled: 0 });
  const entry = await act(creation('copy', 2, copy(1, rollNumber(roll, 0), 2)));
  expect(await use()).toEqual({ used: 1, last: 0, usedSpoiled: 0 });
  const right = rollNumber(roll, 50);
  await act(creation('copy', 3, copy(1, right.slice(0, -1) + ((Number(right.at(-1)) + 1) % 10), 3)));
  expect(await use()).toEqual({ used: 1, last: 0, usedSpoiled: 0 });
  await undoEntry(store, entry, 1);
  expect(await use()).toEqual({ used: 0, last: null, usedSpoiled: 0 });
  const held = (await store.read('roll', 1))!;
  await act(update('roll', held, { ...roll, check: false, length: 7 }));
  expect(await breaches(store)).toEqual([]);
});

test('one store, one process: the second is told, and the file is its owner’s alone', async () => {
  await expect(openStore(folder)).rejects.toThrow(/Another Osier is already using the data folder/);
  expect(statSync(join(folder, 'osier.sqlite')).mode & 0o777).toBe(0o600);
  await store.close();
  store = await openStore(folder);
});

test('an old store that breaks what must hold opens; what breaks it is listed, kept, and leaves the list when it is changed', async () => {
  await store.close();
  rmSync(folder, { recursive: true });
  folder = mkdtempSync(join(tmpdir(), 'osier-broken-'));
  const old = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'osier.sqlite'), logging: false });
  await old.query('CREATE TABLE SequelizeMeta (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)');
  const names = [
    '001-initial',
    '002-recipes',
    '003-suppliers',
    '004-incoming-fields',
    '005-search-indexes',
    '006-funds-and-suppliers',
    '007-piles',
    '008-search-order',
  ];
  for (const name of names) await old.query('INSERT INTO SequelizeMeta (name) VALUES ($1)', { bind: [name] });
  for (const sql of [
    ...initial,
    ...recipes,
    ...suppliers,
    ...incomingFields,
    ...searchIndexes,
    ...piles,
    ...searchOrder,
  ])
    await old.query(sql);
  const put = (table: string, row: Record<string, unknown>) =>
    old.query(
      `INSERT INTO ${table} (${Object.keys(row).join(', ')}) VALUES (${Object.keys(row)
        .map((_, i) => `$${i + 1}`)
        .join(', ')})`,
      { bind: Object.values(row) },
    );
  const json = (v: unknown) => JSON.stringify(v);
  await put('records', {
    id: 1,
    version: 1,
    value: json(marc),
    title: 'Eels',
    author: '',
    year: '',
    isbn: '',
    publisher: '',
    edition: '',
    language: '',
    material: '',
    sort: 'eels',
    matching: '{}',
  });
  for (const [id, record] of [
    [1, 1],
    [2, 1],
    [3, 77],
  ] as const)
    await put('holdings', {
      id,
      version: 1,
      value: json(holding(record)),
      record,
      branch: 'MR',
      location: 'OPEN',
      call_number: '1',
      shelf_key: '1',
    });
  for (const [id, of, barcode, n] of [
    [1, 1, 'B1', 1],
    [2, 1, 'b1', 2],
    [3, 1, 'B3', 1],
    [4, 99, 'B4', 1],
  ] as const)
    await put('copies', {
      id,
      version: 1,
      value: json(copy(of, barcode, n)),
      holding: of,
      barcode,
      status: 'available',
      type: 'BK',
      last_seen: '',
    });
  const name = { tag: '100', ind1: '1', ind2: ' ', subfields: [{ code: 'a', value: 'Reedman, A.' }] };
  for (const id of [1, 2])
    await put('headings', {
      id,
      version: 1,
      value: json({ kind: 'personal', marc: { leader: '', fields: [name] }, mergedInto: null }),
      kind: 'personal',
      key: 'REEDMAN, A',
      text: 'Reedman, A.',
      merged_into: null,
    });
  for (const [id, a, b] of [
    [1, 1, 1],
    [2, 1, 2],
    [3, 1, 2],
  ] as const)
    await put('distinct_pairs', { id, version: 1, value: json({ a, b }), a, b });
  for (const id of [1, 2])
    await put('piles', {
      id,
      version: 1,
      value: json({ name: 'Pile', of: 'record', note: '', by: '', madeOn: '' }),
      name: 'Pile',
    });
  for (const id of [1, 2])
    await put('piled', {
      id,
      version: 1,
      value: json({ pile: 1, kind: 'record', object: 1 }),
      pile: 1,
      kind: 'record',
      object: 1,
    });
  await put('piled', {
    id: 3,
    version: 1,
    value: json({ pile: 8, kind: 'record', object: 1 }),
    pile: 8,
    kind: 'record',
    object: 1,
  });
  await old.close();

  store = await openStore(folder);
  const list = async () => (await disputed(store)).map((d) => `${d.kind} ${d.id}`).sort();
  expect(await list()).toEqual([
    'copy 2',
    'copy 3',
    'copy 4',
    'distinct 1',
    'distinct 3',
    'heading 2',
    'holding 2',
    'holding 3',
    'pile 2',
    'piled 2',
  ]);
  expect(await disputedCount(store)).toBe(10);
  expect(await store.rows('SELECT * FROM pragma_foreign_key_check')).toEqual([]);
  // Nothing is lost.
  for (const [table, n] of [
    ['holdings', 3],
    ['copies', 4],
    ['headings', 2],
    ['distinct_pairs', 3],
    ['piled', 3],
  ] as const)
    expect((await store.row<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))!.n).toBe(n);
  // A note on a disputed copy can be written; it stays disputed.
  const two = (await store.read('copy', 2))!;
  await act(update('copy', two, { ...two.value, note: 'worn' }));
  expect(await list()).toContain('copy 2');
  // Another number settles the one, another name the other, and what it collided with being gone a third.
  const three = (await store.read('copy', 3))!;
  await act(update('copy', three, { ...three.value, number: 3 }));
  const pile = (await store.read('pile', 2))!;
  await act(update('pile', pile, { ...pile.value, name: 'Other pile' }));
  await act(removal('copy', (await store.read('copy', 1))!));
  expect(await list()).toEqual([
    'copy 4',
    'distinct 1',
    'distinct 3',
    'heading 2',
    'holding 2',
    'holding 3',
    'piled 2',
  ]);
  // An orphan is put where it belongs.
  const four = (await store.read('copy', 4))!;
  await act(update('copy', four, { ...four.value, holding: 1, number: 4 }));
  expect(await list()).not.toContain('copy 4');
});
