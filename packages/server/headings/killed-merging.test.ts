import type { MergedAnswer, JobState } from '@osier/contract';
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import { field, type MarcRecord } from '@osier/core/marc';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { commit } from '../store/commit';
import { openStore } from '../store/open-store';
import { TESTED } from '../testing/tested';
import { client, ended, kill, killAll, start } from '../testing/killing';
import { layLibrary } from '../testing/library';

afterAll(killAll);

const RECORDS = 3000;
const record = (i: number): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    field('100', '1 ', 'a', 'Reedman, A.,', 'e', 'author.'),
    field('245', '10', 'a', `Tools of the marsh, part ${i} /`),
    ...(i % 3 ? [] : [field('600', '10', 'a', 'Reedman, A.', 'x', 'Tools.')]),
    ...(i % 5 ? [] : [field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950,', 'e', 'editor.')]),
  ],
});

/** Records under one heading, and another that it is merged into. */
async function filled(folder: string): Promise<{ lost: number; kept: number }> {
  layLibrary(folder);
  const store = await openStore(folder);
  const made = Array.from({ length: RECORDS }, (_, i) => record(i));
  const from = await store.nextIds('record', RECORDS);
  const uses = new Map(made.flatMap(headingsOf).map((u) => [u.key, u]));
  const first = await store.nextIds('heading', uses.size);
  const headings = [...uses.values()].map((u, i) => creation('heading', first + i, headingFrom(u)));
  await commit(store, { did: TESTED, person: 1, changes: headings });
  for (let at = 0; at < RECORDS; at += 500) {
    const changes = made.slice(at, at + 500).map((marc, i) => creation('record', from + at + i, marc));
    await commit(store, { did: TESTED, person: 1, changes });
  }
  const number = (key: string) => first + [...uses.keys()].indexOf(key);
  await store.close();
  return { lost: number('REEDMAN, A'), kept: number('REEDMAN, AMOS$d1880 1950') };
}

async function rowsOf(folder: string) {
  const store = await openStore(folder);
  const rows = (sql: string) => store.rows<object>(sql);
  const found = {
    records: await rows('SELECT id, value FROM records ORDER BY id'),
    headings: await rows('SELECT id, value, key, merged_into FROM headings ORDER BY id'),
    keys: await rows('SELECT * FROM record_keys ORDER BY 1, 2, 3'),
    headingKeys: await rows('SELECT * FROM heading_keys ORDER BY 1, 2, 3'),
    use: await rows('SELECT * FROM heading_use WHERE n <> 0 ORDER BY 1, 2'),
    sound: await rows('PRAGMA integrity_check'),
  };
  await store.close();
  return found;
}

test('a merge of 3,000 records that is killed goes on to the end, and undoing that is killed takes all back', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  const { lost, kept } = await filled(folder);
  const before = await rowsOf(folder);
  let server = await start(folder);
  let { ask, until } = await client(server);
  const body = JSON.stringify({ kept, lost: [lost] });
  const { job } = await ask<MergedAnswer>('POST', '/headings/merge', body);
  for (const at of [1, 900, 2000]) {
    const seen = await until(job!, (j) => j.done >= at || ended(j));
    expect(ended(seen)).toBe(false);
    await kill(server);
    server = await start(folder);
    ({ ask, until } = await client(server));
    // Whoever comes between is told, also after the server was begun anew.
    const refused = await ask<{ detail: string }>('POST', '/headings/merge', body);
    if (!ended(await until(job!, () => true))) expect(refused.detail).toMatch(/is being merged/);
  }
  const done: JobState = await until(job!, ended);
  expect(done).toMatchObject({ state: 'done', message: expect.stringContaining('3,000 records') as string });
  const merged = await ask<{ records: number; seeFrom: string[] }>('GET', `/headings/${kept}`);
  expect(merged).toMatchObject({ records: RECORDS, seeFrom: ['Reedman, A.'] });
  const undoing = await ask<{ job: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  await until(undoing.job, (j) => j.done > 300 || ended(j));
  await kill(server);
  server = await start(folder);
  ({ until } = await client(server));
  expect((await until(undoing.job, ended)).state).toBe('done');
  await kill(server);
  expect(await rowsOf(folder)).toEqual(before);
  rmSync(folder, { recursive: true });
}, 600_000);
