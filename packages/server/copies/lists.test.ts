import type {
  CopyCharts,
  CopyList,
  CopyListRow,
  JobState,
  Problem,
  RecordDetail,
  Review,
} from '@osier/contract';
import { byKey } from '@osier/core/callnumbers';
import { recordReader, type MarcRecord } from '@osier/core/marc';
import { parse } from 'papaparse';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const list = async (query: string) => (await cataloguer<CopyList>('GET', `/copies?${query}`)).body;
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const change = async (body: object) => {
  const begun = await cataloguer<JobState & Problem>('POST', '/copies/change', body);
  return begun.status === 202 ? t.jobDone(cataloguer, begun.body.id) : begun.body;
};
const review = async (body: object) =>
  (await cataloguer<Review & Problem>('POST', '/copies/change/review', body)).body;
const undo = (entry: number | null | undefined) => cataloguer('POST', `/daybook/${entry}/undo`, {});
const all = async (query: string) => {
  const rows: CopyListRow[] = [];
  for (let after: string | null = ''; after !== null;) {
    const page: CopyList = await list(`${query}&after=${encodeURIComponent(after)}`);
    rows.push(...page.rows);
    after = page.next;
  }
  return rows;
};

test('all copies in the order of the shelf, page by page, each once; and by what else they are sorted', async () => {
  const { n } = (await t.running.services.store.row<{ n: number }>('SELECT COUNT(*) AS n FROM copies'))!;
  const rows = await all('');
  expect([rows.length, new Set(rows.map((r) => r.id)).size, (await list('')).total]).toEqual([n, n, n]);
  const dewey = rows.filter((r) => /^\d{3}/.test(r.callNumber)).map((r) => r.callNumber.slice(0, 5));
  expect(dewey).toEqual([...dewey].sort(byKey));
  const sorts: readonly (readonly [string, (r: CopyListRow) => string | number])[] = [
    ['barcode', (r) => r.barcode],
    ['acquired', (r) => r.acquired],
    ['price', (r) => r.price ?? -1],
  ];
  for (const [sort, of] of sorts) {
    const up = (await all(`sort=${sort}&type=BK`)).map(of);
    expect(up.every((v, i) => i === 0 || v >= up[i - 1]!)).toBe(true);
    const down = (await all(`sort=${sort}&type=BK&down=yes`)).map(of);
    expect(down).toEqual([...up].reverse());
  }
});

test('copies are found by every thing that is known of them', async () => {
  const rows = await all('');
  const some = rows.find((r) => r.supplier && r.fund)!;
  const ids = (of: CopyListRow[]) => of.map((r) => r.id).sort((a, b) => a - b);
  const wanted = (query: string, test: (r: CopyListRow) => boolean) =>
    all(query).then((found) => expect(ids(found)).toEqual(ids(rows.filter(test))));
  await wanted(
    `branch=${some.branch}&location=${some.location}`,
    (r) => r.branch === some.branch && r.location === some.location,
  );
  await wanted('status=missing', (r) => r.status === 'missing');
  await wanted(`barcode=${some.barcode.slice(4, 11)}`, (r) => r.barcode.includes(some.barcode.slice(4, 11)));
  await wanted(
    `supplier=${some.supplier}&fund=${some.fund}`,
    (r) => r.supplier === some.supplier && r.fund === some.fund,
  );
  await wanted('numberFrom=600&numberTo=641', (r) => /^6(0\d|1\d|2\d|3\d|40|41)/.test(r.callNumber));
  await wanted(
    'acquiredFrom=2020-01-01&acquiredTo=2021-12-31',
    (r) => r.acquired >= '2020-01-01' && r.acquired <= '2021-12-31',
  );
  await wanted('notSeenSince=2025-01-01', (r) => r.lastSeen < '2025-01-01');
  await wanted('noPrice=yes', (r) => r.price === null);
  await wanted('unread=yes', (r) => r.isUnread);
  expect((await cataloguer('GET', '/copies?status=eaten')).status).toBe(422);
  expect((await cataloguer('GET', '/copies?pile=999')).status).toBe(422);
  expect((await list('barcode=%25')).total).toBe(0);
});

test('a call number that its scheme cannot read is found, and sorts last', async () => {
  const holding = (await detail(10)).holdings[0]!;
  const { record: _, ...was } = holding.holding;
  const done = await cataloguer<{ entry: number }>('PUT', `/holdings/${holding.id}`, {
    ...was,
    version: holding.version,
    scheme: 'dewey',
    prefix: 'Q',
    class: 'Fishing',
  });
  const unread = await list('unread=yes');
  expect(unread.rows.map((r) => r.record)).toContain(10);
  expect((await all('')).at(-1)!.record).toBe(10);
  await undo(done.body.entry);
  expect((await list('unread=yes')).rows.map((r) => r.record)).not.toContain(10);
});

test('many copies are changed through a review, as a job, and undone as one', async () => {
  const before = await all('branch=MR&numberFrom=700&numberTo=799');
  const edits = [
    { part: 'status', how: 'set', value: 'in repair' },
    { part: 'staffNote', how: 'add', value: 'Spine' },
  ];
  const search = { branch: 'MR', numberFrom: '700', numberTo: '799' };
  const seen = await review({ ...search, edits });
  expect(seen.sentence).toBe(
    `${before.length} copies of ${before.length} will be changed: status to in repair, “Spine” added to staff note.`,
  );
  expect(JSON.stringify(seen.rows[0]!.after)).toContain('Status: in repair');
  const [left] = seen.rows;
  const done = await change({ ...search, edits, leaveOut: [left!.id], token: seen.token });
  expect(done).toMatchObject({ state: 'done', message: `Changed ${before.length - 1} copies.` });
  const after = await all('branch=MR&numberFrom=700&numberTo=799');
  expect(after.filter((r) => r.status !== 'in repair').map((r) => r.id)).toEqual(
    before.filter((r) => r.id === left!.id && r.status !== 'in repair').map((r) => r.id),
  );
  expect((await undo(done.entry)).status).toBe(200);
  expect(await all('branch=MR&numberFrom=700&numberTo=799')).toEqual(before);
});

test('copies go to another location with their call number by house style; what cannot go is told and stays', async () => {
  const rows = (await all('branch=MR')).slice(0, 40);
  const body = {
    copies: [...rows.map((r) => r.id), ...(await all('branch=SH')).slice(0, 3).map((r) => r.id)],
    edits: [
      { part: 'location', how: 'set', value: 'STORE' },
      { part: 'callNumber', how: 'house' },
    ],
  };
  const locations = await t.running.services.store.lists();
  body.edits[0]!.value = locations.value.locations.find(
    (l) => l.branch === 'MR' && l.code !== rows[0]!.location,
  )!.code;
  const seen = await review(body);
  expect(seen.rows.filter((r) => r.exception !== null).length).toBeGreaterThanOrEqual(3);
  const count = async () =>
    t.running.services.store.rows(
      'SELECT id, record, branch, location, call_number FROM holdings ORDER BY id',
    );
  const holdings = await count();
  const done = await change({ ...body, token: seen.token });
  const moved = (await list(`location=${body.edits[0]!.value}&branch=MR`)).rows;
  expect(moved.length).toBeGreaterThan(10);
  // No copy stands on a holding of another title, and no holding that was emptied is left.
  const stray = await t.running.services.store.rows(
    'SELECT c.id FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.record <> c.record OR h.location <> c.location OR h.shelf_key <> c.shelf_key',
  );
  expect(stray).toEqual([]);
  expect((await undo(done.entry)).status).toBe(200);
  expect(await count()).toEqual(holdings);
});

test('what makes no sense is refused at its part; what somebody changed since the review is left', async () => {
  const wrong = await cataloguer<Problem>('POST', '/copies/change', {
    branch: 'MR',
    edits: [{ part: 'price', how: 'set', value: '-1' }],
  });
  expect([wrong.status, wrong.body.fields?.[0]?.field]).toEqual([422, 'edits[0].value']);
  expect((await assistant('POST', '/copies/change', { branch: 'MR', edits: [] })).status).toBe(403);
  expect(
    (await review({ barcode: 'nothing', edits: [{ part: 'note', how: 'set', value: 'x' }] })).detail,
  ).toContain('No copy is found');
  const rows = (await list('branch=MR')).rows.slice(0, 3);
  const body = { copies: rows.map((r) => r.id), edits: [{ part: 'condition', how: 'set', value: 'foxed' }] };
  const { token } = await review(body);
  const one = (await detail(rows[0]!.record)).holdings
    .flatMap((h) => h.copies)
    .find((c) => c.id === rows[0]!.id)!;
  await cataloguer('PUT', `/copies/${one.id}`, { version: one.version, condition: 'torn' });
  expect((await cataloguer<Problem>('POST', '/copies/change', { ...body, token })).status).toBe(409);
});

test('what is found leaves as a table and as MARC with its holdings', async () => {
  const rows = await all('branch=MR&status=available&numberFrom=600&numberTo=699');
  const query = 'branch=MR&status=available&numberFrom=600&numberTo=699';
  const fetched = async (more: string) =>
    Buffer.from((await cataloguer<string>('GET', `/copies/export?${query}&${more}`)).body);
  const table = parse<string[]>((await fetched('as=csv')).toString('utf8').replace('\ufeff', '').trim()).data;
  expect(table.slice(1).map((r) => r[6])).toEqual(rows.map((r) => r.barcode));
  const read = (bytes: Buffer): MarcRecord[] => {
    const reader = recordReader('iso2709');
    return [...reader.push(bytes), ...reader.end()].flatMap((r) => r.record ?? []);
  };
  const within = read(await fetched('as=iso2709'));
  expect(within).toHaveLength(new Set(rows.map((r) => r.record)).size);
  const barcodes = within.flatMap((m) =>
    m.fields.flatMap((f) =>
      'subfields' in f && f.tag === '876'
        ? f.subfields.filter((s) => s.code === 'p').map((s) => s.value)
        : [],
    ),
  );
  expect(rows.every((r) => barcodes.includes(r.barcode))).toBe(true);
  const apart = read(await fetched('as=iso2709&holdings=apart'));
  expect(apart.filter((m) => 'xv'.includes(m.leader[6]!)).length).toBeGreaterThanOrEqual(within.length);
  expect((await fetched('as=marcxml&holdings=none')).toString('utf8')).not.toContain('tag="852"');
  expect((await cataloguer('GET', '/copies/export?as=pdf')).status).toBe(422);
});

test('a record leaves with its holdings in it, in records of their own, or without', async () => {
  const get = async (more: string) =>
    (await cataloguer<string>('GET', `/records/10/export?as=marcxml${more}`)).body;
  const held = (await detail(10)).holdings;
  const count = (text: string, what: string) => text.split(what).length - 1;
  const copies = held.flatMap((h) => h.copies).length;
  expect(count(await get(''), 'tag="852"')).toBe(0);
  expect(count(await get('&holdings=within'), 'tag="876"')).toBe(copies);
  expect(count(await get('&holdings=apart'), '<record')).toBe(held.length + 1);
  expect((await cataloguer('GET', '/records/10/export?holdings=some')).status).toBe(422);
  const json = (await cataloguer<unknown[]>('GET', '/records/10/export?as=json&holdings=apart')).body;
  expect(typeof json === 'string' ? (JSON.parse(json) as unknown[]) : json).toHaveLength(held.length + 1);
});

test.each(['', 'branch=MR&type=BK', `q=${encodeURIComponent('year >= 1990')}`, 'status=lost', 'q=zzzz'])(
  'charts of “%s” count every copy once: by class, by decade of publication, by status',
  async (query) => {
    const rows = await all(query);
    const { body } = await cataloguer<CopyCharts>('GET', `/copies/charts?${query}`);
    const counted = (of: readonly string[]) =>
      [...new Set(of)].sort(byKey).map((value) => ({ value, n: of.filter((v) => v === value).length }));
    const years = new Map(
      (
        await t.running.services.store.rows<{ id: number; year: string }>('SELECT id, year FROM record_rows')
      ).map((r) => [r.id, r.year.slice(0, 3)]),
    );
    expect(body).toEqual({
      total: rows.length,
      classes: counted(
        rows.map(
          (r) => /^\d\d(?=\d)/.exec(r.callNumber)?.[0] ?? /^\p{L}{1,3}/u.exec(r.callNumber)?.[0] ?? '',
        ),
      ),
      decades: counted(rows.map((r) => years.get(r.record) ?? '')),
      statuses: counted(rows.map((r) => r.status)),
    });
  },
);
