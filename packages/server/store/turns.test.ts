import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from './open-store';
import type { Store } from './store';
import { inTurns } from './turns';

let folder: string;
let store: Store;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-'));
  store = await openStore(folder);
});
afterAll(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});
afterEach(() => store.write((tx) => store.run('DELETE FROM counters', {}, tx)));

const INSERT = 'INSERT INTO counters (kind, next) VALUES (:kind, (SELECT COUNT(*) FROM counters) + 1)';
const written = async () =>
  (await store.rows<{ kind: string }>('SELECT kind FROM counters ORDER BY next')).map((r) => r.kind);
const later = () => new Promise((r) => setTimeout(r, 20));

test('pieces are computed at once and written one after the other, each sees what those before it wrote', async () => {
  const seen: string[] = [];
  const counts: (number | undefined)[] = [];
  await store.write(async (tx) => {
    const turns = inTurns(store.within(tx), tx);
    for (const kind of ['one', 'two', 'three'])
      await turns.begin(async (s, t) => {
        seen.push(`computed ${kind}`);
        const row = await s.row<{ n: number }>('SELECT COUNT(*) AS n FROM counters');
        counts.push(row?.n);
        // The first takes longest.
        if (kind === 'one') await later();
        await s.run(INSERT, { kind }, t);
        seen.push(`wrote ${kind}`);
      });
    expect(seen).toEqual(['computed one', 'computed two', 'computed three']);
    await turns.end();
  });
  expect(seen.slice(3)).toEqual(['wrote one', 'wrote two', 'wrote three']);
  expect(counts).toEqual([0, 1, 2]);
  expect(await written()).toEqual(['one', 'two', 'three']);
});

test('a table through its model waits for its turn too', async () => {
  await store.write(async (tx) => {
    const turns = inTurns(store.within(tx), tx);
    await turns.begin(async (s, t) => {
      await later();
      await s.run("UPDATE readings SET problem = 'first'", {}, t);
      await s.run(INSERT, { kind: 'first' }, t);
    });
    let atThen = -1;
    await turns.begin(async (s, t) => {
      await s.table('readings').remove({ delivery: 0 }, t);
      atThen = (await s.rows('SELECT kind FROM counters')).length;
    });
    await turns.end();
    expect(atThen).toBe(1);
  });
});

test('when a piece fails those behind it write nothing, and what it threw is told', async () => {
  const act = () =>
    store.write(async (tx) => {
      const turns = inTurns(store.within(tx), tx);
      await turns.begin(async (s, t) => {
        await later();
        await s.run(INSERT, { kind: 'kept out by what comes' }, t);
        throw new Error('The first one failed.');
      });
      // One that asks nothing is over before: those behind it wait all the same.
      await turns.begin(() => Promise.resolve());
      let ran = false;
      const behind = await turns.begin(async (s, t) => {
        await s.run(INSERT, { kind: 'behind' }, t);
        ran = true;
      });
      await expect(turns.end()).rejects.toThrow('The first one failed.');
      await expect(behind.done).rejects.toThrow('The first one failed.');
      expect(ran).toBe(false);
      throw new Error('All is rolled back.');
    });
  await expect(act()).rejects.toThrow('All is rolled back.');
  expect(await written()).toEqual([]);
});

test('of two that fail the first is told, and who waits for a piece gets what it gives', async () => {
  await store.write(async (tx) => {
    const turns = inTurns(store.within(tx), tx);
    const { done } = await turns.begin(() => Promise.resolve(7));
    await turns.begin(async (s) => {
      await s.rows('SELECT 1');
      throw new Error('one');
    });
    await turns.begin(() => Promise.reject(new Error('two')));
    await expect(turns.end()).rejects.toThrow('one');
    expect(await done).toBe(7);
  });
});
