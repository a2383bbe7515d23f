import { TITLE_WORDS, wordsAt } from '@osier/core/access';
import { creation, removal, sameValue, update } from '@osier/core/changes';
import { field, type MarcRecord } from '@osier/core/marc';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { commit } from './commit';
import { ConflictError } from './conflict';
import { entryIndex } from './entry-index';
import { openEmpty } from '../testing/library';
import type { Store } from './store';
import { undoEntry, undoPlan } from './undo';
import { TESTED } from '../testing/tested';

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-store-'));
  store = await openEmpty(folder);
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});

const record = (title: string): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '001', value: title }, field('245', '10', 'a', title), field('650', ' 0', 'a', 'Willows')],
});
const act = (changes: Parameters<typeof commit>[1]['changes'], more: object = {}) =>
  commit(store, { did: TESTED, person: 1, changes, ...more });
const titles = async () =>
  (await store.rows<{ id: number; title: string }>('SELECT id, title FROM records ORDER BY id')).map(
    (r) => r.title,
  );

test('what is committed is read, found by key and word, and in the daybook', async () => {
  const entry = await act([
    creation('record', 1, record('Eel traps')),
    creation('record', 2, record('Hurdles')),
  ]);
  expect(await store.read('record', 2)).toEqual({ id: 2, version: 1, value: record('Hurdles') });
  expect(
    await store.rows("SELECT record FROM record_keys WHERE kind = 'control' AND key = ':hurdles'"),
  ).toEqual([{ record: 2 }]);
  expect(await store.rows(`SELECT rowid AS id FROM record_words WHERE record_words MATCH '"eel"*'`)).toEqual([
    { id: 1 },
  ]);
  expect(await store.rows('SELECT id, objects, act, said FROM daybook')).toEqual([
    { id: entry, objects: 2, act: TESTED.act, said: JSON.stringify(TESTED) },
  ]);
});

test('an older version is a conflict that names what stands there, and nothing is written', async () => {
  await act([creation('record', 1, record('A'))]);
  const held = (await store.read('record', 1))!;
  await act([update('record', held, record('B'))]);
  const stale = act([creation('record', 2, record('Other')), update('record', held, record('C'))]);
  await expect(stale).rejects.toMatchObject({
    conflicts: [{ kind: 'record', id: 1, current: { version: 2 } }],
  });
  await expect(stale).rejects.toBeInstanceOf(ConflictError);
  expect(await titles()).toEqual(['B']);
});

test('work that fails after the rows were written leaves no trace of them', async () => {
  const failing = act([creation('record', 1, record('A'))], {
    also: () => Promise.reject(new Error('the disk is full')),
  });
  await expect(failing).rejects.toThrow('the disk is full');
  expect(await titles()).toEqual([]);
  expect(await store.rows('SELECT * FROM daybook')).toEqual([]);
  expect(await act([creation('record', 1, record('A'))])).toBeGreaterThan(0);
});

test('many at once are written one after the other, and numbers are never given twice', async () => {
  const first = await Promise.all(Array.from({ length: 20 }, () => store.nextIds('record', 3)));
  expect(new Set(first).size).toBe(20);
  await Promise.all(first.map((id) => act([creation('record', id, record(`T${id}`))])));
  expect(await titles()).toHaveLength(20);
});

test('parts of one entry are taken back together', async () => {
  const entry = await act([creation('record', 1, record('A'))]);
  await act([creation('record', 2, record('B'))], { entry });
  expect((await undoPlan(store, await entryIndex(store, [entry]))).changes).toHaveLength(2);
  expect(await undoEntry(store, entry, 1)).toHaveProperty('entry');
  expect(await titles()).toEqual([]);
});

test('hostile text is data', async () => {
  const title = `'); DROP TABLE records; -- "<script>alert(1)</script> :name $1 ? \\ \u2028`;
  await act([creation('record', 1, record(title))]);
  expect((await store.read('record', 1))!.value).toEqual(record(title));
});

test('whatever is done and taken back, keys and words are those of the records that are there', async () => {
  const step = fc.record({
    id: fc.integer({ min: 1, max: 3 }),
    title: fc.constantFrom('willow', 'hazel', 'rush', null),
  });
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { minLength: 1, maxLength: 6 }),
      fc.boolean(),
      async (steps, takeBack) => {
        const entries: number[] = [];
        for (const { id, title } of steps) {
          const held = await store.read('record', id);
          if (held && sameValue(held.value, title === null ? null : record(title))) continue;
          const change = !held
            ? title === null
              ? null
              : creation('record', id, record(title))
            : title === null
              ? removal('record', held)
              : update('record', held, record(title));
          if (change) entries.push(await act([change]));
        }
        if (takeBack)
          for (const e of entries.reverse()) expect(await undoEntry(store, e, 1)).toHaveProperty('entry');
        const records = await store.select('record', '1');
        for (const word of ['willow', 'hazel', 'rush']) {
          const found = await store.rows<{ id: number }>(
            'SELECT rowid AS id FROM record_words WHERE record_words MATCH :word ORDER BY rowid',
            { word: `title : "${word}"` },
          );
          expect(found.map((f) => f.id)).toEqual(
            records.filter((r) => wordsAt(TITLE_WORDS, r.value) === word).map((r) => r.id),
          );
        }
        const keys = await store.rows<{ record: number }>(
          'SELECT DISTINCT record FROM record_keys ORDER BY record',
        );
        expect(keys.map((k) => k.record)).toEqual(records.map((r) => r.id));
      },
    ),
    { numRuns: 12 },
  );
});
