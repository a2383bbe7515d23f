// Lays down a store that holds `held` records, and writes the delivery of `count` that is to be imported into it. Run as a bundle.
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import { fillDemo } from '../demo/fill.ts';
import { commit } from '../packages/server/store/commit.ts';
import { openStore } from '../packages/server/store/open-store.ts';
import { manyRecord, writeMany } from './many-records.mjs';

const [folder, file] = [process.argv[2], process.argv[3]];
const [count, held] = [Number(process.argv[4]), Number(process.argv[5])];
const store = await openStore(folder);
await fillDemo(store);
const known = new Set();
let heading = 100_000;
const first = await store.nextIds('record', held);
await store.nextIds('heading', 1_000_000);
for (let at = 0; at < held; at += 1000) {
  const changes = [];
  for (let i = at; i < Math.min(held, at + 1000); i++) {
    const marc = manyRecord(i, 'Held');
    changes.push(creation('record', first + i, marc));
    for (const use of headingsOf(marc)) {
      const key = `${use.kind} ${use.key}`;
      if (known.has(key)) continue;
      known.add(key);
      changes.push(creation('heading', heading++, headingFrom(use)));
    }
  }
  await commit(store, { did: { act: 'first-fill', names: { library: 'the bench' } }, person: 1, changes });
}
await store.close();
// Every tenth record of the delivery is held already.
const tenth = Math.floor(count / 10);
writeMany(file, held - tenth, held + count - tenth, 'New');
