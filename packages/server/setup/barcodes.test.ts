import type {
  BarcodeLook,
  LookUp,
  PileScans,
  Problem,
  RecordDetail,
  RulesTried,
  SetUp,
} from '@osier/contract';
import type { BarcodeRule } from '@osier/core/barcodes';
import { WICKMERE_BARCODES } from '../../../demo/barcodes';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const FOUR_AND_FOUR: BarcodeRule = { of: 'copy', prefix: '', form: 'AAAA9999', check: 'none' };
const house = async () => (await head<SetUp>('GET', '/set-up')).body.house;
async function save(barcodes: readonly BarcodeRule[]) {
  const { version, value } = await house();
  return head<Problem & { entry: number }>('PUT', '/set-up/house', { ...value, version, barcodes });
}
const tried = async (barcodes: readonly BarcodeRule[]) =>
  (await head<RulesTried>('POST', '/set-up/barcodes/try', { barcodes })).body;

test('rules are tried on the barcodes that copies have before they are saved', async () => {
  const { store } = t.running.services;
  const { length } = await store.find('copy');
  expect(await tried(WICKMERE_BARCODES)).toEqual({ fit: length, of: length, not: [] });
  const none = await tried([FOUR_AND_FOUR]);
  expect([none.fit, none.of, none.not.length]).toEqual([0, length, 10]);
  expect(none.not[0]!.why).toContain('8 characters');
});

test('a rule that cannot be one is refused at its field', async () => {
  const refused = await save([{ ...FOUR_AND_FOUR, form: 'four' }]);
  expect([refused.status, refused.body.fields?.[0]?.field]).toEqual([422, 'barcodes[0].form']);
  expect((await save([{ ...FOUR_AND_FOUR, check: 'mod10' }])).body.fields?.[0]?.field).toBe(
    'barcodes[0].check',
  );
});

test('a library with four letters and four digits: its codes are taken, found, put on a pile, and others are told', async () => {
  const saved = await save([FOUR_AND_FOUR]);
  expect(saved.status).toBe(200);
  const { holdings, id } = (await head<RecordDetail>('GET', '/records/20')).body;
  const add = (barcode: string) =>
    head<Problem & { id: number }>('POST', '/copies', { holding: holdings[0]!.id, type: 'BK', barcode });
  const made = await add('WICK0001');
  expect(made.status).toBe(201);
  expect((await add('31204000999990')).body.fields?.[0]?.message).toContain('8 characters');
  // The same in other letters is the same barcode, and a scanner's stars are none of it.
  expect((await add('*wick0001*')).body.fields?.[0]?.message).toContain('already on');
  const look = async (code: string) =>
    (await head<BarcodeLook>('GET', `/barcodes/${encodeURIComponent(code)}`)).body;
  expect(await look('WICK0002')).toMatchObject({ problem: null, holder: null });
  const up = async (q: string) => (await head<LookUp>('GET', `/look-up?q=${encodeURIComponent(q)}`)).body;
  expect(await up('WICK0001')).toMatchObject({ as: 'record', id, copy: made.body.id });
  expect(await up('WICK 0001')).toMatchObject({ as: 'record', id });
  expect(await up('WIKC0001')).toMatchObject({
    as: 'nothing',
    said: expect.stringContaining('WICK0001') as string,
  });
  const pile = (await head<{ id: number }>('POST', '/piles', { name: 'Four and four', of: 'copy' })).body.id;
  const scans = await head<PileScans>('POST', `/piles/${pile}/scans`, { codes: ['WICK0001', 'WICK0009'] });
  expect([scans.body.added, scans.body.unknown.map((u) => u.code)]).toEqual([1, ['WICK0009']]);
  await head('POST', `/daybook/${saved.body.entry}/undo`);
  expect((await house()).value.barcodes).toEqual(WICKMERE_BARCODES);
});

test('a barcode with a hyphen is met as it stands, whatever a rule would make of it', async () => {
  const { holdings } = (await head<RecordDetail>('GET', '/records/21')).body;
  const saved = await save([]);
  const made = await head<{ id: number }>('POST', '/copies', {
    holding: holdings[0]!.id,
    type: 'BK',
    barcode: 'KIT-12',
  });
  expect(made.status).toBe(201);
  expect((await head<LookUp>('GET', '/look-up?q=KIT-12')).body).toMatchObject({
    as: 'record',
    copy: made.body.id,
  });
  expect((await head<BarcodeLook>('GET', '/barcodes/KIT-12')).body.holder?.copy).toBe(made.body.id);
  await head('POST', `/daybook/${saved.body.entry}/undo`);
  expect((await head<LookUp>('GET', '/look-up?q=KIT-12')).body).toMatchObject({ copy: made.body.id });
});

test('rules as an older version kept them are read as they are now', async () => {
  const { store } = t.running.services;
  const { barcodes: _, ...rest } = (await house()).value;
  const old = { ...rest, barcode: { length: 14, kind: '3', library: '1204' } };
  await store.write((tx) =>
    store.run('UPDATE settings SET value = :value WHERE id = 1', { value: JSON.stringify(old) }, tx),
  );
  expect((await house()).value.barcodes).toEqual(WICKMERE_BARCODES);
});

test('what a copy has is found in letters of either case, and its history by a barcode that looks like none', async () => {
  const { holdings, id } = (await head<RecordDetail>('GET', '/records/22')).body;
  await save([]);
  const made = await head<{ id: number; entry: number }>('POST', '/copies', {
    ...{ holding: holdings[0]!.id, type: 'BK', barcode: 'kit-77' },
  });
  expect((await head<LookUp>('GET', '/look-up?q=KIT-77')).body).toMatchObject({ as: 'record', id });
  const entries = await head<{ rows: { id: number }[] }>('GET', '/daybook?object=kit-77');
  expect(entries.body.rows.map((r) => r.id)).toContain(made.body.entry);
});
