// Lays down headings without records, or compares them all for the first time, in threads as the server does, and changes one again and again.
// Writes what comparing took in seconds, what a later change took in milliseconds (p95), and how many pairs there are. Run as a bundle: FOLDER COUNT, or FOLDER COUNT WORKERS FILE.
import { writeFileSync } from 'node:fs';
import { creation, update } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import { alikeHeadings, compareTouched } from '../packages/server/projections/look-alikes.ts';
import { commit } from '../packages/server/store/commit.ts';
import { openStore } from '../packages/server/store/open-store.ts';
import { workerPool } from '../packages/server/workers/pool.ts';
import { field, pick, surname } from './many-records.mjs';
import { p95, took } from './timed.mjs';

const [folder, count, workers, said] = [process.argv[2], Number(process.argv[3]), ...process.argv.slice(4)];
const CHANGES = 200;
const capital = (text) => text[0].toUpperCase() + text.slice(1);

/** Of ten headings six are persons, three subjects and one a body; one in fifty is written a second time with one letter less. */
function headingField(i) {
  const at = i % 50 === 49 ? i - 6 : i;
  const lost = (text) => (at === i ? text : text.slice(0, 3) + text.slice(4));
  if (at % 10 < 6)
    return field(
      ...['700', '1 ', 'a'],
      `${lost(surname(at) + (at % 3 ? '' : pick(at, 11)))}, ${capital(pick(at, 9))} ${String.fromCharCode(65 + (at % 26))}.`,
      ...['d', `${1700 + (at % 290)}-`],
    );
  if (at % 10 < 9)
    return field(
      ...['650', ' 0', 'a', `${capital(pick(at, 3))} ${pick(at, 4)} ${at % 700}`],
      ...['x', capital(pick(at, 5)), 'z', capital(pick(at, 6))],
    );
  return field('710', '2 ', 'a', `${capital(pick(at, 2))} ${pick(at, 7)} Society of ${capital(surname(at))}`);
}

const store = await openStore(folder);
if (said) await compare();
else await lay();
await store.close();

async function lay() {
  const known = new Set();
  const first = await store.nextIds('heading', count);
  for (let at = 0; at < count; at += 2000) {
    const changes = [];
    for (let i = at; i < Math.min(count, at + 2000); i++)
      for (const use of headingsOf({ leader: '', fields: [headingField(i)] })) {
        const key = `${use.kind} ${use.vocabulary} ${use.key}`;
        if (!known.has(key)) changes.push(creation('heading', first + i, headingFrom(use)));
        known.add(key);
      }
    await committed(changes);
  }
}

function committed(changes) {
  return commit(store, { did: { act: 'first-fill', names: { library: 'the bench' } }, person: 1, changes });
}

async function compare() {
  const pool = workerPool(workers);
  await alikeHeadings.rebuild(store);
  const compareAll = async () => {
    while ((await compareTouched(store, pool.names)) > 0);
  };
  const comparing = await took(compareAll);
  const each = [];
  const [{ first }] = await store.rows('SELECT MIN(id) AS first FROM headings');
  for (let i = 0; i < CHANGES; i++) {
    const held = await store.read('heading', first + ((i * 7919) % count));
    if (!held) continue;
    const { marc } = held.value;
    const noted = { ...marc, fields: [...marc.fields, field('670', '  ', 'a', `Bench ${i}`)] };
    await committed([update('heading', held, { ...held.value, marc: noted })]);
    each.push(await took(compareAll));
  }
  const [{ n }] = await store.rows('SELECT COUNT(*) AS n FROM alike_pairs');
  writeFileSync(said, JSON.stringify({ comparing, change: p95(each), pairs: n }));
  await pool.close();
}
