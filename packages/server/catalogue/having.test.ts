import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hasAny, isAddress, parseAddress } from '@osier/core/address';
import { creation } from '@osier/core/changes';
import { field, isData } from '@osier/core/marc';
import { makeLibrary } from '../../../demo/library';
import { commit } from '../store/commit';
import { openStore } from '../store/open-store';
import type { Store } from '../store/store';
import { TESTED } from '../testing/tested';
import { having, havingSoFar } from './having';

const folder = mkdtempSync(join(tmpdir(), 'osier-having-'));
/** Searches that find two records, and the third when they are let go on by a file that comes to be. */
const SCRIPT = `import { appendFileSync, existsSync } from 'node:fs';
const { address } = JSON.parse(process.env.OSIER_ADDRESS_WORK);
process.on('disconnect', () => process.exit());
appendFileSync(${JSON.stringify(folder)} + '/begun ' + address, '.');
process.send({ ids: [1, 2], share: 0.4 });
setInterval(() => {
  if (!existsSync(${JSON.stringify(folder)} + '/' + address)) return;
  process.send({ ids: [5], share: 1 });
  process.send({ end: true }, () => process.exit());
}, 10);`;
let store: Store;
beforeAll(async () => {
  writeFileSync(join(folder, 'address-process.mjs'), SCRIPT);
  store = { ...(await openStore(join(folder, 'data'))), workers: folder };
});
afterAll(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});
const timesBegun = (address: string) => readFileSync(join(folder, `begun ${address}`)).length;
const goOn = (address: string) => writeFileSync(join(folder, address), '');
const write = async () => {
  const marc = { leader: '00000nam a2200000 i 4500', fields: [field('245', '00', 'a', 'Eels')] };
  const [id] = [await store.nextIds('record', 1)];
  await commit(store, { did: TESTED, person: 1, changes: [creation('record', id, marc)] });
};
/** Asked again until something, or all of it, is there. */
async function until(address: string, isThere: (said: Awaited<ReturnType<typeof havingSoFar>>) => boolean) {
  for (;;) {
    const said = await havingSoFar(store, address);
    if (isThere(said)) return said;
  }
}

test('the first are given while the others are looked for, then all', async () => {
  const first = await until('650$a', (said) => said.ids.length > 0);
  expect(first).toEqual({ ids: [1, 2], running: 0.4 });
  goOn('650$a');
  expect(await until('650$a', (said) => said.running === null)).toEqual({ ids: [1, 2, 5], running: null });
});

test('whoever waits for all gets all, of the same search', async () => {
  await until('651$a', (said) => said.ids.length > 0);
  const all = having(store, '651$a');
  goOn('651$a');
  expect(await all).toEqual([1, 2, 5]);
});

/** Until the feed has told what was written. */
const told = () => new Promise((resolve) => setTimeout(resolve, 20));

test('what was looked for before records changed is shown, but not as the end: it is looked for once more', async () => {
  await until('652$a', (said) => said.ids.length > 0);
  await write();
  await told();
  const ending = havingSoFar(store, '652$a');
  goOn('652$a');
  expect(await ending).toEqual({ ids: [1, 2, 5], running: 1 });
  rmSync(join(folder, '652$a'));
  expect(await until('652$a', (said) => said.running === 0.4)).toEqual({ ids: [1, 2], running: 0.4 });
  expect(timesBegun('652$a')).toBe(2);
  goOn('652$a');
  expect(await until('652$a', (said) => said.running === null)).toEqual({ ids: [1, 2, 5], running: null });
  expect(timesBegun('652$a')).toBe(2);
});

test('whoever waits for all after something was written is not told what was looked for before', async () => {
  const before = having(store, '658$a');
  await until('658$a', (said) => said.ids.length > 0);
  await write();
  const after = having(store, '658$a');
  goOn('658$a');
  expect(await before).toEqual([1, 2, 5]);
  expect(await after).toEqual([1, 2, 5]);
  expect(timesBegun('658$a')).toBe(2);
});

test('one who asks again and again keeps it going; when nobody has asked for a while it ends', async () => {
  const first = await until('657$a', (said) => said.ids.length > 0);
  for (const began = Date.now(); Date.now() - began < 6000;)
    expect(await havingSoFar(store, '657$a')).toEqual(first);
  expect(timesBegun('657$a')).toBe(1);
  await new Promise((resolve) => setTimeout(resolve, 5500));
  await until('657$a', (said) => said.ids.length > 0);
  expect(timesBegun('657$a')).toBe(2);
  goOn('657$a');
  expect((await until('657$a', (said) => said.running === null)).ids).toEqual([1, 2, 5]);
}, 20_000);

test('who leaves is told nothing, and the others go on', async () => {
  const leaving = new AbortController();
  const left = having(store, '653$a', leaving.signal);
  const staying = having(store, '653$a');
  leaving.abort();
  await expect(left).rejects.toThrow('cancelled');
  goOn('653$a');
  expect(await staying).toEqual([1, 2, 5]);
});

test('more than two at once are asked to wait', async () => {
  const running = ['654$a', '655$a'].map((address) => having(store, address));
  await expect(havingSoFar(store, '656$a')).rejects.toThrow('Other searches');
  ['654$a', '655$a'].forEach(goOn);
  expect(await Promise.all(running)).toEqual([
    [1, 2, 5],
    [1, 2, 5],
  ]);
});

test('what the index of words has is found by it, without looking through all records', async () => {
  await write();
  const written = '245$a{=\\Eels}';
  const eels = await having(store, written);
  expect(eels.length).toBeGreaterThan(0);
  expect(await havingSoFar(store, written)).toEqual({ ids: eels, running: null });
  expect(existsSync(join(folder, `begun ${written}`))).toBe(false);
  await write();
  expect(await having(store, written)).toHaveLength(eels.length + 1);
  expect(await having(store, '245$a{=\\Eel}')).toEqual([]);
});

test('one that the index answers waits for no other, and one that was left is begun again', async () => {
  const running = ['647$a', '648$a'].map((address) => having(store, address));
  expect(await having(store, '245$b{=\\Eels}')).toEqual([]);
  const written = '245$a{=\\Eels}{$a=\\Eels}';
  const again = new AbortController();
  const gone = having(store, written, again.signal);
  again.abort();
  await expect(gone).rejects.toThrow('cancelled');
  expect((await having(store, written)).length).toBeGreaterThan(0);
  ['647$a', '648$a'].forEach(goOn);
  await Promise.all(running);
});

test('found by the index or not, an address has the records that it has when all are looked at', async () => {
  const folderOfAll = join(folder, 'all');
  const all = await openStore(folderOfAll);
  const { records } = makeLibrary();
  const changes = records.map((r) => creation('record', r.id, r.marc));
  await commit(all, { did: TESTED, person: 1, changes });
  const escaped = (text: string) => text.replace(/[ $\\{}|!=~?:]/g, (c) => (c === ' ' ? '\\s' : `\\${c}`));
  const ask = async (written: string) => {
    const address = parseAddress(written);
    if (!isAddress(address)) throw new Error(address.problem);
    const plain = records.filter((r) => hasAny(r.marc, address)).map((r) => r.id);
    expect([written, await having(all, written)]).toEqual([written, plain]);
    return plain.length;
  };
  let found = 0;
  for (const [i, { marc }] of records.entries()) {
    if (i % 75 !== 0) continue;
    const f = marc.fields.filter(isData)[i % 7]!;
    const { code, value } = f.subfields[i % f.subfields.length]!;
    found += await ask(`${f.tag}$${code}{=\\${escaped(value)}}`);
    found += await ask(`${f.tag}$a{$${code}~\\${escaped(value.slice(i % 3, 20))}}`);
    found += await ask(`245$a{${f.tag}$${code}=\\${escaped(value)}|650$a=\\Willows}`);
  }
  expect(found).toBeGreaterThan(60);
  await all.close();
}, 60_000);
