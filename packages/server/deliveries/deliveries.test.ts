import type {
  DaybookEntry,
  DeliveryRow,
  FindingKind,
  IncomingDetail,
  IncomingPage,
  JobState,
  Problem,
  Review,
} from '@osier/contract';
import { readFileSync } from 'node:fs';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

const deliver = async (name: string, content: Uint8Array = readFileSync(demoFile(name))) => {
  const { body } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    `/deliveries?name=${name}`,
    content,
  );
  await t.jobDone(cataloguer, body.job);
  return body.delivery;
};
const page = async (id: number, facet = '') =>
  (await cataloguer<IncomingPage>('GET', `/deliveries/${id}/incoming?facet=${facet}`)).body;

test('a clean delivery: counts, what is held, accept, and take back row by row', async () => {
  const before = await catalogueOf(t.running);
  const id = await deliver('tallow-and-pike.mrc');
  const read = await page(id);
  expect(read.facets).toMatchObject({ all: 42, waiting: 42, add: 36, ask: 6, held: 6 });

  const held = (await page(id, 'held')).rows;
  expect(held.every((r) => r.matches[0]!.sure && r.matches[0]!.points[0]!.by === 'isbn')).toBe(true);
  expect(
    (
      await cataloguer('POST', `/deliveries/${id}/decisions`, {
        incoming: held.slice(0, 2).map((r) => r.id),
        decision: 'replace',
      })
    ).status,
  ).toBe(200);

  const others = held.slice(2).map((r) => r.id);
  await cataloguer('POST', `/deliveries/${id}/decisions`, { incoming: others, decision: 'skip' });

  const review = (await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, {})).body;
  expect(review).toMatchObject({
    sentence:
      '36 records will be added, 2 replaced, 0 merged, 0 get copies only, 4 skipped. 0 copies will be made.',
    count: 38,
  });
  expect(review.consequences.join(' ')).toContain('only titles are added');
  expect(review.rows[0]!.exception).toMatch(/Replaces record|error/);

  const job = (await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {})).body;
  const done = await t.jobDone(cataloguer, job.id);
  expect(done).toMatchObject({ state: 'done', done: 42, total: 42 });
  const [row] = (await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body;
  expect(row).toMatchObject({ records: 42, waiting: 0, accepted: 38, skipped: 4 });
  expect((await catalogueOf(t.running)).records).toHaveLength(1542);

  const report = (await cataloguer<string>('GET', `/deliveries/${id}/report`)).body.trim().split('\r\n');
  expect(report).toHaveLength(43);
  const outcomes = report.slice(1).map((line) => line.split(',')[1]);
  const times = (outcome: string) => outcomes.filter((o) => o === outcome).length;
  expect([times('added'), times('replaced'), times('skipped')]).toEqual([36, 2, 4]);
  const file = (await cataloguer<string>('GET', `/deliveries/${id}/accepted`)).body;
  expect(file.split('\u001d')).toHaveLength(39);

  const undone = await cataloguer('POST', `/daybook/${done.entry}/undo`);
  expect(undone.status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
  expect((await page(id)).facets).toMatchObject({ waiting: 42, replace: 2 });
});

test('cleaning shows what it will change, changes just that, and is taken back', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const review = (
    await cataloguer<Review>('POST', `/deliveries/${id}/clean/review`, { recipe: 'house-style' })
  ).body;
  expect(review.count).toBeGreaterThan(10);
  expect(review.consequences).toHaveLength(3);
  const leaveOut = [review.rows[0]!.id];
  const job = (
    await cataloguer<JobState>('POST', `/deliveries/${id}/clean`, { recipe: 'house-style', leaveOut })
  ).body;
  const done = await t.jobDone(cataloguer, job.id);
  const detail = async (n: number) =>
    (await cataloguer<IncomingDetail>('GET', `/deliveries/${id}/incoming/${n}`)).body;
  const after = review.rows[1]!.after as { marc: unknown };
  expect((await detail(review.rows[1]!.id)).marc).toEqual(after.marc);
  expect((await detail(leaveOut[0]!)).recipe).toBeNull();
  expect(
    (await cataloguer<Review>('POST', `/deliveries/${id}/clean/review`, { recipe: 'house-style' })).body
      .count,
  ).toBe(1);
  await cataloguer('POST', `/daybook/${done.entry}/undo`);
  const back = await detail(review.rows[1]!.id);
  expect(back.marc).toEqual(back.original);
});

test('the same file dropped again is noticed', async () => {
  const rows = (await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body;
  expect(rows[0]!.sameAs).toMatchObject({ name: 'tallow-and-pike.mrc' });
});

test('only what is listed is accepted: the records in which nothing was found, and those alone', async () => {
  const before = await catalogueOf(t.running);
  const id = await deliver('lyngby-exchange.xml');
  const all = await page(id, '');
  const clear = await page(id, 'clear');
  expect(clear.rows.every((r) => r.errors + r.warnings + r.advice === 0)).toBe(true);
  expect(clear.rows.length).toBe(
    all.rows.filter((r) => r.errors + r.warnings + r.advice === 0 && r.copyProblems === 0).length,
  );
  expect([clear.total, clear.ready, all.ready]).toEqual([clear.rows.length, clear.rows.length, all.total]);
  expect(clear.rows.length).toBeGreaterThan(2);
  expect(clear.rows.length).toBeLessThan(all.total - 2);
  const accept = (body: object) => cataloguer<JobState & Problem>('POST', `/deliveries/${id}/accept`, body);
  const review = await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, { facet: 'clear' });
  expect(review.body.count).toBe(clear.rows.length);
  expect(review.body.rows.map((r) => r.id).sort()).toEqual(clear.rows.map((r) => r.id).sort());
  const nothing = await cataloguer<Problem>('POST', `/deliveries/${id}/accept/review`, { facet: 'tidy' });
  expect([nothing.status, nothing.body.detail]).toEqual([422, 'There is no facet “tidy”.']);
  // A review of all is another than one of these.
  const whole = (await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, {})).body;
  await cataloguer('PUT', `/deliveries/${id}/incoming/${all.rows[0]!.id}`, {
    ...{ version: all.rows[0]!.version, note: 'seen' },
  });
  expect((await accept({ facet: 'clear', token: whole.token })).status).toBe(409);
  const [out, ...others] = clear.rows;
  const token = (await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, { facet: 'clear' })).body
    .token;
  const job = (await accept({ facet: 'clear', leaveOut: [out!.id], token })).body;
  expect((await t.jobDone(cataloguer, job.id)).state).toBe('done');
  const accepted = (await page(id, 'accepted')).rows.map((r) => r.id);
  expect(accepted.sort()).toEqual(others.map((r) => r.id).sort());
  const now = await catalogueOf(t.running);
  expect(now.records).toHaveLength(before.records!.length + others.length);
  const back = (await cataloguer<JobState>('POST', `/deliveries/${id}/take-back`, {})).body;
  await t.jobDone(cataloguer, back.id);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('a broken delivery: every readable record, each repair with its byte offset, what is taken and what comes twice', async () => {
  const id = await deliver('reedling-broken.mrc');
  const all = await page(id);
  expect(all.facets).toMatchObject({ all: 27, twice: 1 });
  expect(all.facets.repaired).toBeGreaterThanOrEqual(8);
  const details = await Promise.all(
    all.rows.map(
      async (r) => (await cataloguer<IncomingDetail>('GET', `/deliveries/${id}/incoming/${r.id}`)).body,
    ),
  );
  const [first] = details.filter((d) => d.seq === 1);
  expect(first!.repairList.map((r) => r.code)).toEqual(['byte-order-mark', 'record-length']);
  expect(details.flatMap((d) => d.repairList).map((x) => x.code)).toContain('twice-encoded');
  expect(details.flatMap((d) => d.repairList).every((r) => r.offset >= 0)).toBe(true);
  const problems = details.flatMap((d) => d.proposedCopies.flatMap((c) => c.problems));
  expect(problems.filter((p) => /^Barcode .* is already on “/.test(p))).toHaveLength(2);
  expect(details.flatMap((d) => d.findings).map((f) => f.rule)).toEqual(
    expect.arrayContaining(['title-missing', 'isbn-qualifier', 'link-invalid', 'duplicate-subject']),
  );
});

test('findings by kind; the safe ones mended through a review, counted, and taken back', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const kinds = async () => (await cataloguer<FindingKind[]>('GET', `/deliveries/${id}/findings`)).body;
  const before = await kinds();
  const isbn = before.find((k) => k.rule === 'isbn-13-missing')!;
  expect(isbn).toMatchObject({ severity: 'advice', title: 'ISBN-13 missing' });
  expect(isbn.safe).toBe(isbn.findings);
  expect((await page(id, 'rule:isbn-13-missing')).rows).toHaveLength(isbn.records);

  const body = { rules: ['isbn-13-missing'] };
  const review = (await cataloguer<Review>('POST', `/deliveries/${id}/fix/review`, body)).body;
  expect(review.count).toBe(isbn.records);
  expect(review.consequences).toEqual([`ISBN-13 missing: ${isbn.records} records.`]);
  const leaveOut = [review.rows[0]!.id];
  const job = (await cataloguer<JobState>('POST', `/deliveries/${id}/fix`, { ...body, leaveOut })).body;
  const done = await t.jobDone(cataloguer, job.id);
  expect(done.message).toContain(`${isbn.records - 1} records`);
  expect((await kinds()).find((k) => k.rule === 'isbn-13-missing')).toMatchObject({ records: 1 });

  await cataloguer('POST', `/daybook/${done.entry}/undo`, {});
  expect(await kinds()).toEqual(before);
  const wrong = await cataloguer<Problem>('POST', `/deliveries/${id}/fix/review`, { rules: ['no-such'] });
  expect([wrong.status, wrong.body.detail]).toEqual([422, expect.stringContaining('no-such')]);
});

test('a waiting record is corrected by hand; an older version is refused, and so is an assistant', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const [row] = (await page(id)).rows;
  const path = `/deliveries/${id}/incoming/${row!.id}`;
  const detail = (await cataloguer<IncomingDetail>('GET', path)).body;
  const marc = {
    ...detail.marc,
    fields: [
      ...detail.marc.fields,
      { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Seen.' }] },
    ],
  };
  expect((await cataloguer('PUT', path, { version: row!.version, marc })).status).toBe(200);
  const after = (await cataloguer<IncomingDetail>('GET', path)).body;
  expect(after.marc).toEqual(marc);
  expect(after.original).toEqual(detail.original);
  const other = { version: row!.version, marc: detail.marc };
  expect((await cataloguer('PUT', path, other)).status).toBe(409);
  expect((await (await t.as(3))('PUT', path, { version: after.version, marc })).status).toBe(403);
});

test.each<[string, string, RegExp]>([
  ['letter.pdf', '%PDF-1.7 …', /PDF/],
  ['table.csv', 'title,author\nA,B', /table/],
  ['empty.mrc', '', /empty/],
  ['scans.txt', '31204000500001\n', /barcodes/],
])('%s is refused with what it looks like, and nothing is stored', async (name, content, said) => {
  const before = (await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body.length;
  const { status, body } = await cataloguer<Problem>(
    'POST',
    `/deliveries?name=${name}`,
    new TextEncoder().encode(content),
  );
  expect(status).toBe(415);
  expect(body.detail).toMatch(said);
  expect((await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body).toHaveLength(before);
});

test('a file that begins like MARC and holds no record is refused with a sentence, and leaves nothing', async () => {
  const before = (await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body.length;
  const file = new TextEncoder().encode('00999nam a2200999 i 4500');
  const { status, body } = await cataloguer<Problem>('POST', '/deliveries?name=hollow.mrc', file);
  expect([status, body.detail]).toEqual([415, expect.stringContaining('no record can be read')]);
  expect((await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body).toHaveLength(before);
});

test('MARCXML with other scripts is taken in and found by its own words', async () => {
  const id = await deliver('lyngby-exchange.xml');
  const job = (await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {})).body;
  await t.jobDone(cataloguer, job.id);
  const found = await cataloguer<{ total: number }>(
    'GET',
    `/records?q=${encodeURIComponent('Деревенские красители')}`,
  );
  expect(found.body.total).toBeGreaterThanOrEqual(1);
});

test('undo names what stands in the way and half undoes nothing', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const job = (await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {})).body;
  const { entry } = await t.jobDone(cataloguer, job.id);
  const accepted = (await page(id, 'accepted')).rows[0]!;
  const record = (
    await cataloguer<{ version: number; marc: { leader: string; fields: unknown[] } }>(
      'GET',
      `/records/${accepted.record}`,
    )
  ).body;
  const marc = {
    ...record.marc,
    fields: [
      ...record.marc.fields,
      { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Seen since.' }] },
    ],
  };
  await cataloguer('PUT', `/records/${accepted.record}`, { version: record.version, marc });
  const before = await catalogueOf(t.running);
  const refused = await cataloguer<Problem>('POST', `/daybook/${entry}/undo`);
  expect(refused.status).toBe(409);
  expect(refused.body.conflicts![0]!.message).toMatch(/was changed since by Tobias Fenn: Edited/);
  expect(await catalogueOf(t.running)).toEqual(before);
  const last = (await cataloguer<{ rows: DaybookEntry[] }>('GET', '/daybook')).body.rows[0]!;
  await cataloguer('POST', `/daybook/${last.id}/undo`);
  expect((await cataloguer('POST', `/daybook/${entry}/undo`)).status).toBe(200);
});

test('a table of field addresses is a delivery like any other: a record a row, accepted and taken back', async () => {
  const before = await catalogueOf(t.running);
  const table = '245$a;100$a;650$a\r\nBaskets of the fen;Sallow, Ida;Baskets | Willows\r\n;;\r\nEels;;\r\n';
  const id = await deliver('gift.csv', Buffer.from(table));
  expect((await page(id)).rows.map((r) => r.title)).toEqual(
    expect.arrayContaining(['Baskets of the fen', 'Eels']),
  );
  const rows = (await cataloguer<DeliveryRow[]>('GET', '/deliveries')).body;
  expect(rows.find((r) => r.id === id)).toMatchObject({ records: 2, unreadable: 1, waiting: 2 });
  const job = (await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {})).body;
  const done = await t.jobDone(cataloguer, job.id);
  expect((await catalogueOf(t.running)).records).toHaveLength(before.records!.length + 2);
  expect((await cataloguer('POST', `/daybook/${done.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('of two deliveries of the same records, both read before, the second stays when the first is accepted; its own chunks do not count', async () => {
  const xml = (n: number) =>
    `<?xml version="1.0"?><collection xmlns="http://www.loc.gov/MARC21/slim">${Array.from(
      { length: n },
      (_, i) =>
        `<record><leader>00000nam a2200000 i 4500</leader><datafield tag="020" ind1=" " ind2=" "><subfield code="a">${isbnOf(i)}</subfield></datafield>` +
        `<datafield tag="245" ind1="1" ind2="0"><subfield code="a">Sluice keeping, part ${i} /</subfield></datafield></record>`,
    ).join('')}</collection>`;
  const isbnOf = (i: number) => {
    const body = `978190000${String(i).padStart(3, '0')}`;
    const sum = [...body].reduce((n, d, at) => n + Number(d) * (at % 2 ? 3 : 1), 0);
    return `${body}${(10 - (sum % 10)) % 10}`;
  };
  // More than one chunk: what the first chunk added was written since the reading, by the delivery itself.
  const first = await deliver('sluices.xml', Buffer.from(xml(250)));
  const second = await deliver('sluices-again.xml', Buffer.from(xml(3)));
  const accepted = async (id: number) => {
    const { body } = await cataloguer<JobState>('POST', `/deliveries/${id}/accept`, {});
    return (await t.jobDone(cataloguer, body.id)).message;
  };
  expect(await accepted(first)).toContain('250 new');
  expect(await accepted(second)).toContain('3 records stayed in the delivery');
  expect((await page(second)).facets).toMatchObject({ all: 3, waiting: 3 });
});
