import type { Problem, RecordDetail, Review } from '@osier/contract';
import { barcodeFor } from '@osier/core/barcodes';
import { COPY_BARCODES } from '../../../demo/barcodes';
import { creation, removal } from '@osier/core/changes';
import { commit } from '../store/commit';
import { startTesting, type Ask } from '../testing/running';
import { TESTED } from '../testing/tested';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());
const form = COPY_BARCODES;
const free = barcodeFor(form, 77_000_001);
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const problem = (fields: Problem['fields']) => fields?.map((f) => `${f.field}: ${f.message}`).join();

test('a holding with the offered call number, then a copy with a scanned barcode; both taken back', async () => {
  const before = await detail(10);
  const offer = before.offers[0]!;
  expect(offer.from).toMatch(/^from 082 /);
  const made = await cataloguer<{ id: number; entry: number }>('POST', '/holdings', {
    record: 10,
    branch: 'MR',
    location: 'BENCH',
    scheme: offer.scheme,
    class: offer.class,
    item: offer.item,
  });
  expect(made.status).toBe(201);
  const copy = await cataloguer<{ entry: number }>('POST', '/copies', {
    holding: made.body.id,
    barcode: ` a${free}B`,
    type: 'BK',
  });
  expect(copy.status).toBe(201);
  const holding = (await detail(10)).holdings.find((h) => h.id === made.body.id)!;
  expect(holding.copies[0]!.copy).toMatchObject({
    barcode: free,
    price: 1800,
    status: 'available',
    number: before.holdings.flatMap((h) => h.copies).length + 1,
  });
  const blocked = await cataloguer<Problem>('POST', `/daybook/${made.body.entry}/undo`);
  expect(blocked.body.conflicts![0]!.message).toContain('a copy has been added to it since');
  await cataloguer('POST', `/daybook/${copy.body.entry}/undo`);
  expect((await cataloguer('POST', `/daybook/${made.body.entry}/undo`)).status).toBe(200);
  expect((await detail(10)).holdings).toEqual(before.holdings);
});

test('volumes of one title have copy 1 each; the next of a volume is its copy 2; a number is not given twice', async () => {
  const [holding] = (await detail(14)).holdings;
  const add = async (serial: number, part: string) =>
    (
      await cataloguer<{ id: number; sentence: string }>('POST', '/copies', {
        holding: holding!.id,
        barcode: barcodeFor(form, serial),
        type: 'BK',
        part,
      })
    ).body;
  const [first, again, second] = [
    await add(77_000_011, 'v. 1'),
    await add(77_000_012, ' V.1 '),
    await add(77_000_013, 'v. 2'),
  ];
  expect([first, again, second].map((d) => /Added (.*) \(/.exec(d.sentence)![1])).toEqual([
    'v. 1, copy 1',
    'V.1, copy 2',
    'v. 2, copy 1',
  ]);
  const change = (id: number, body: object) =>
    cataloguer<Problem>('PUT', `/copies/${id}`, { version: 1, ...body });
  const refused = await change(again.id, { number: 1 });
  expect([refused.status, problem(refused.body.fields)]).toEqual([
    422,
    'number: Copy 3 1204 77000011 6 of this title is V.1, copy 1 already.',
  ]);
  expect((await change(again.id, { part: 'v. 3', number: 1 })).status).toBe(200);
  const taken = await cataloguer<Problem>('POST', '/copies', {
    holding: holding!.id,
    barcode: barcodeFor(form, 77_000_013),
    type: 'BK',
  });
  expect(problem(taken.body.fields)).toContain(', v. 2, copy 1, ');
});

test('a barcode that is taken is refused with what has it', async () => {
  const { holdings, brief } = await detail(11);
  const { barcode } = holdings[0]!.copies[0]!.copy;
  const refused = await cataloguer<Problem>('POST', '/copies', {
    holding: holdings[0]!.id,
    barcode,
    type: 'BK',
  });
  expect(refused.status).toBe(422);
  expect(problem(refused.body.fields)).toContain(`is already on “${brief.title.slice(0, 20)}`);
});

test('a wrong check digit is told, and can be kept on purpose', async () => {
  const [holding] = (await detail(12)).holdings;
  const wrong = free.slice(0, -1) + ((Number(free.at(-1)) + 1) % 10);
  const refused = await cataloguer<Problem>('POST', '/copies', {
    holding: holding!.id,
    barcode: wrong,
    type: 'BK',
  });
  expect(problem(refused.body.fields)).toContain('check digit is wrong');
  expect(
    (
      await cataloguer('POST', '/copies', {
        holding: holding!.id,
        barcode: wrong,
        type: 'BK',
        keepBarcode: true,
      })
    ).status,
  ).toBe(201);
  expect(
    problem(
      (
        await cataloguer<Problem>('POST', '/copies', {
          holding: holding!.id,
          barcode: wrong,
          type: 'BK',
          keepBarcode: true,
        })
      ).body.fields,
    ),
  ).toContain('already on');
});

test.each([
  [{ branch: 'mr', location: 'OPEN' }, 'branch: “mr” is not a branch here. Nearest: MR (Millrace)'],
  [
    { branch: 'MR', location: 'OPAN' },
    'location: “OPAN” is not a location here. Nearest: OPEN (Open shelves)',
  ],
  [{ branch: 'MR', location: 'READ' }, 'location: “READ” is not a location here.'],
])('a code that is not on its list is named, with the nearest (%p)', async (place, said) => {
  const refused = await cataloguer<Problem>('POST', '/holdings', {
    record: 10,
    ...place,
    scheme: 'dewey',
    class: '746',
  });
  expect(refused.status).toBe(422);
  expect(problem(refused.body.fields)).toContain(said);
});

test('a type that is not on the list, and a holding without a class', async () => {
  const [holding] = (await detail(12)).holdings;
  expect(
    problem(
      (await cataloguer<Problem>('POST', '/copies', { holding: holding!.id, barcode: free, type: 'bk' })).body
        .fields,
    ),
  ).toContain('Nearest: BK (Book)');
  expect(
    problem(
      (
        await cataloguer<Problem>('POST', '/holdings', {
          record: 10,
          branch: 'MR',
          location: 'OPEN',
          scheme: 'dewey',
          class: ' ',
        })
      ).body.fields,
    ),
  ).toContain('class: A call number needs a class, or a prefix and an author mark in its place.');
});

test('two copies scanned at the same moment with one barcode: one is made', async () => {
  const [holding] = (await detail(13)).holdings;
  const barcode = barcodeFor(form, 77_000_555);
  const both = await Promise.all(
    [1, 2].map(() => cataloguer('POST', '/copies', { holding: holding!.id, barcode, type: 'BK' })),
  );
  expect(both.map((b) => b.status).filter((s) => s === 201)).toHaveLength(1);
  expect(both.map((b) => b.status).filter((s) => s === 409 || s === 422)).toHaveLength(1);
});

/** A record of its own, with one holding and so many copies. */
async function ownRecord(title: string, serials: readonly number[] = []) {
  const made = await cataloguer<{ id: number }>('POST', '/records', {
    withErrors: true,
    marc: {
      leader: '00000nam a2200000 i 4500',
      fields: [
        { tag: '008', value: '260101s2026    xxk           000 0 eng d' },
        { tag: '245', ind1: '0', ind2: '0', subfields: [{ code: 'a', value: title }] },
      ],
    },
  });
  const holding = await cataloguer<{ id: number }>('POST', '/holdings', {
    ...{ record: made.body.id, branch: 'MR', location: 'OPEN', scheme: 'dewey', class: '597.1', item: 'OWN' },
  });
  for (const serial of serials)
    await cataloguer('POST', '/copies', {
      holding: holding.body.id,
      type: 'BK',
      barcode: barcodeFor(form, serial),
    });
  return detail(made.body.id);
}
const refused = async (
  method: string,
  path: string,
  body: object,
): Promise<readonly [number, string | undefined]> => {
  const answer = await cataloguer<Problem>(method, path, body);
  return [answer.status, problem(answer.body.fields) ?? answer.body.detail];
};

test('every part of a holding and of a copy is corrected in place, and an undo brings all of it back', async () => {
  const before = await ownRecord('Bream of Osmere', [77_001_001]);
  const [h] = before.holdings;
  const [c] = h!.copies;
  const { record: _, ...place } = h!.holding;
  const holding = await cataloguer<{ entry: number; sentence: string }>('PUT', `/holdings/${h!.id}`, {
    ...place,
    version: h!.version,
    ...{
      branch: 'SH',
      location: 'READ',
      prefix: 'Ref',
      class: '597.2',
      year: '2026',
      suffix: 'Large',
      note: 'Ask.',
      staffNote: 'Bay 3.',
    },
  });
  expect(holding.body.sentence).toContain('to Ref 597.2 OWN 2026 Large');
  const copy = await cataloguer<{ entry: number }>('PUT', `/copies/${c!.id}`, {
    version: c!.version,
    ...{
      barcode: barcodeFor(form, 77_001_002),
      part: 'v. 1',
      number: 4,
      type: 'PA',
      price: 1234,
      fund: 'GEN',
    },
    ...{
      supplier: 'RLS',
      acquired: '2026-01-31',
      condition: 'worn',
      note: 'n',
      staffNote: 's',
      loanRule: 'reference',
    },
    ...{ status: 'damaged', reason: 'wet' },
  });
  const after = await detail(before.id);
  expect(after.holdings[0]!.holding).toMatchObject({
    branch: 'SH',
    location: 'READ',
    year: '2026',
    staffNote: 'Bay 3.',
  });
  expect(after.holdings[0]!.copies[0]!.copy).toEqual({
    ...c!.copy,
    ...{
      barcode: barcodeFor(form, 77_001_002),
      part: 'v. 1',
      number: 4,
      type: 'PA',
      price: 1234,
      fund: 'GEN',
    },
    ...{
      supplier: 'RLS',
      acquired: '2026-01-31',
      condition: 'worn',
      note: 'n',
      staffNote: 's',
      loanRule: 'reference',
    },
    status: 'damaged',
  });
  expect(after.history[0]!.sentence).toContain('is now damaged, was available: wet; its barcode was');
  // What is not named stays; what is emptied goes.
  await cataloguer('PUT', `/copies/${c!.id}`, {
    version: 2,
    part: '',
    staffNote: '',
    loanRule: 'lends',
    price: null,
  });
  const { part, staffNote, loanRule, price, note } = (await detail(before.id)).holdings[0]!.copies[0]!.copy;
  expect([part, staffNote, loanRule, price, note]).toEqual([undefined, undefined, undefined, null, 'n']);
  const [last] = (await detail(before.id)).history;
  for (const entry of [last!.id, copy.body.entry, holding.body.entry])
    expect((await cataloguer('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  expect(
    (await detail(before.id)).holdings.map(({ holding, copies }) => [holding, copies.map((x) => x.copy)]),
  ).toEqual([[h!.holding, [c!.copy]]]);
});

test('what is not right is told at its field, and an older version is not saved over a newer one', async () => {
  const { holdings } = await ownRecord('Barbel of Osmere', [77_001_011]);
  const [h] = holdings;
  const [c] = h!.copies;
  const taken = (await detail(11)).holdings[0]!.copies[0]!.copy.barcode;
  const change = (body: object) => refused('PUT', `/copies/${c!.id}`, { version: c!.version, ...body });
  expect((await change({ barcode: taken }))[1]).toContain('is already on');
  expect((await change({ barcode: '31204' }))[1]).toContain('14 digits');
  expect((await change({ type: 'ZZ' }))[1]).toContain('“ZZ” is not a type here');
  expect((await change({ fund: 'ZZ' }))[1]).toContain('“ZZ” is not a fund here');
  expect((await change({ price: -1 }))[0]).toBe(422);
  expect((await change({ acquired: '2026-13-01' }))[0]).toBe(422);
  expect((await change({ number: 0 }))[1]).toContain('1 or more');
  const { record: _, ...place } = h!.holding;
  expect(
    (await refused('PUT', `/holdings/${h!.id}`, { ...place, version: h!.version, location: 'READ' }))[1],
  ).toContain('is not a location here');
  const both = await Promise.all(['wet', 'torn'].map((condition) => change({ condition })));
  expect(both.map(([status]) => status).sort()).toEqual([200, 409]);
});

test('labels that were stuck on each other’s books are swapped, as one entry', async () => {
  const one = await ownRecord('Dace of Osmere', [77_001_021]);
  const other = await ownRecord('Chub of Osmere', [77_001_022]);
  const [a, b] = [one.holdings[0]!.copies[0]!, other.holdings[0]!.copies[0]!];
  const body = { a: { id: a.id, version: a.version }, b: { id: b.id, version: b.version } };
  const done = await cataloguer<{ entry: number; sentence: string }>('POST', '/copies/swap', body);
  expect([done.status, done.body.sentence]).toEqual([200, expect.stringContaining('Swapped the barcodes')]);
  const codes = async () =>
    Promise.all(
      [one.id, other.id].map(async (id) => (await detail(id)).holdings[0]!.copies[0]!.copy.barcode),
    );
  expect(await codes()).toEqual([b.copy.barcode, a.copy.barcode]);
  expect((await cataloguer('POST', '/copies/swap', body)).status).toBe(409);
  expect((await cataloguer('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await codes()).toEqual([a.copy.barcode, b.copy.barcode]);
  expect((await refused('POST', '/copies/swap', { a: body.a, b: body.a }))[1]).toContain('not two copies');
});

test('copies and holdings move, join and go; numbers count on where they come to', async () => {
  const from = await ownRecord('Gudgeon of Osmere', [77_001_031, 77_001_032]);
  const to = await ownRecord('Loach of Osmere', [77_001_033]);
  const [h] = from.holdings;
  const [into] = to.holdings;
  const [c] = h!.copies;
  const moved = await cataloguer<{ entry: number }>('POST', `/copies/${c!.id}/move`, {
    version: c!.version,
    to: into!.id,
  });
  expect(moved.status).toBe(200);
  expect((await detail(to.id)).holdings[0]!.copies.map((x) => x.copy.number).sort()).toEqual([1, 2]);
  // The whole holding follows: just there the other record has one already, so the copy goes into that.
  const rest = (await detail(from.id)).holdings[0]!;
  const whole = await cataloguer<{ entry: number; sentence: string }>('POST', `/holdings/${rest.id}/move`, {
    version: rest.version,
    to: to.id,
  });
  expect(whole.body.sentence).toContain('with 1 copy from “Gudgeon of Osmere” to “Loach of Osmere”');
  expect((await detail(to.id)).holdings.map((x) => x.copies.map((y) => y.copy.number).sort())).toEqual([
    [1, 2, 3],
  ]);
  expect((await detail(from.id)).holdings).toEqual([]);
  for (const { entry } of [whole.body, moved.body])
    expect((await cataloguer('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  expect((await detail(from.id)).holdings[0]!.copies.map((x) => x.copy)).toEqual(
    h!.copies.map((x) => x.copy),
  );

  const other = await cataloguer<{ id: number }>('POST', '/holdings', {
    ...{ record: from.id, branch: 'SH', location: 'READ', scheme: 'dewey', class: '597.1' },
  });
  const joined = await cataloguer('POST', `/holdings/${h!.id}/join`, {
    version: (await detail(from.id)).holdings.find((x) => x.id === h!.id)!.version,
    to: other.body.id,
  });
  expect(joined.status).toBe(200);
  expect((await detail(from.id)).holdings.map((x) => [x.holding.branch, x.copies.length])).toEqual([
    ['SH', 2],
  ]);
  expect((await refused('POST', `/holdings/${other.body.id}/remove`, { version: 1 }))[1]).toContain(
    '2 copies hang on this',
  );
  expect(
    (await refused('POST', `/holdings/${other.body.id}/join`, { version: 1, to: into!.id }))[1],
  ).toContain('two records');
  expect((await refused('POST', `/holdings/${other.body.id}/move`, { version: 1, to: 999_999 }))[0]).toBe(
    404,
  );
});

test('several copies at several branches in one entry: holdings are made where there are none, numbers count on, cells are told', async () => {
  const before = await ownRecord('Minnow of Osmere', [77_001_041]);
  const row = (branch: string, serial: number, more: object = {}) => ({
    ...{ branch, location: 'OPEN', scheme: 'dewey', class: '597.1', item: 'OWN', type: 'BK' },
    barcode: barcodeFor(form, serial),
    ...more,
  });
  const rows = [
    row('MR', 77_001_042),
    row('MR', 77_001_043, { number: 9 }),
    row('SH', 77_001_044, { location: 'READ' }),
    row('HB', 77_001_045, { location: 'STORE' }),
    row('HB', 77_001_046, { location: 'STORE', part: 'v. 2' }),
  ];
  const body = { record: before.id, rows };
  const review = await cataloguer<Review>('POST', '/copies/several/review', body);
  expect(review.body).toMatchObject({
    sentence: '5 copies will be added to “Minnow of Osmere”.',
    consequences: ['2 new holdings will be made.'],
  });
  expect(review.body.rows.map((r) => r.after && 'text' in r.after && r.after.text)).toEqual([
    'copy 10',
    'copy 9',
    'copy 11',
    'copy 12',
    'v. 2, copy 1',
  ]);
  const done = await cataloguer<{ entry: number; sentence: string }>('POST', '/copies/several', {
    ...body,
    token: review.body.token,
  });
  expect([done.status, done.body.sentence]).toEqual([
    201,
    'Added 5 copies to “Minnow of Osmere”, with 2 new holdings',
  ]);
  expect((await detail(before.id)).holdings.map((h) => [h.holding.branch, h.copies.length]).sort()).toEqual([
    ['HB', 2],
    ['MR', 3],
    ['SH', 1],
  ]);
  const again = await cataloguer<Problem>('POST', '/copies/several', body);
  expect(again.body.fields?.map((f) => f.field)).toEqual(
    expect.arrayContaining(['rows[0].barcode', 'rows[1].barcode', 'rows[1].number', 'rows[4].barcode']),
  );
  await cataloguer('POST', `/daybook/${done.body.entry}/undo`);
  expect((await detail(before.id)).holdings.map((h) => h.copies.length)).toEqual([1]);
  const wrong = await cataloguer<Problem>('POST', '/copies/several/review', {
    record: before.id,
    rows: [
      row('MR', 77_001_042),
      row('MR', 77_001_042),
      row('XX', 77_001_047),
      row('MR', 77_001_048, { class: '', type: 'ZZ' }),
    ],
  });
  expect(wrong.body.fields?.map((f) => f.field)).toEqual([
    'rows[1].barcode',
    'rows[2].branch',
    'rows[3].class',
    'rows[3].type',
  ]);
  expect((await detail(before.id)).holdings.map((h) => h.copies.length)).toEqual([1]);
});

test('fifty people take copies of one title at once: every copy has a number and a barcode of its own', async () => {
  const { id } = await ownRecord('Ruffe of Osmere');
  const all = await Promise.all(
    Array.from({ length: 50 }, (_, i) =>
      cataloguer('POST', '/copies/several', {
        record: id,
        rows: [
          {
            ...{ branch: 'SH', location: 'READ', scheme: 'dewey', class: '597.1', type: 'BK' },
            barcode: barcodeFor(form, 77_002_000 + i),
          },
        ],
      }),
    ),
  );
  expect(all.map((a) => a.status)).toEqual(all.map(() => 201));
  const copies = (await detail(id)).holdings.flatMap((h) => h.copies.map((c) => c.copy));
  expect(copies.map((c) => c.number).sort((a, b) => a - b)).toEqual(
    Array.from({ length: 50 }, (_, i) => i + 1),
  );
  expect(new Set(copies.map((c) => c.barcode)).size).toBe(50);
}, 60_000);

test('an assistant who may not edit copies is refused every way', async () => {
  const assistant = await t.as(3);
  const [h] = (await detail(11)).holdings;
  for (const [method, path, body] of [
    ['PUT', `/holdings/${h!.id}`, {}],
    ['POST', `/holdings/${h!.id}/move`, {}],
    ['POST', '/copies/swap', {}],
    ['POST', '/copies/several', {}],
  ] as const)
    expect([path, (await assistant(method, path, body)).status]).toEqual([path, 403]);
});

test('a number that was withdrawn is used again only on purpose', async () => {
  const { store } = t.running.services;
  const { id, holdings } = await ownRecord('Zander of Osmere', [77_001_061]);
  const [copy] = holdings[0]!.copies;
  const gone = creation('withdrawn', await store.nextIds('withdrawn', 1), {
    ...{
      copy: copy!.copy,
      copyId: copy!.id,
      record: id,
      title: 'Zander of Osmere',
      branch: 'MR',
      location: 'OPEN',
    },
    ...{ callNumber: '597.1', withdrawnOn: '2026-01-01', by: 'Nell', reason: 'worn', lastCopy: true },
  });
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [removal('copy', (await store.read('copy', copy!.id))!), gone],
  });
  const again = { holding: holdings[0]!.id, type: 'BK', barcode: copy!.copy.barcode };
  expect((await refused('POST', '/copies', again))[1]).toContain('withdrawn on 2026-01-01');
  expect((await cataloguer('POST', '/copies', { ...again, keepBarcode: true })).status).toBe(201);
});
