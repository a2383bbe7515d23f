// Lays down a store of many records, with two copies and a name of its own for each, a large delivery that waits, and a stocktake. Run as a bundle.
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import { fillDemo } from '../demo/fill.ts';
import { commit } from '../packages/server/store/commit.ts';
import { openStore } from '../packages/server/store/open-store.ts';
import { field, manyRecord, pick } from './many-records.mjs';

const [folder, records] = [process.argv[2], Number(process.argv[3])];
const store = await openStore(folder);
await fillDemo(store);
const first = {};
for (const kind of ['record', 'holding', 'copy', 'heading'])
  first[kind] = await store.nextIds(kind, 3 * records);
const known = new Set();
let heading = first.heading;
const plain = {
  fund: '',
  supplier: '',
  acquired: '',
  condition: '',
  note: '',
  status: 'available',
  lastSeen: '',
};
/** A name that only this record has, of one of many families. */
const ownName = (i) =>
  field(
    '700',
    '1 ',
    'a',
    `${pick(i, 7)}${pick(i, 8)}, ${pick(i, 9)} ${String.fromCharCode(65 + (i % 26))}.`,
    'd',
    `${1850 + (i % 150)}-`,
  );
for (let at = 0; at < records; at += 1000) {
  const changes = [];
  for (let i = at; i < Math.min(records, at + 1000); i++) {
    const many = manyRecord(i, 'Held');
    const marc = { ...many, fields: [...many.fields, ownName(i)] };
    const [record, holding] = [first.record + i, first.holding + i];
    changes.push(creation('record', record, marc));
    for (const use of headingsOf(marc)) {
      const key = `${use.kind} ${use.key}`;
      if (known.has(key)) continue;
      known.add(key);
      changes.push(creation('heading', heading++, headingFrom(use)));
    }
    const call = {
      scheme: 'dewey',
      prefix: '',
      class: `${700 + (i % 100)}.${i % 1000}`,
      item: 'BEN',
      suffix: '',
      note: '',
    };
    const branch = ['MR', 'SH'][i % 2];
    changes.push(creation('holding', holding, { ...call, record, branch, location: 'OPEN' }));
    for (const n of [0, 1]) {
      const id = first.copy + 2 * i + n;
      const barcode = `9${String(id).padStart(13, '0')}`;
      changes.push(
        creation('copy', id, { ...plain, holding, barcode, number: n + 1, type: 'BK', price: null }),
      );
    }
  }
  await commit(store, { did: { act: 'first-fill', names: { library: 'the bench' } }, person: 1, changes });
}
await store.close();
