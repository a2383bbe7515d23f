import type { Problem, RecordDetail } from '@osier/contract';
import { barcodeFor } from '@osier/core/barcodes';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());
const form = { length: 14, kind: '3', library: '1204' };
const free = barcodeFor(form, 77_000_001);
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const problem = (fields: Problem['fields']) => fields?.map((f) => `${f.field}: ${f.message}`).join();

test('a holding with the offered call number, then a copy with a scanned barcode; both taken back', async () => {
  const before = await detail(10);
  const offer = before.offers[0]!;
  expect(offer.from).toMatch(/^082 /);
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
  ).toContain('class: A call number needs a class.');
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
