import { isPlan, planOfText } from '@osier/core/find';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { KEYS_BEGIN, recordKeysAnew } from '../projections/record-keys';
import { openStore } from '../store/open-store';
import { searchable } from './searchable';

const planFor = (q: string) => {
  const plan = planOfText(q);
  if (!isPlan(plan)) throw new Error(plan.problem);
  return plan;
};

test('until the index of an older version is rebuilt, what it has is found and the rest is told', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-searchable-'));
  const older = join(__dirname, '../store/fixtures/024.sqlite.gz');
  writeFileSync(join(folder, 'osier.sqlite'), gunzipSync(readFileSync(older)));
  const store = await openStore(folder);
  const found = async (q: string) => {
    const { sql, params } = await searchable(store, planFor(q));
    return (await store.rows<{ id: number }>(sql, { ...params })).map((r) => r.id);
  };
  expect(await found('title = eels')).toEqual([1]);
  await expect(found('title = eels or publisher = press')).rejects.toThrow(
    '“publisher” cannot be searched yet: the search index is being rebuilt.',
  );
  await recordKeysAnew(store, KEYS_BEGIN);
  expect(await found('title = eels or publisher = press')).toEqual([1]);
  await store.close();
  rmSync(folder, { recursive: true });
});
