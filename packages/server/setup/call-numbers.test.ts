import type { Problem, SetUp } from '@osier/contract';
import { FIRST_RULE, type CallNumberRule } from '@osier/core/callnumbers';
import { startTesting } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Awaited<ReturnType<(typeof t)['as']>>;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const house = async () => (await head<SetUp>('GET', '/set-up')).body.house;
async function save(callNumbers: readonly CallNumberRule[]) {
  const { version, value } = await house();
  return head<Problem>('PUT', '/set-up/house', { ...value, version, callNumbers });
}

test('rules for call numbers are saved, and a brief record at their place has what they make', async () => {
  const rule = { ...FIRST_RULE, name: 'Quick loans', locations: ['OPEN'], prefix: 'Q', markLength: 4 };
  expect((await save([rule])).status).toBe(200);
  expect((await house()).value.callNumbers).toEqual([rule]);
  const lists = (await head<SetUp>('GET', '/set-up')).body.lists.value;
  const open = lists.locations.find((l) => l.code === 'OPEN')!;
  const made = await head<{ id: number }>('POST', '/records/brief', {
    title: 'Eels of the upper Osmere',
    name: 'Quillfeather, Ada',
    class: '597.43',
    year: '1999',
    language: 'eng',
    isbn: '',
    branch: open.branch,
    location: 'OPEN',
    barcode: '31204770000017',
    type: lists.types[0]!.code,
    price: null,
    status: 'available',
    keepBarcode: true,
    despite: [],
  });
  expect(made.status).toBe(201);
  const { body } = await head<{ holdings: { callNumber: string }[] }>('GET', `/records/${made.body.id}`);
  expect(body.holdings[0]!.callNumber).toBe('Q 597.43 QUIL');
});

test('a rule that makes no sense is refused at its part, and nothing of it is kept', async () => {
  const before = (await house()).value.callNumbers;
  const refused = await save([{ ...FIRST_RULE, name: 'Lives', hasClass: false }]);
  expect(refused.status).toBe(422);
  expect(refused.body.fields?.map((f) => f.field)).toEqual(['callNumbers[0].prefix']);
  expect((await house()).value.callNumbers).toEqual(before);
});
