import { creation, update } from '@osier/core/changes';
import { field, type MarcRecord } from '@osier/core/marc';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openEmpty } from '../testing/library';
import { TESTED } from '../testing/tested';
import { commit, tryPlan } from './commit';
import type { Store } from './store';

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-store-'));
  store = await openEmpty(folder);
  await act([creation('record', 1, record('Eel traps'))]);
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});

const record = (title: string): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '001', value: 'w1' }, field('245', '10', 'a', title)],
});
const act = (changes: Parameters<typeof commit>[1]['changes']) =>
  commit(store, { did: TESTED, person: 1, changes });
const titleNow = async (at: Store = store) =>
  (await at.rows<{ title: string }>('SELECT title FROM records WHERE id = 1'))[0]!.title;

/** Puts “mended” behind the title that it finds. */
let planned = 0;
const plan = async (at: Store) => {
  planned++;
  const held = (await at.read('record', 1))!;
  return { did: TESTED, changes: [update('record', held, record(`${await titleNow(at)} mended`))] };
};
const madeAhead = async (writesBetween: number) => {
  const ahead = { planned: await plan(store), asOf: store.writes() + writesBetween };
  planned = 0;
  return ahead;
};

test('a plan made ahead is written as it is when nobody else has written', async () => {
  await tryPlan(store, 1, plan, await madeAhead(0));
  expect([planned, await titleNow()]).toEqual([0, 'Eel traps mended']);
});

test('one made while the part before was written is true once that is', async () => {
  const ahead = await madeAhead(1);
  await act([creation('record', 2, record('Hurdles'))]);
  await tryPlan(store, 1, plan, ahead);
  expect([planned, await titleNow()]).toEqual([0, 'Eel traps mended']);
});

test.each([0, 1])(
  'one behind which somebody else has written is thrown away (%d expected)',
  async (expected) => {
    const ahead = await madeAhead(expected);
    const held = (await store.read('record', 1))!;
    await act([update('record', held, record('Willow traps'))]);
    if (expected) await act([creation('record', 2, record('Hurdles'))]);
    await tryPlan(store, 1, plan, ahead);
    expect([planned, await titleNow()]).toEqual([1, 'Willow traps mended']);
  },
);

test('so is one that waits for its turn while somebody else writes', async () => {
  const ahead = await madeAhead(0);
  const held = (await store.read('record', 1))!;
  const other = act([update('record', held, record('Willow traps'))]);
  const mine = tryPlan(store, 1, plan, ahead);
  await Promise.all([other, mine]);
  expect([planned, await titleNow()]).toEqual([1, 'Willow traps mended']);
});
