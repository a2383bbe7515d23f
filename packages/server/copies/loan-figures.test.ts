import type { CopyList, JobState, Problem, RegisterRow, Review, WithdrawalList } from '@osier/contract';
import type { Copy } from '@osier/core/holdings';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [cataloguer, assistant, head]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant, head] = [await t.as(2), await t.as(3), await t.as(1)];
});
afterAll(() => t.stop());

const send = async (text: string | Uint8Array): Promise<string> => {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
  const { status, body } = await cataloguer!<{ file: string }>('POST', '/loan-figures', bytes);
  expect(status).toBe(201);
  return body.file;
};
const review = (file: string) => cataloguer!<Review & Problem>('POST', '/loan-figures/review', { file });
async function load(body: object): Promise<{ status: number; job: JobState }> {
  const { status, body: job } = await cataloguer!<JobState>('POST', '/loan-figures/load', body);
  return { status, job: status === 202 ? await t.jobDone(cataloguer!, job.id) : job };
}
const copiesOf = async (barcodes: readonly string[]): Promise<Copy[]> => {
  const found = await t.running.services.store.find('copy', { where: { barcode: [...barcodes] } });
  return barcodes.map((b) => found.find((c) => c.value.barcode === b)!.value);
};
const someCopies = async (n: number) =>
  (
    await t.running.services.store.find('copy', { where: { status: 'available' }, order: [['id', 'ASC']] })
  ).slice(0, n);

test('a table is reviewed, loaded as one entry and undone: only figures change, and only of the copies that it names', async () => {
  const [a, b, c, d] = await someCopies(4);
  const codes = [a!, b!, c!, d!].map((x) => x.value.barcode);
  const before = await copiesOf(codes);
  const days = ['2026-11-01', '2026-10-31', ''];
  const file = await send(
    `Loans;Item barcode;Last issued\n${before[0]!.loans ?? 0};A${codes[0]}B;${before[0]!.lastLoan ?? ''}\n77;${codes[1]};${days[0]}\n88;${codes[2]};31.10.2026\n0;${codes[3]};\n1;31204999999990;\nx;${codes[0]};\n99;${codes[1]};\n98;A${codes[1]}B;\n3;***;`,
  );
  const shown = (await review(file)).body;
  // The fourth copy was lent before, so that the table that says it never was comes first to the eye.
  expect(shown.count).toBe(3);
  expect(shown.rows[0]).toMatchObject({ id: d!.id, exception: expect.stringContaining('older') as unknown });
  expect(shown.rows.flatMap((r) => (r.after && 'text' in r.after ? [r.after.text] : [])).sort()).toEqual([
    '0 loans',
    '77 loans, last on 2026-11-01',
    '88 loans, last on 2026-10-31',
  ]);
  expect(shown.consequences).toEqual([
    '1 copy will stay: these figures are known already.',
    '2 barcodes of no copy here: 3 1204 99999999 0, ***.',
    '1 line not taken: the copy stands further up already.',
    `2 lines not read: line 7 (“x” is no number of loans.), line 8 (${codes[1]} stands further up already.).`,
  ]);
  expect((await assistant!('POST', '/loan-figures/load', { file, token: shown.token })).status).toBe(403);
  const done = await load({ file, name: 'loans.csv', leaveOut: [d!.id], token: shown.token });
  expect(done.status).toBe(202);
  const { lastLoan: _, ...first } = before[1]!;
  const after = await copiesOf(codes);
  expect(after).toEqual([
    before[0],
    { ...first, loans: 77, lastLoan: days[0] },
    { ...before[2], loans: 88, lastLoan: days[1] },
    before[3],
  ]);
  const entry = (await cataloguer!<{ rows: { id: number; sentence: string }[] }>('GET', '/daybook')).body
    .rows[0]!;
  expect(entry.sentence).toContain('Loaded loan figures of 2 copies from loans.csv; 2 barcodes of no copy');
  expect((await cataloguer!('POST', `/daybook/${entry.id}/undo`)).status).toBe(200);
  expect(await copiesOf(codes)).toEqual(before);
});

test('a copy that somebody changed since the review refuses the table; so do a token of another, and a file that was not sent', async () => {
  const [a] = await someCopies(1);
  const file = await send(`barcode,loans\n${a!.value.barcode},4321`);
  const { token, consequences } = (await review(file)).body;
  expect(consequences).toEqual([
    'The table does not say when copies were lent last; what is known of it stays.',
  ]);
  const change = await cataloguer!('PUT', `/copies/${a!.id}`, { version: a!.version, note: 'seen' });
  expect(change.status).toBe(200);
  expect((await load({ file, token })).status).toBe(409);
  const [still] = await copiesOf([a!.value.barcode]);
  expect(still!.loans).toBe(a!.value.loans);
  expect((await load({ file: 'f'.repeat(64) })).status).toBe(422);
  expect((await load({ file: '../../osier.sqlite' })).status).toBe(422);
  // Without anything changed since, it goes; the last day of a loan that is known stays.
  const again = (await review(file)).body;
  expect((await load({ file, token: again.token })).status).toBe(202);
  const [now] = await copiesOf([a!.value.barcode]);
  expect(now).toMatchObject({ loans: 4321, note: 'seen' });
  expect(now!.lastLoan).toBe(a!.value.lastLoan);
  // What was loaded is not kept.
  expect((await review(file)).status).toBe(422);
});

test.each([
  ['nothing', '', /no column of barcodes/],
  ['a list of titles', 'Title,Year\nEels,1999', /no column of barcodes/],
  [
    'a MARC file',
    '00068nam a2200037 a 4500245002600000\u001e00\u001faEels of Osmere\u001e\u001d',
    /MARC records/,
  ],
  ['an archive', new Uint8Array([0x50, 0x4b, 3, 4, 20, 0, 0, 0, 8, 0, 1, 2, 3, 4, 5, 6]), /column|This is/],
  ['days that could be either', 'barcode,loans,last loan\nR1,1,03/04/2019', /cannot be told apart/],
])('%s is refused at the review, and nothing is done', async (_, text, problem) => {
  const refused = await review(await send(text));
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toMatch(problem);
});

test('copies are found and sorted by what is known of their loans', async () => {
  const { store } = t.running.services;
  const list = async (query: string) => (await assistant!<CopyList>('GET', `/copies?${query}`)).body;
  const n = async (where: string) =>
    (await store.row<{ n: number }>(`SELECT COUNT(*) AS n FROM copies c WHERE ${where}`))!.n;
  const [loans, last] = ["json_extract(c.value, '$.loans')", "json_extract(c.value, '$.lastLoan')"];
  const q = (text: string) => list(`q=${encodeURIComponent(text)}`);
  expect((await q('loans = 0')).total).toBe(await n(`${loans} = 0`));
  expect((await q('loans > 20')).total).toBe(await n(`${loans} > 20`));
  expect((await q('lastloan < 2015')).total).toBe(await n(`${last} < '2015'`));
  expect((await q('lastloan = 2026-11')).total).toBe(await n(`${last} LIKE '2026-11%'`));
  expect((await q('lastloan < 2019 or loans = 0')).total).toBe(await n(`${last} < '2019' OR ${loans} = 0`));
  expect((await q('seen >= 2025')).total).toBe(await n("json_extract(c.value, '$.lastSeen') >= '2025'"));
  const unlent = await list('notLentSince=2019-01-01');
  expect(unlent.total).toBe(
    await n(`(${last} < '2019-01-01') OR (${loans} IS NOT NULL AND ${last} IS NULL)`),
  );
  expect(unlent.total).toBeGreaterThan(50);
  const most = (await list('sort=loans&down=yes')).rows.map((r) => r.loans ?? -1);
  expect(most).toEqual([...most].sort((x, y) => y - x));
  expect(most[0]).toBeGreaterThan(30);
  const first = (await list('sort=lent')).rows.map((r) => r.lastLoan);
  expect(first).toEqual([...first].sort());
});

test('what was lent stands in the register, and in its table', async () => {
  const [copy] = (await someCopies(400)).filter((c) => (c.value.loans ?? 0) > 3);
  const holding = (await t.running.services.store.read('holding', copy!.value.holding))!;
  const { body: list } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    ...{ name: 'Lent often', branch: holding.value.branch, reason: 'worn' },
  });
  await cataloguer!('POST', `/withdrawal-lists/${list.id}/scans`, { codes: [copy!.value.barcode] });
  const { verdicts } = (await cataloguer!<WithdrawalList>('GET', `/withdrawal-lists/${list.id}`)).body;
  expect(verdicts[0]!.candidate!.copyId).toBe(copy!.id);
  const done = await head!<{ entry: number }>('POST', `/withdrawal-lists/${list.id}/withdraw`, {
    copies: [copy!.id],
  });
  expect(done.status).toBe(200);
  const { rows } = (await head!<{ rows: RegisterRow[] }>('GET', `/register?q=${copy!.value.barcode}`)).body;
  expect(rows[0]!.withdrawn).toMatchObject({
    ...{ copy: copy!.value, preparedBy: 'Tobias Fenn', by: 'Nell Arkwright' },
  });
  await head!('POST', `/daybook/${done.body.entry}/undo`);
});
