import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../../demo/barcodes';
import { writeIso2709, type MarcRecord } from '@osier/core/marc';
import { breaches } from './testing/invariants';
import { startTesting, type Answer, type Ask } from './testing/running';

/**
 * Acts fired at one store at the same moment, two or more of any kinds, by a fixed seed. After each round nothing may be
 * broken, no request may fail inside, and of several that cannot all be done the others are told so.
 * `OSIER_RACES=1000 npx jest races` runs it long; `OSIER_SEED` begins elsewhere.
 */
const ROUNDS = Number(process.env.OSIER_RACES ?? 60);
const SEED = Number(process.env.OSIER_SEED ?? 12);

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let people: Ask[];
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
  people = [head, await t.as(2), await t.as(1)];
});
afterAll(() => t.stop());
jest.setTimeout(600_000);

function randomOf(seed: number) {
  let a = seed;
  const next = () => {
    a = (a + 0x6d2b79f5) | 0;
    let x = Math.imul(a ^ (a >>> 15), 1 | a);
    x = (x + Math.imul(x ^ (x >>> 7), 61 | x)) ^ x;
    return ((x ^ (x >>> 14)) >>> 0) / 4294967296;
  };
  return {
    below: (n: number) => Math.floor(next() * n),
    pick: <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)]!,
  };
}
type Random = ReturnType<typeof randomOf>;

let serial = 77_100_000;
const fresh = () => barcodeFor(COPY_BARCODES, serial++);
const store = () => t.running.services.store;

interface Target {
  readonly record: number;
  readonly holding: number;
  readonly copies: readonly {
    id: number;
    version: number;
    barcode: string;
    holding: number;
    branch: string;
  }[];
}
/** A title with its copies, so that all acts of a round meet at one place. */
async function target(random: Random): Promise<Target> {
  const rows = await store().rows<{ record: number }>('SELECT DISTINCT record FROM copies ORDER BY record');
  const { record } = random.pick(rows);
  const copies = await store().rows<Target['copies'][number]>(
    'SELECT c.id, c.version, c.barcode, c.holding, h.branch FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.record = :record ORDER BY c.id',
    { record },
  );
  return { record, holding: copies[0]!.holding, copies };
}

type Fire = (ask: Ask) => Promise<Answer<unknown>>;
/** Kinds of acts; each prepares what it needs and gives what is fired. */
const ACTS: Record<string, (on: Target, random: Random, shared: Shared) => Fire | Promise<Fire>> = {
  'add a copy': (on) => {
    const barcode = fresh();
    return (ask) => ask('POST', '/copies', { holding: on.holding, barcode, type: 'BK' });
  },
  'add a copy with the same barcode':
    (on, _, { barcode }) =>
    (ask) =>
      ask('POST', '/copies', { holding: on.holding, barcode, type: 'BK' }),
  'add the same holding':
    (on, _, { place }) =>
    (ask) =>
      ask('POST', '/holdings', {
        record: on.record,
        branch: 'MR',
        location: 'OPEN',
        scheme: 'own',
        class: place,
      }),
  'withdraw all copies at the branch': async (on, random) => {
    const { branch } = random.pick(on.copies);
    const mine = on.copies.filter((c) => c.branch === branch);
    const { body } = await head<{ id: number }>('POST', '/withdrawal-lists', {
      name: `L${serial++}`,
      branch,
    });
    await head('POST', `/withdrawal-lists/${body.id}/scans`, { codes: mine.map((c) => c.barcode) });
    return (ask) => ask('POST', `/withdrawal-lists/${body.id}/withdraw`, { copies: mine.map((c) => c.id) });
  },
  'withdraw one copy': async (on, random) => {
    const one = random.pick(on.copies);
    const { body } = await head<{ id: number }>('POST', '/withdrawal-lists', {
      name: `L${serial++}`,
      branch: one.branch,
    });
    await head('POST', `/withdrawal-lists/${body.id}/scans`, { codes: [one.barcode] });
    return (ask) => ask('POST', `/withdrawal-lists/${body.id}/withdraw`, { copies: [one.id] });
  },
  'undo one of the last entries': async (_, random) => {
    const rows = await store().rows<{ id: number }>(
      'SELECT id FROM daybook WHERE undone_by IS NULL AND objects > 0 ORDER BY id DESC LIMIT 8',
    );
    const entry = rows.length ? random.pick(rows).id : 1;
    return (ask) => ask('POST', `/daybook/${entry}/undo`);
  },
  'save the record with a new name': async (on, _, { name }) => {
    const held = (await store().read('record', on.record))!;
    const added = { tag: '700', ind1: '1', ind2: ' ', subfields: [{ code: 'a', value: name }] };
    const marc = { ...held.value, fields: [...held.value.fields, added] };
    return (ask) => ask('PUT', `/records/${on.record}`, { version: held.version, marc });
  },
  'save another record with the same new name': async (_, random, { name }) => {
    const id = random.pick(await store().rows<{ id: number }>('SELECT id FROM records')).id;
    const held = (await store().read('record', id))!;
    const added = { tag: '700', ind1: '1', ind2: ' ', subfields: [{ code: 'a', value: name }] };
    const marc = { ...held.value, fields: [...held.value.fields, added] };
    return (ask) => ask('PUT', `/records/${id}`, { version: held.version, marc });
  },
  'begin a pile':
    (_, __, { name }) =>
    (ask) =>
      ask('POST', '/piles', { name, of: 'record' }),
  'put on a pile':
    (on, _, { pile }) =>
    (ask) =>
      ask('POST', `/piles/${pile}/scans`, { codes: [`#${on.record}`, on.copies[0]!.barcode] }),
  'take a pile away':
    (_, __, { pile }) =>
    (ask) =>
      ask('POST', `/piles/${pile}/remove`, { version: 1 }),
  'make a label roll': (_, random, { rollFrom }) => {
    const from = rollFrom + random.below(50);
    const roll = {
      name: `R${serial++}`,
      prefix: '77',
      from,
      to: from + 60,
      length: 10,
      check: false,
      supplier: '',
    };
    return (ask) => ask('POST', '/label-rolls', { roll });
  },
  'keep apart': (_, random, { headings }) => {
    const [a, b] = [random.pick(headings), random.pick(headings)];
    return (ask) => ask('POST', '/headings/distinct', { headings: [a, b] });
  },
  'merge headings': (_, random, { headings }) => {
    const [kept, lost] = [random.pick(headings), random.pick(headings)];
    return (ask) => ask('POST', '/headings/merge', { kept, lost: [lost] });
  },
  'change a copy': (on, random) => {
    const { id, version } = random.pick(on.copies);
    const status = random.pick(['missing', 'available', 'lost']);
    return (ask) => ask('PUT', `/copies/${id}`, { version, status });
  },
  'accept a delivery': async (_, __, { marc }) => {
    const file = Buffer.concat(marc.map((m) => Buffer.from(writeIso2709(m))));
    const { body } = await head<{ delivery: number; job: number }>(
      'POST',
      `/deliveries?name=r${serial++}.mrc`,
      new Uint8Array(file),
    );
    await t.jobDone(head, body.job);
    return async (ask) => {
      const begun = await ask<{ id: number }>('POST', `/deliveries/${body.delivery}/accept`, {});
      if (begun.status === 202) await t.jobDone(ask, begun.body.id);
      return begun;
    };
  },
};
interface Shared {
  readonly barcode: string;
  readonly place: string;
  readonly name: string;
  readonly pile: number;
  readonly rollFrom: number;
  readonly headings: readonly number[];
  readonly marc: readonly MarcRecord[];
}

const isbn = (n: number) => {
  const digits = `978${String(n).padStart(9, '0')}`;
  const sum = [...digits].reduce((total, d, i) => total + Number(d) * (i % 2 ? 3 : 1), 0);
  return digits + ((10 - (sum % 10)) % 10);
};
const book = (n: number, name: string): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: `race-${n}` },
    { tag: '020', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: isbn(n) }] },
    { tag: '035', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: `(WKM)race${n}` }] },
    { tag: '100', ind1: '1', ind2: ' ', subfields: [{ code: 'a', value: name }] },
    { tag: '245', ind1: '1', ind2: '0', subfields: [{ code: 'a', value: `Raced title ${n}` }] },
  ],
});

test('whatever is fired at once, nothing is broken', async () => {
  const random = randomOf(SEED);
  const names = Object.keys(ACTS);
  const pile = (await head<{ id: number }>('POST', '/piles', { name: 'Races', of: 'record' })).body.id;
  for (let round = 0; round < ROUNDS; round++) {
    const on = await target(random);
    const headings = (
      await store().rows<{ id: number }>(
        "SELECT id FROM headings WHERE kind = 'personal' AND merged_into IS NULL ORDER BY id LIMIT 40",
      )
    ).map((h) => h.id);
    const shared: Shared = {
      barcode: fresh(),
      place: `RACE ${round}`,
      name: `Racer, Nell ${round}`,
      pile,
      rollFrom: round * 200,
      headings: [random.pick(headings), random.pick(headings), random.pick(headings)],
      marc: [book(round * 2, `Author, Of Round ${round}`), book(round * 2 + 1, `Author, Of Round ${round}`)],
    };
    const chosen = [names[round % names.length]!, random.pick(names)];
    if (random.below(3) === 0) chosen.push(random.pick(names));
    const fires: Fire[] = [];
    for (const name of chosen)
      for (let n = random.below(4) === 0 ? 4 : 1; n > 0; n--)
        fires.push(await ACTS[name]!(on, random, shared));
    const answers = await Promise.all(fires.map((f, i) => f(people[i % people.length]!)));
    const what = `round ${round}: ${chosen.join(' + ')}`;
    expect([what, answers.filter((a) => a.status >= 500)]).toEqual([what, []]);
    expect([what, await breaches(store())]).toEqual([what, []]);
  }
});

test('of 50 that want the same, one gets it and the others are told what has it', async () => {
  const random = randomOf(SEED);
  const on = await target(random);
  const barcode = fresh();
  const all = (fire: Fire) =>
    Promise.all(Array.from({ length: 50 }, (_, i) => fire(people[i % people.length]!)));
  const copies = await all((ask) => ask('POST', '/copies', { holding: on.holding, barcode, type: 'BK' }));
  expect(copies.filter((c) => c.status === 201)).toHaveLength(1);
  expect(
    copies.filter((c) => c.status !== 201).every((c) => /is already on/.test(JSON.stringify(c.body))),
  ).toBe(true);
  expect(copies.some((c) => c.status === 409)).toBe(true);
  const piles = await all((ask) => ask('POST', '/piles', { name: 'Wanted by all', of: 'copy' }));
  expect(piles.filter((p) => p.status === 201)).toHaveLength(1);
  const rolls = await all((ask) =>
    ask('POST', '/label-rolls', {
      roll: {
        name: `Roll ${serial++}`,
        prefix: '88',
        from: 0,
        to: 99,
        length: 8,
        check: false,
        supplier: '',
      },
    }),
  );
  expect(rolls.filter((r) => r.status === 200)).toHaveLength(1);
  const numbers = await all((ask) =>
    ask('POST', '/copies', { holding: on.holding, barcode: fresh(), type: 'BK' }),
  );
  expect(numbers.filter((n) => n.status === 201)).toHaveLength(50);
  expect(await breaches(store())).toEqual([]);
});

test('the last two copies of a title on two lists: who comes second is told that it has become the last', async () => {
  const random = randomOf(SEED + 1);
  const found = await store().rows<{ record: number; branch: string }>(
    `SELECT c.record, h.branch FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.status = 'available'
      GROUP BY c.record HAVING COUNT(*) = 2 AND COUNT(DISTINCT h.branch) = 1 AND (SELECT COUNT(*) FROM copies x WHERE x.record = c.record) = 2`,
  );
  const { record, branch } = random.pick(found);
  const copies = await store().rows<{ id: number; barcode: string }>(
    'SELECT id, barcode FROM copies WHERE record = :record',
    { record },
  );
  const lists = await Promise.all(
    copies.map(async (c, i) => {
      const { body } = await head<{ id: number }>('POST', '/withdrawal-lists', { name: `Last ${i}`, branch });
      await head('POST', `/withdrawal-lists/${body.id}/scans`, { codes: [c.barcode] });
      return body.id;
    }),
  );
  const reviews = await Promise.all(
    lists.map((id, i) =>
      head<{ token: string; consequences: string[] }>('POST', `/withdrawal-lists/${id}/withdraw/review`, {
        copies: [copies[i]!.id],
      }),
    ),
  );
  expect(reviews.every((r) => !/leave the catalogue/.test(r.body.consequences.join()))).toBe(true);
  const done = await Promise.all(
    lists.map((id, i) =>
      head<{ detail: string }>('POST', `/withdrawal-lists/${id}/withdraw`, {
        copies: [copies[i]!.id],
        token: reviews[i]!.body.token,
      }),
    ),
  );
  expect(done.map((d) => d.status).sort()).toEqual([200, 409]);
  expect(done.find((d) => d.status === 409)!.body.detail).toMatch(/last copy anywhere/);
  expect(await store().read('record', record)).not.toBeNull();
  expect(await breaches(store())).toEqual([]);
});

test('one file delivered twice and accepted twice at once comes into the catalogue once', async () => {
  const marc = Array.from({ length: 40 }, (_, i) => book(900_000 + i, `Twice, Author ${i}`));
  const file = new Uint8Array(Buffer.concat(marc.map((m) => Buffer.from(writeIso2709(m)))));
  const deliver = async (name: string) => {
    const { body } = await head<{ delivery: number; job: number }>('POST', `/deliveries?name=${name}`, file);
    await t.jobDone(head, body.job);
    return body.delivery;
  };
  const both = [await deliver('twice-a.mrc'), await deliver('twice-b.mrc')];
  await Promise.all(
    both.map(async (id) => {
      const { body } = await head<{ id: number }>('POST', `/deliveries/${id}/accept`, {});
      expect((await t.jobDone(head, body.id)).state).toBe('done');
    }),
  );
  const held = await store().rows("SELECT id FROM records WHERE title LIKE 'Raced title 9000%'");
  expect(held).toHaveLength(40);
  const names = await store().rows("SELECT id FROM headings WHERE key LIKE 'TWICE, AUTHOR%'");
  expect(names).toHaveLength(40);
  expect(await breaches(store())).toEqual([]);
});
