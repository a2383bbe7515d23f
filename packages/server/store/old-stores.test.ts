import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { Database } from 'sqlite3';
import { RENAMED_RULES } from '@osier/core/checks';
import { KEYS_BEGIN, oldRecordKeys, recordKeysAnew } from '../projections/record-keys';
import { openStore } from './open-store';
import type { Store } from './store';
import { undoEntry } from './undo';

const fixtures = join(__dirname, 'fixtures');
const versions = readdirSync(fixtures).filter((name) => name.endsWith('.sqlite.gz'));
const folders: string[] = [];
const newFolder = () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-old-'));
  folders.push(folder);
  return folder;
};
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true })));

/** Tables with their columns, indexes and triggers. */
const shapeOf = async (store: Store) => ({
  columns: await store.rows(
    `SELECT m.name AS "table", c.name, c.type, c."notnull", c.pk FROM sqlite_master m JOIN pragma_table_info(m.name) c
      WHERE m.type = 'table' AND m.name NOT LIKE 'sqlite_%' ORDER BY 1, 2`,
  ),
  // The two tables of keys take each other's names when they are rebuilt; their indexes keep theirs.
  others: await store.rows(
    "SELECT type, CASE WHEN name LIKE 'record_keys%_record' THEN tbl_name || '_record' ELSE name END AS name, tbl_name FROM sqlite_master WHERE type <> 'table' AND name NOT LIKE 'sqlite_%' ORDER BY 1, 2",
  ),
});

let today: Awaited<ReturnType<typeof shapeOf>>;
let migrations: { name: string }[];
beforeAll(async () => {
  const store = await openStore(newFolder());
  today = await shapeOf(store);
  migrations = await store.rows('SELECT name FROM SequelizeMeta ORDER BY name');
  await store.close();
});

test('there is a store of each earlier version', () => {
  expect(today.columns.length).toBeGreaterThan(100);
  expect(versions).toEqual(migrations.slice(0, -1).map(({ name }) => `${name.slice(0, 3)}.sqlite.gz`));
});

test.each(versions)(
  '%s is opened: nothing is lost, all is found, what was done can be undone',
  async (name) => {
    const folder = newFolder();
    writeFileSync(join(folder, 'osier.sqlite'), gunzipSync(readFileSync(join(fixtures, name))));
    const store = await openStore(folder);
    const title = async () => (await store.read('record', 1))?.value.fields.find((f) => f.tag === '245');
    expect(await title()).toMatchObject({ subfields: [{ code: 'a', value: 'The eels of Osmere, again' }] });
    expect((await store.read('heading', 1))?.value.marc.fields).toHaveLength(2);
    expect(await store.find('holding', { where: { record: 1, call_number: '746.41 REE' } })).toHaveLength(1);
    expect((await store.find('copy', { where: { record: 1 } }))[0]?.value).toMatchObject({
      barcode: '31204000517715',
      price: 1250,
      status: 'available',
    });
    await recordKeysAnew(store, KEYS_BEGIN);
    expect(await oldRecordKeys(store)).toEqual({ columns: false, index: false });
    expect(await shapeOf(store)).toEqual(today);
    expect(
      await store.rows("SELECT record FROM record_keys WHERE kind = 'isbn' AND key = '9780306406157'"),
    ).toEqual([{ record: 1 }]);
    expect(
      await store.rows(`SELECT rowid AS id FROM record_words WHERE record_words MATCH 'title : "again"'`),
    ).toEqual([{ id: 1 }]);
    expect(await store.row('SELECT sort, isbn FROM record_rows WHERE id = 1')).toEqual({
      sort: 'eels of osmere again',
      isbn: '9780306406157',
    });
    await undoEntry(store, 2, 1);
    expect(await title()).toMatchObject({ subfields: [{ code: 'a', value: 'The eels of Osmere' }] });
    await store.close();
  },
);

/** Writes to a store that no code of today has opened yet. */
const writeOld = (file: string, statements: readonly string[]) =>
  new Promise<void>((resolve, reject) => {
    const db = new Database(file);
    db.exec(statements.join(';\n'), (error) => db.close(() => (error ? reject(error) : resolve())));
  });

test('what is kept by a check’s former name goes on under the one that it has now', async () => {
  const folder = newFolder();
  const file = join(folder, 'osier.sqlite');
  writeFileSync(file, gunzipSync(readFileSync(join(fixtures, '017.sqlite.gz'))));
  const was = Object.keys(RENAMED_RULES);
  const all = JSON.stringify(was);
  const steps = JSON.stringify({ name: 'Old', steps: was.map((rule) => ({ step: 'apply-fixes', rule })) });
  const findings = JSON.stringify(
    was.map((rule) => ({ rule, severity: 'error', message: `says "${rule}-x"` })),
  );
  await writeOld(file, [
    `INSERT OR REPLACE INTO settings (id, version, value) VALUES (1, 1, '{"checksOff":${all}}')`,
    `INSERT INTO recipes (id, version, value, name) VALUES (7, 1, '${steps}', 'Old')`,
    'DELETE FROM record_findings',
    'DELETE FROM finding_counts',
    ...was.map(
      (rule) => `INSERT INTO record_findings (record, rule, severity) VALUES (1, '${rule}', 'error')`,
    ),
    `INSERT INTO incoming_fields (id, version, title, author, isbn, year, errors, warnings, advice, findings, value)
       VALUES (1, 1, '', '', '', '', 0, 0, 0, '${findings}', '{}')`,
  ]);
  const store = await openStore(folder);
  const is = Object.values(RENAMED_RULES);
  expect((await store.house()).value.checksOff).toEqual(is);
  const recipe = (await store.read('recipe', 7))!.value;
  expect(recipe.steps).toEqual(is.map((rule) => ({ step: 'apply-fixes', rule })));
  const kept = await store.rows<{ rule: string }>('SELECT rule FROM record_findings ORDER BY rule');
  expect(kept.map((r) => r.rule)).toEqual([...is].sort());
  const counts = await store.rows('SELECT rule FROM finding_counts WHERE n = 1');
  expect(counts).toHaveLength(is.length);
  const incoming = await store.row<{ findings: string }>('SELECT findings FROM incoming_fields');
  const read = JSON.parse(incoming!.findings) as { rule: string; message: string }[];
  expect(read.map((f) => f.rule)).toEqual(is);
  expect(read[0]!.message).toBe(`says "${was[0]}-x"`);
  await store.close();
});
