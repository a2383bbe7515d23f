import type {
  CopyListRow,
  JobState,
  RecordDetail,
  RegisterRow,
  Review,
  WithdrawalList,
} from '@osier/contract';
import { barcodeFor } from '@osier/core/barcodes';
import { parse } from 'papaparse';
import { COPY_BARCODES } from '../../../demo/barcodes';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const barcode = (n: number) => barcodeFor(COPY_BARCODES, 77_400_000 + n);
const held = async (record: number) =>
  (await head<RecordDetail>('GET', `/records/${record}`)).body.holdings.flatMap((h) => h.copies);
const costOf = async (record: number, code: string) => {
  const copy = (await held(record)).find((c) => c.copy.barcode === code)!.copy;
  return [copy.price, copy.currency];
};
const text = async (path: string) => {
  const answer = await head<string>('GET', path);
  expect(answer.status).toBe(200);
  return answer.body;
};

test('a copy keeps the currency of its price: made, corrected, changed with others, listed, exported', async () => {
  const [holding] = (await head<RecordDetail>('GET', '/records/20')).body.holdings;
  const add = (more: object) =>
    head<{ id: number }>('POST', '/copies', { holding: holding!.id, type: 'BK', ...more });
  const made = await add({ barcode: barcode(1), price: 2500, currency: 'EUR' });
  expect(made.status).toBe(201);
  expect(await costOf(20, barcode(1))).toEqual([2500, 'EUR']);
  for (const currency of ['eu', 'XQX'])
    expect((await add({ barcode: barcode(2), price: 2500, currency })).status).toBe(422);
  // The library's own is not written; what a type usually costs is in it.
  await add({ barcode: barcode(2), price: 700, currency: 'GBP' });
  expect(await costOf(20, barcode(2))).toEqual([700, undefined]);
  await add({ barcode: barcode(3), currency: 'EUR' });
  expect(await costOf(20, barcode(3))).toEqual([1800, undefined]);

  const { id, version } = (await held(20)).find((c) => c.copy.barcode === barcode(1))!;
  const change = (v: number, body: object) => head('PUT', `/copies/${id}`, { version: v, ...body });
  await change(version, { note: 'In slipcase' });
  expect(await costOf(20, barcode(1))).toEqual([2500, 'EUR']);
  await change(version + 1, { price: 2600 });
  expect(await costOf(20, barcode(1))).toEqual([2600, 'EUR']);
  await change(version + 2, { price: 2700, currency: 'USD' });
  expect(await costOf(20, barcode(1))).toEqual([2700, 'USD']);
  await change(version + 3, { price: null });
  expect(await costOf(20, barcode(1))).toEqual([null, undefined]);

  const body = { q: `barcode = ${barcode(1)}`, edits: [{ part: 'price', how: 'set', value: 'chf 12,50' }] };
  const review = (await head<Review>('POST', '/copies/change/review', body)).body;
  expect(review.rows[0]!.after).toEqual({ text: 'Price: CHF 12.50' });
  const begun = await head<JobState>('POST', '/copies/change', { ...body, token: review.token });
  await t.jobDone(head, begun.body.id);
  expect(await costOf(20, barcode(1))).toEqual([1250, 'CHF']);

  const { rows } = (await head<{ rows: CopyListRow[] }>('GET', `/copies?q=barcode%20%3D%20${barcode(1)}`))
    .body;
  expect(rows.map((r) => [r.price, r.currency])).toEqual([[1250, 'CHF']]);
  const table = parse<Record<string, string>>(
    (await text(`/copies/export?as=csv&q=record%20%3D%2020`)).replace(/^\ufeff/, ''),
    { header: true, skipEmptyLines: true },
  ).data;
  expect(table.filter((r) => r.barcode === barcode(1) || r.barcode === barcode(2))).toMatchObject([
    { price: '12.50', currency: 'CHF' },
    { price: '7.00', currency: 'GBP' },
  ]);
  expect(await text(`/copies/export?as=marcxml&holdings=within&q=barcode%20%3D%20${barcode(1)}`)).toContain(
    'CHF 12.50',
  );
});

test('several copies and a brief record have currencies of their own too', async () => {
  const place = { branch: 'MR', location: 'OPEN', scheme: 'own', class: 'LONG', item: '9', type: 'BK' };
  const several = await head('POST', '/copies/several', {
    record: 21,
    rows: [
      { ...place, barcode: barcode(11), price: 100, currency: 'EUR' },
      { ...place, barcode: barcode(12), price: 200 },
    ],
  });
  expect(several.status).toBe(201);
  expect([await costOf(21, barcode(11)), await costOf(21, barcode(12))]).toEqual([
    [100, 'EUR'],
    [200, undefined],
  ]);
  const brief = await head<{ id: number }>('POST', '/records/brief', {
    ...{ title: 'Reeds of the lower fen, priced abroad', class: '633.58', type: 'BK' },
    ...{ branch: 'MR', location: 'OPEN', barcode: barcode(13), price: 3900, currency: 'PLN' },
  });
  expect(await costOf(brief.body.id, barcode(13))).toEqual([3900, 'PLN']);
});

test('a withdrawal tells what goes by currency, and the register adds up each', async () => {
  const place = { branch: 'MR', location: 'OPEN', scheme: 'own', class: 'LONG', item: '10', type: 'BK' };
  await head('POST', '/copies/several', {
    record: 22,
    rows: [
      { ...place, barcode: barcode(21), price: 1000, currency: 'EUR' },
      { ...place, barcode: barcode(22), price: 500, currency: 'EUR' },
      { ...place, barcode: barcode(23), price: 300 },
    ],
  });
  const { value: house, version } = await t.running.services.store.house();
  await head('PUT', '/set-up/house', {
    ...{ version, ...house, withdrawals: { ...house.withdrawals, priceAbove: 5000 } },
  });
  const list = (
    await head<{ id: number }>('POST', '/withdrawal-lists', { name: 'Abroad', branch: 'MR', reason: 'worn' })
  ).body.id;
  await head('POST', `/withdrawal-lists/${list}/scans`, { codes: [21, 22, 23].map(barcode) });
  const { verdicts } = (await head<WithdrawalList>('GET', `/withdrawal-lists/${list}`)).body;
  const copies = verdicts.map((v) => v.candidate!.copyId);
  expect(verdicts.map((v) => [v.candidate!.price, v.candidate!.currency])).toEqual([
    [1000, 'EUR'],
    [500, 'EUR'],
    [300, undefined],
  ]);
  const path = `/withdrawal-lists/${list}/withdraw`;
  const review = (await head<Review>('POST', `${path}/review`, { copies })).body;
  expect(review.consequences.join(' ')).toContain('They cost GBP 3.00 and EUR 15.00 together.');
  const done = await head<{ entry: number }>('POST', path, { copies, token: review.token });
  expect(done.status).toBe(200);
  const register = async () =>
    (
      await head<{ rows: RegisterRow[]; total: number; sums: { currency: string; price: number }[] }>(
        'GET',
        '/register?q=Abroad',
      )
    ).body;
  const sums = async () => (await register()).sums.toSorted((a, b) => (a.currency < b.currency ? -1 : 1));
  expect((await register()).total).toBe(3);
  expect(await sums()).toEqual([
    { currency: '', price: 300 },
    { currency: 'EUR', price: 1500 },
  ]);
  const table = parse<Record<string, string>>(
    (await text('/register/export?q=Abroad')).replace(/^\ufeff/, ''),
    { header: true, skipEmptyLines: true },
  ).data;
  expect(table.map((r) => `${r.Price} ${r.Currency}`).sort()).toEqual(['10.00 EUR', '3.00 GBP', '5.00 EUR']);
  await head('POST', `/daybook/${done.body.entry}/undo`);
  expect(await sums()).toEqual([]);
  expect(await costOf(22, barcode(21))).toEqual([1000, 'EUR']);
});
