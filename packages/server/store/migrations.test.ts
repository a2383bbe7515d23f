import { field, type MarcRecord } from '@osier/core/marc';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { initial } from './migrations/001-initial';
import { recipes } from './migrations/002-recipes';
import { KEYS_BEGIN, oldRecordKeys, recordKeysAnew } from '../projections/record-keys';
import { openStore } from './open-store';
import { undoEntry } from './undo';

const marc: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    field('020', '  ', 'a', '0306406152'),
    field('024', '8 ', 'a', 'TP-1234'),
    field('100', '1 ', 'a', 'Reedman, Amos'),
    field('245', '10', 'a', 'Notes on eels'),
  ],
};

test('a store from before there were suppliers: its records can be matched, its matches are read, nothing is lost, what was done can be taken back', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-old-'));
  const old = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'osier.sqlite'), logging: false });
  await old.query('CREATE TABLE SequelizeMeta (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)');
  await old.query("INSERT INTO SequelizeMeta (name) VALUES ('001-initial'), ('002-recipes')");
  for (const sql of [...initial, ...recipes]) await old.query(sql);
  const value = JSON.stringify(marc);
  await old.query(
    "INSERT INTO records (id, version, value, title, author, year, isbn, publisher, edition, language, material, sort) VALUES (7, 3, $1, 't', '', '', '', '', '', '', '', 't')",
    { bind: [value] },
  );
  await old.query(
    "INSERT INTO deliveries (id, version, value, name, sha256) VALUES (1, 1, '{}', 'old.mrc', 'x')",
  );
  const now = {
    delivery: 1,
    seq: 1,
    marc,
    decision: 'skip',
    target: 7,
    state: 'waiting',
    record: null,
    recipe: 'Clean',
  };
  await old.query(
    "INSERT INTO incoming (id, version, value, delivery, seq, state, decision, record, title, author, isbn, year, findings, errors, warnings, advice) VALUES (1, 1, $1, 1, 1, 'waiting', 'skip', NULL, 't', '', '', '', $2, 0, 1, 0)",
    { bind: [JSON.stringify(now), JSON.stringify([{ rule: 'spaces', severity: 'warning', message: 'x' }])] },
  );
  const matches = [
    { record: 7, by: 'isbn', key: '9780306406157', doubt: null },
    { record: 8, by: 'control', key: 'x:1', doubt: 'Unlike.' },
  ];
  await old.query(
    "INSERT INTO incoming_read (incoming, original, matches, repeats, repairs, taken) VALUES (1, $1, $2, NULL, '[]', '[]')",
    {
      bind: [value, JSON.stringify(matches)],
    },
  );
  // What was done with it: cleaned, then decided about.
  const [read1, cleaned] = [
    { ...now, marc: { ...marc, fields: marc.fields.slice(1) } },
    { ...now, decision: 'ask' },
  ];
  const done = [
    [1, 'clean', { kind: 'incoming', id: 1, version: 1, before: read1, after: cleaned }],
    [2, 'decide', { kind: 'incoming', id: 1, version: 2, before: cleaned, after: now }],
  ] as const;
  for (const [id, act, change] of done) {
    await old.query(
      "INSERT INTO daybook (id, at, person, act, sentence, objects) VALUES ($1, '2026-01-01', 1, $2, 'x', 1)",
      { bind: [id, act] },
    );
    await old.query('INSERT INTO daybook_parts (entry, part, changes) VALUES ($1, 0, $2)', {
      bind: [id, JSON.stringify([change])],
    });
    await old.query("INSERT INTO daybook_objects (kind, object, entry) VALUES ('incoming', 1, $1)", {
      bind: [id],
    });
  }
  await old.query(
    `INSERT INTO settings (id, version, value) VALUES (2, 4, '{"branches":[],"locations":[],"types":[]}')`,
  );
  for (const [id, fund, supplier] of [
    [1, 'Holt bequest', 'Reedling'],
    [2, '', ''],
    [3, 'General', 'Reedling'],
  ] as const)
    await old.query(
      "INSERT INTO copies (id, version, value, holding, barcode, status, type, last_seen) VALUES ($1, 1, $2, 1, $1, 'available', 'BK', '')",
      { bind: [id, JSON.stringify({ fund, supplier })] },
    );
  await old.close();

  const store = await openStore(folder);
  expect((await store.lists()).value).toMatchObject({
    funds: [
      { code: 'General', name: 'General' },
      { code: 'Holt bequest', name: 'Holt bequest' },
    ],
    suppliers: [{ code: 'Reedling', name: 'Reedling' }],
  });
  expect(await store.read('record', 7)).toEqual({ id: 7, version: 3, value: marc });
  // Migrations change shapes only: what records are compared and found by is computed by the job that the server begins.
  expect(await oldRecordKeys(store)).toEqual({ columns: true, index: true });
  expect(await recordKeysAnew(store, KEYS_BEGIN)).toBe(1);
  expect(await oldRecordKeys(store)).toEqual({ columns: false, index: false });
  expect(await store.row('SELECT title, sort, isbn FROM record_rows WHERE id = 7')).toEqual({
    title: 'Notes on eels',
    sort: 'notes on eels',
    isbn: '9780306406157',
  });
  const row = await store.row<{ matching: string }>('SELECT matching FROM records WHERE id = 7');
  expect(JSON.parse(row!.matching)).toMatchObject({ main: 'notes on eels', numbers: ['024 8:tp1234'] });
  const kinds = await store.rows<{ kind: string }>(
    'SELECT DISTINCT kind FROM record_keys WHERE record = 7 ORDER BY kind',
  );
  expect(kinds.map((k) => k.kind)).toEqual(['alike', 'heading personal naf', 'isbn', 'number']);
  const read = await store.row<{ matches: string; before: string }>(
    'SELECT matches, before FROM incoming_read',
  );
  expect(JSON.parse(read!.matches)).toEqual([
    {
      record: 7,
      strength: 100,
      sure: true,
      points: [{ by: 'isbn', said: '9780306406157' }],
      doubts: [],
      likeness: 0,
    },
    {
      record: 8,
      strength: 100,
      sure: false,
      points: [{ by: 'control', said: 'x:1' }],
      doubts: ['Unlike.'],
      likeness: 0,
    },
  ]);
  expect(JSON.parse(read!.before)).toEqual([{ rule: 'spaces', severity: 'warning' }]);
  const decision = { delivery: 1, seq: 1, target: 7, state: 'waiting', record: null, edits: 0 };
  const filledIn = { chosen: true, copies: [], note: '' };
  const whole = { ...decision, ...filledIn, decision: 'skip' };
  expect((await store.read('incoming', 1))!.value).toEqual(whole);
  expect(await store.read('fields', 1)).toEqual({ id: 1, version: 1, value: { marc, recipe: 'Clean' } });
  for (const entry of [2, 1]) expect(await undoEntry(store, entry, 1)).toHaveProperty('entry');
  expect((await store.read('incoming', 1))!.value).toEqual(whole);
  expect((await store.read('fields', 1))!.value.marc).toEqual(read1.marc);
  await store.close();
  rmSync(folder, { recursive: true });
});
