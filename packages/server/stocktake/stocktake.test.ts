import type {
  DaybookPage,
  FindingPage,
  JobState,
  Problem,
  RecordDetail,
  Review,
  ScanAnswer,
  StocktakeDetail,
  StocktakeReport,
  StocktakeRow,
  StretchReview,
  WithdrawalList,
} from '@osier/contract';
import { update } from '@osier/core/changes';
import type { StockFindingKind } from '@osier/core/stocktake';
import { readFileSync } from 'node:fs';
import { commit } from '../store/commit';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
// What a test began is closed behind it: every open stocktake would be reckoned again after each act of those that follow.
afterEach(async () => {
  const { store } = t.running.services;
  const open = (await store.find('stocktake')).filter((s) => s.value.state !== 'closed');
  const changes = open.map((s) => update('stocktake', s, { ...s.value, state: 'closed' as const }));
  const did = {
    act: 'close-stocktake',
    names: { stocktake: 'a tested one' },
    counts: { found: 0, expected: 0, findings: 0 },
  } as const;
  if (changes.length) await commit(store, { person: 1, did, changes });
});
const codes = readFileSync(demoFile('stocktake-millrace-746.txt'), 'utf8').trim().split(/\r?\n/);
const stretch = {
  name: 'Textiles',
  branch: 'MR',
  locations: ['OPEN'],
  scheme: 'dewey',
  from: '746',
  to: '746',
};
const start = async (more: object = {}) =>
  (await head!<{ id: number }>('POST', '/stocktakes', { ...stretch, ...more })).body.id;
/** A stocktake when all of it is reckoned. */
const detail = async (id: number) => {
  await t.running.services.background.idle();
  return (await assistant!<StocktakeDetail>('GET', `/stocktakes/${id}`)).body;
};
const findings = async (id: number, kind: StockFindingKind) => {
  await t.running.services.background.idle();
  return (await assistant!<FindingPage>('GET', `/stocktakes/${id}/findings?kind=${kind}`)).body.rows;
};
const load = (id: number, list: readonly string[], more: object = {}) =>
  assistant!<{ entry: number } & Problem>('POST', `/stocktakes/${id}/load`, {
    name: 'walk.txt',
    codes: list,
    ...more,
  });
const shelfOf = async (id: number) =>
  (await assistant!<{ rows: { barcode: string; callNumber: string }[] }>('GET', `/stocktakes/${id}/shelf`))
    .body.rows;
const total = (counts: Record<string, number>) => Object.values(counts).reduce((a, b) => a + b, 0);
const jobDone = async (id: number) => {
  await t.running.services.jobs.idle();
  return (await head!<JobState>('GET', `/jobs/${id}`)).body;
};
const close = async (id: number) => {
  const begun = await head!<JobState>('POST', `/stocktakes/${id}/close`, {});
  expect(begun.status).toBe(202);
  return jobDone(begun.body.id);
};

test('a walk loaded from a file: every copy has one outcome; what is wrong is told by kind; undone whole', async () => {
  const id = await start();
  const loaded = await load(id, codes);
  const s = await detail(id);
  expect(s).toMatchObject({
    scans: codes.length,
    comparing: false,
    runs: [{ name: 'walk.txt', scans: codes.length }],
  });
  expect(total(s.outcomes)).toBe((await shelfOf(id)).length);
  expect(s.outcomes.stood).toBeGreaterThan(50);
  const counts = new Map(s.kinds.map((k) => [k.kind, k.count]));
  expect(counts.get('skipped')).toBe(1);
  expect(counts.get('repeated')).toBe(1);
  expect(counts.get('misplaced')).toBeGreaterThanOrEqual(1);
  expect((counts.get('found') ?? 0) + (counts.get('elsewhere') ?? 0)).toBeGreaterThanOrEqual(3);
  expect((counts.get('misread') ?? 0) + (counts.get('unknown') ?? 0)).toBe(2);
  expect((await findings(id, 'missing')).length).toBe(s.outcomes.missing);
  const [misplaced] = await findings(id, 'misplaced');
  expect(misplaced!.message).toMatch(/Out of order: it belongs (between|behind|before) /);
  expect((await cataloguer!('POST', `/daybook/${loaded.body.entry}/undo`)).status).toBe(200);
  expect(await detail(id)).toMatchObject({ scans: 0, runs: [], outcomes: { stood: 0 } });
});

test('the same scans are noticed when they are loaded again; a file is dated the day it was walked', async () => {
  const id = await start();
  await load(id, codes.slice(0, 20), { on: '2026-03-02' });
  const again = await load(id, codes.slice(0, 20));
  expect([again.status, again.body.detail]).toEqual([
    422,
    expect.stringContaining('loaded already, as walk.txt'),
  ]);
  expect((await load(id, codes.slice(0, 20), { again: true })).status).toBe(200);
  expect((await detail(id)).runs.map((r) => r.began)).toEqual(['2026-03-02', expect.any(String)]);
  const early = await load(id, codes.slice(0, 3), { on: '2999-01-01' });
  expect([early.status, early.body.fields?.[0]?.field]).toEqual([422, 'on']);
});

test('a file that is loaded already is refused before anything is done with it, unless it is wanted', async () => {
  const id = await start();
  const text = new TextEncoder().encode(codes.slice(0, 30).join('\r\n'));
  const send = (more = '') =>
    assistant!<JobState & Problem>('POST', `/stocktakes/${id}/load-file?name=walk.txt${more}`, text);
  expect(await jobDone((await send()).body.id)).toMatchObject({ state: 'done' });
  const again = await send();
  expect([again.status, again.body.fields]).toEqual([
    422,
    [{ field: 'again', message: 'This file is loaded already, as walk.txt. Nothing was loaded.' }],
  ]);
  expect((await detail(id)).scans).toBe(30);
  expect(await jobDone((await send('&again=yes')).body.id)).toMatchObject({ state: 'done' });
  expect((await detail(id)).scans).toBe(60);
});

test('a scan is answered with what it is, what stands next, and how far the walk is; sent again it counts once', async () => {
  const id = await start();
  const { expected } = await detail(id);
  const skipped = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body
    .rows;
  const [first, , , later] = skipped;
  const send = async (number: number, ...scans: string[]) =>
    (
      await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, {
        codes: scans,
        from: { device: 'phone', run: 'morning', number },
      })
    ).body;
  const one = await send(0, ` a${first!.code}B `);
  expect(one).toMatchObject({ added: 1, found: 1, expected });
  expect(one.verdicts).toEqual([
    {
      ...{ code: first!.code, outcome: 'in place', title: first!.title },
      ...{ callNumber: first!.callNumber, message: '', jumped: null },
    },
  ]);
  const second = one.next!;
  expect([first!.code, later!.code]).not.toContain(second.barcode);
  // Lost on the way back: the same once more, with one more behind it.
  const again = await send(0, first!.code, later!.code);
  expect(again).toMatchObject({ added: 1, found: 2 });
  expect(again.verdicts.map((v) => v.outcome)).toEqual(['in place', 'in place']);
  const back = await send(2, second.barcode, '999', first!.code);
  expect(back.verdicts.map((v) => v.outcome)).toEqual(['out-of-order', 'unknown', 'scanned before']);
  expect(back.verdicts[0]!.message).toContain(`belongs before ${later!.callNumber}`);
  const row = (await head!<StocktakeRow[]>('GET', '/stocktakes')).body.find((r) => r.id === id);
  expect(row).toMatchObject({ found: 3, scans: 5, findings: null, expected });
  // The last scan is taken back, and does not come again when the device sends it once more.
  const taken = await assistant!<{ code: string; found: number }>('POST', `/stocktakes/${id}/scans/undo`, {
    ...{ device: 'phone', run: 'morning' },
  });
  expect(taken.body).toMatchObject({ code: first!.code, found: 3 });
  expect(await send(4, first!.code)).toMatchObject({ added: 0 });
  expect(await detail(id)).toMatchObject({ found: 3, scans: 4 });
});

test('a walk that passes a shelf is told at once, as the stocktake was set up', async () => {
  const send = async (id: number, ...scans: string[]) =>
    (
      await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, {
        codes: scans,
        from: { device: 'phone', run: `jumps ${id}`, number: 0 },
      })
    ).body.verdicts.map((v) => v.jumped);
  const byCopies = await start({ jumpWhen: 'copies', jumpBy: 10 });
  const shelf = (await assistant!<FindingPage>('GET', `/stocktakes/${byCopies}/outcomes?outcome=skipped`))
    .body.rows;
  const [a, b, c] = [shelf[0]!.code, shelf[8]!.code, shelf[30]!.code];
  expect(await send(byCopies, a, b, c)).toEqual([null, null, expect.any(Number)]);
  const byClass = await start({ jumpWhen: 'class', jumpBy: 1, from: '', to: '' });
  const all = await shelfOf(byClass);
  const classOf = (n: string) => Number(/^\d{3}/.exec(n)?.[0] ?? NaN);
  const far = all.findIndex((x, i) => i > 5 && classOf(x.callNumber) > classOf(all[0]!.callNumber));
  expect((await send(byClass, all[0]!.barcode, all[1]!.barcode, all[far]!.barcode))[2]).toBeGreaterThan(0);
  expect(await send(await start({ jumpWhen: 'never' }), a, c)).toEqual([null, null]);
});

test('copies read where another walked location is are told; each location is held in its own order', async () => {
  const id = await start({
    locations: ['OPEN', 'BENCH'],
    from: '',
    to: '',
    orders: [{ location: 'BENCH', order: 'call+author' }],
  });
  const s = await detail(id);
  expect(s.stocktake.orders).toMatchObject({ OPEN: 'call', BENCH: 'call+author' });
  const rows = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body.rows;
  const bench = rows.find((r) => r.location === 'BENCH')!;
  await load(id, [bench.code], { location: 'OPEN' });
  expect(await findings(id, 'elsewhere')).toMatchObject([
    { code: bench.code, message: expect.stringContaining('Belongs to') as string },
  ]);
  expect((await findings(id, 'missing')).map((f) => f.code)).not.toContain(bench.code);
});

test('a stretch of two branches: both are expected, each walked by itself; a copy of the other is told by its branch', async () => {
  const two = { name: 'Two', also: ['SH'], locations: [], from: '', to: '' };
  const { branch, scheme } = stretch;
  const part = (more: object) => ({ branch, scheme, from: '', to: '', locations: [], ...more });
  const holds = async (more: object) =>
    (await head!<StretchReview>('POST', '/stocktakes/review', part(more))).body.copies;
  const id = await start(two);
  const s = await detail(id);
  expect(total(s.outcomes)).toBe((await holds({})) + (await holds({ branch: 'SH' })));
  expect(total(s.outcomes)).toBe(await holds({ also: ['SH'] }));
  expect(s.placeName).toBe('Millrace and Sedge House');
  expect(s.stocktake.stretch.also).toEqual(['SH']);
  const rows = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body.rows;
  const [own, other] = ['OPEN', 'READ'].map((l) => rows.find((r) => r.location === l)!);
  const scanned = await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, {
    codes: [own!.code, other!.code],
    from: { device: 'd', run: 'r', number: 0, location: 'OPEN' },
  });
  expect(scanned.body.verdicts.map((v) => v.message)).toEqual(['', 'Belongs to Sedge House.']);
  expect(await findings(id, 'elsewhere')).toMatchObject([
    { code: other!.code, message: 'Belongs to Sedge House.', acts: ['done', 'correct-location'] },
  ]);
  const settled = await head!<{ sentence: string }>('POST', `/stocktakes/${id}/settle`, {
    items: [{ finding: 'elsewhere', code: other!.code, act: 'correct-location' }],
    location: 'OPEN',
  });
  expect(settled.body.sentence).toContain('1 given the right location');
  const report = (await assistant!<StocktakeReport>('GET', `/stocktakes/${id}/report`)).body;
  expect(report.locations.map((l) => l.name)).toContain('Sedge House, Reading room');
  const { loans, expected } = (
    await head!<StretchReview>('POST', '/stocktakes/review', part({ ...stretch, askLoans: true }))
  ).body;
  expect(loans?.notKnown).toBe(0);
  expect(loans?.onLoan).toBeGreaterThan(1);
  expect(loans?.onLoan).toBeLessThan(expected);
  const wrong = await head!<Problem>('POST', '/stocktakes/review', part({ also: ['NOWHERE'] }));
  expect(wrong.body.fields).toMatchObject([{ field: 'also' }]);
});

test('a copy added later is not expected; a closed stocktake keeps all that it found', async () => {
  const id = await start();
  const before = await detail(id);
  const [some] = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body
    .rows;
  const { holdings } = (await cataloguer!<RecordDetail>('GET', `/records/${some!.record}`)).body;
  const made = await cataloguer!<{ entry: number }>('POST', '/copies', {
    holding: holdings.find((h) => h.copies.some((c) => c.id === some!.copy))!.id,
    ...{ barcode: '31204770000999', type: 'BK', keepBarcode: true },
  });
  expect(made.status).toBe(201);
  expect((await detail(id)).expected).toBe(before.expected);
  await load(id, codes.slice(0, 20));
  const open = await detail(id);
  const all = async () => ({
    detail: await detail(id),
    report: (await assistant!<StocktakeReport>('GET', `/stocktakes/${id}/report`)).body,
    table: (await assistant!<string>('GET', `/stocktakes/${id}/export?of=findings`)).body,
    copies: (await assistant!<string>('GET', `/stocktakes/${id}/export?of=copies`)).body,
    misplaced: await findings(id, 'misplaced'),
  });
  const closed = await close(id);
  expect(closed).toMatchObject({ state: 'done', message: 'Closed Textiles.' });
  const kept = await all();
  expect(kept.detail).toMatchObject({
    outcomes: open.outcomes,
    kinds: open.kinds,
    stocktake: { state: 'closed' },
  });
  // What becomes of its copies later changes nothing of it.
  const shelf = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=stood`)).body.rows;
  const list = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    name: `W${id}`,
    branch: 'MR',
  });
  await cataloguer!('POST', `/withdrawal-lists/${list.body.id}/scans`, { codes: [shelf[0]!.code] });
  const { verdicts } = (await head!<WithdrawalList>('GET', `/withdrawal-lists/${list.body.id}`)).body;
  const gone = await head!<{ entry: number }>('POST', `/withdrawal-lists/${list.body.id}/withdraw`, {
    copies: verdicts.map((v) => v.candidate!.copyId),
  });
  expect(gone.status).toBe(200);
  const record = (await cataloguer!<RecordDetail>('GET', `/records/${shelf[1]!.record}`)).body;
  const retitled = {
    ...record.marc,
    fields: record.marc.fields.map((f) =>
      f.tag === '245' && 'subfields' in f ? { ...f, subfields: [{ code: 'a', value: 'Renamed' }] } : f,
    ),
  };
  const saved = await cataloguer!<{ entry: number }>('PUT', `/records/${shelf[1]!.record}`, {
    ...{ version: record.version, marc: retitled, withErrors: true },
  });
  expect(saved.status).toBe(200);
  expect(await all()).toEqual(kept);
  for (const entry of [saved.body.entry, gone.body.entry, closed.entry, made.body.entry])
    expect((await head!('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  await t.running.services.jobs.idle();
  const back = await detail(id);
  expect(back).toMatchObject({ stocktake: { state: 'open' }, outcomes: open.outcomes });
});

test('findings are settled as reviewed, stay visible with what was done, and are taken back', async () => {
  const before = await catalogueOf(t.running);
  const id = await start();
  await load(id, codes);
  const [missing, found, elsewhere, misplaced] = [
    await findings(id, 'missing'),
    await findings(id, 'found'),
    await findings(id, 'elsewhere'),
    await findings(id, 'misplaced'),
  ];
  const items = [
    ...missing.slice(0, 3).map((f) => ({ finding: 'missing', code: f.code, act: 'mark-missing' })),
    ...found
      .filter((f) => f.acts.includes('mark-found'))
      .map((f) => ({ finding: 'found', code: f.code, act: 'mark-found' })),
    ...elsewhere
      .filter((f) => f.acts.includes('correct-location'))
      .map((f) => ({ finding: 'elsewhere', code: f.code, act: 'correct-location' })),
    { finding: 'misplaced', code: misplaced[0]!.code, act: 'done' },
  ];
  expect(new Set(items.map((i) => i.act)).size).toBe(4);
  const review = (await cataloguer!<Review>('POST', `/stocktakes/${id}/settle/review`, { items })).body;
  expect(review.count).toBe(items.length);
  expect((await assistant!('POST', `/stocktakes/${id}/settle`, { items })).status).toBe(403);
  const done = await cataloguer!<{ entry: number; sentence: string }>('POST', `/stocktakes/${id}/settle`, {
    ...{ items, token: review.token },
  });
  expect(done.status).toBe(200);
  expect(done.body.sentence).toContain('3 marked missing');
  const after = await findings(id, 'missing');
  expect(after.map((f) => f.code)).toEqual(missing.map((f) => f.code));
  expect(after.filter((f) => f.settled)).toHaveLength(3);
  expect((await findings(id, 'found')).find((f) => f.settled)?.settled).toMatchObject({
    how: 'mark-found',
    by: 'Tobias Fenn',
  });
  const moved = (await findings(id, 'misplaced')).find((f) => f.code === misplaced[0]!.code);
  expect(moved?.settled?.how).toBe('done');
  const again = await cataloguer!<Problem>('POST', `/stocktakes/${id}/settle`, { items });
  expect([again.status, again.body.detail]).toEqual([409, expect.stringContaining('was settled on')]);
  expect((await cataloguer!('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect((await findings(id, 'missing')).filter((f) => f.settled)).toEqual([]);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('what was scanned, withdrawn or put right since is not settled', async () => {
  const id = await start();
  await load(id, codes);
  const [one, two] = await findings(id, 'missing');
  const settle = (code: string) =>
    cataloguer!<Problem>('POST', `/stocktakes/${id}/settle`, {
      items: [{ finding: 'missing', code, act: 'mark-missing' }],
    });
  await assistant!('POST', `/stocktakes/${id}/scans`, { codes: [one!.code] });
  expect((await settle(one!.code)).status).toBe(409);
  const copy = (await t.running.services.store.read('copy', two!.copy!))!;
  const lost = await cataloguer!<{ entry: number }>('PUT', `/copies/${copy.id}`, {
    version: copy.version,
    status: 'lost',
  });
  expect(lost.status).toBe(200);
  expect((await settle(two!.code)).status).toBe(409);
  await cataloguer!('POST', `/daybook/${lost.body.entry}/undo`);
});

test('a copy that was marked missing and is scanned later settles itself, once, and is told', async () => {
  const id = await start();
  await load(id, codes);
  const [one, two] = await findings(id, 'missing');
  const done = await cataloguer!<{ entry: number }>('POST', `/stocktakes/${id}/settle`, {
    items: [one, two].map((f) => ({ finding: 'missing', code: f!.code, act: 'mark-missing' })),
  });
  const statusOf = async (f: typeof one) =>
    (await t.running.services.store.read('copy', f!.copy!))?.value.status;
  await detail(id);
  expect([await statusOf(one), await statusOf(two)]).toEqual(['missing', 'missing']);
  const answer = await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, { codes: [one!.code] });
  expect(answer.body.verdicts[0]).toMatchObject({
    outcome: 'should-not-be-here',
    message: 'Recorded missing but on the shelf.',
  });
  const settled = async () => (await findings(id, 'found')).find((f) => f.code === one!.code)?.settled;
  expect(await settled()).toMatchObject({
    how: 'mark-found',
    by: expect.stringMatching(/, by scanning it$/) as string,
  });
  expect((await findings(id, 'missing')).map((f) => f.code)).not.toContain(one!.code);
  expect([await statusOf(one), await statusOf(two)]).toEqual(['available', 'missing']);
  const [entry] = (await head!<DaybookPage>('GET', '/daybook')).body.rows;
  expect(entry!.sentence).toBe('Settled 1 finding of “Textiles”: 1 marked found');
  // Undone it stays undone, a finding like others.
  expect((await head!('POST', `/daybook/${entry!.id}/undo`)).status).toBe(200);
  expect([await settled(), await statusOf(one)]).toEqual([null, 'missing']);
  expect((await cataloguer!('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
});

test('many findings are settled by a job, and undone', async () => {
  const id = await start({ from: '', to: '', locations: [] });
  const [first] = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body
    .rows;
  await load(id, [first!.code]);
  const skipped = (await detail(id)).outcomes.skipped!;
  expect(skipped).toBeGreaterThan(500);
  const items: { finding: string; code: string; act: string }[] = [];
  for (let after = ''; items.length < skipped;) {
    const page = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped${after}`))
      .body;
    items.push(...page.rows.map((f) => ({ finding: 'missing', code: f.code, act: 'mark-missing' })));
    after = `&after=${encodeURIComponent(page.next ?? '')}`;
  }
  const begun = await cataloguer!<{ job: number }>('POST', `/stocktakes/${id}/settle`, { items });
  const job = await jobDone(begun.body.job);
  expect(job).toMatchObject({ state: 'done', message: `Settled ${skipped} findings.` });
  const marked = await t.running.services.store.find('copy', { where: { status: 'missing' } });
  expect(marked.length).toBeGreaterThanOrEqual(skipped);
  expect((await head!('POST', `/daybook/${job.entry}/undo`)).status).toBeLessThan(300);
  await t.running.services.jobs.idle();
  expect((await t.running.services.store.find('copy', { where: { status: 'missing' } })).length).toBe(
    marked.length - skipped,
  );
}, 120_000);

test('closing gives every copy the day on which it was seen; a closed one takes no scans', async () => {
  const id = await start();
  await load(id, codes, { on: '2026-11-28' });
  expect((await cataloguer!('POST', `/stocktakes/${id}/close`, {})).status).toBe(403);
  const review = (await head!<Review>('POST', `/stocktakes/${id}/close/review`)).body;
  expect(review.consequences.join(' ')).toMatch(/findings are not settled/);
  const stood = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=stood`)).body
    .rows[0]!;
  const job = await close(id);
  expect((await t.running.services.store.read('copy', stood.copy!))?.value.lastSeen).toBe('2026-11-28');
  const refused = await assistant!<Problem>('POST', `/stocktakes/${id}/scans`, { codes: ['1'] });
  expect(refused.body.detail).toContain('closed');
  const [row] = (await head!<StocktakeRow[]>('GET', '/stocktakes')).body;
  expect(row).toMatchObject({ stocktake: { state: 'closed' }, findings: expect.any(Number) as number });
  expect((await head!('POST', `/daybook/${job.entry}/undo`)).status).toBeLessThan(300);
  await t.running.services.jobs.idle();
});

test('ten scanners at once: nothing is lost, nothing doubled', async () => {
  const id = await start();
  const shelf = (await shelfOf(id)).map((c) => c.barcode);
  const each = Math.ceil(shelf.length / 10);
  await Promise.all(
    Array.from({ length: 10 }, async (_, i) => {
      const own = shelf.slice(i * each, (i + 1) * each);
      for (const [number, code] of own.entries())
        for (let times = 0; times < 1 + (number % 2); times++)
          await assistant!('POST', `/stocktakes/${id}/scans`, {
            codes: [code],
            from: { device: `d${i}`, run: 'r', number },
          });
    }),
  );
  const s = await detail(id);
  expect(s).toMatchObject({ scans: shelf.length, outcomes: { stood: shelf.length, missing: 0 } });
  expect(s.runs).toHaveLength(10);
  expect(s.kinds.find((k) => k.kind === 'repeated')).toBeUndefined();
}, 120_000);

test('before the start: what a stretch holds, and what overlaps it; what is not a stretch is told at the field', async () => {
  expect((await cataloguer!('POST', '/stocktakes', stretch)).status).toBe(403);
  const { name: _, ...of } = stretch;
  const id = await start();
  const review = (await head!<StretchReview>('POST', '/stocktakes/review', of)).body;
  const { expected } = await detail(id);
  expect(review.expected).toBe(expected);
  expect(review.copies).toBe(expected + total(review.statuses));
  expect(review.overlaps).toContainEqual({ id, name: 'Textiles', copies: review.copies });
  const bad = (await head!<Problem>('POST', '/stocktakes', { ...stretch, name: '', branch: 'XX' })).body;
  expect(bad.fields).toEqual([{ field: 'name', message: 'Give the stocktake a name.' }]);
  expect((await head!<Problem>('POST', '/stocktakes', { ...stretch, branch: 'MX' })).body.detail).toContain(
    'Nearest: MR (Millrace)',
  );
  const turned = (await head!<Problem>('POST', '/stocktakes', { ...stretch, from: '746', to: '745' })).body;
  expect(turned.fields).toEqual([{ field: 'to', message: '745 stands before 746.' }]);
});

test('a stocktake that is for some people only is scanned by nobody else', async () => {
  const id = await start({ scanners: [2] });
  expect((await assistant!<Problem>('POST', `/stocktakes/${id}/scans`, { codes: ['1'] })).status).toBe(403);
  expect((await cataloguer!('POST', `/stocktakes/${id}/scans`, { codes: ['1'] })).status).toBe(200);
});

test('what several send in one moment is kept together: each hears of their own, who may not scan is refused alone, what is sent twice counts once', async () => {
  const id = await start({ scanners: [2] });
  const shelf = (await shelfOf(id)).map((c) => c.barcode);
  const send = (ask: Ask, run: string, at: number, n = 1) =>
    ask<ScanAnswer & Problem>('POST', `/stocktakes/${id}/scans`, {
      codes: shelf.slice(at, at + n),
      from: { device: 'd', run, number: at },
    });
  const answers = await Promise.all([
    send(cataloguer!, 'a', 0),
    send(assistant!, 'b', 1),
    send(cataloguer!, 'c', 2, 3),
    send(cataloguer!, 'c', 2, 3),
    send(cataloguer!, 'd', 5, 0),
    send(cataloguer!, 'e', 0),
  ]);
  expect(answers.map((a) => a.status)).toEqual([200, 403, 200, 200, 200, 200]);
  const kept = answers.filter((a) => a.status === 200).map((a) => a.body);
  expect(kept.reduce((n, a) => n + a.added, 0)).toBe(5);
  expect(kept.map((a) => a.verdicts.map((v) => v.code))).toEqual([
    shelf.slice(0, 1),
    shelf.slice(2, 5),
    shelf.slice(2, 5),
    [],
    shelf.slice(0, 1),
  ]);
  const s = await detail(id);
  expect(s).toMatchObject({ scans: 5, found: 4 });
  expect(s.runs.map((r) => r.scans).sort()).toEqual([1, 1, 3]);
});

test('copies on loan are accounted for as the loans desk says; one that is scanned is found', async () => {
  const id = await start();
  const { outcomes, loans } = await detail(id);
  expect(outcomes['on loan']).toBeGreaterThan(1);
  expect(loans).toEqual({ asked: total(outcomes), of: total(outcomes) });
  const [lent] = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=on%20loan`)).body
    .rows;
  const answer = await assistant!<ScanAnswer>('POST', `/stocktakes/${id}/scans`, { codes: [lent!.code] });
  expect(answer.body.verdicts[0]!.message).toMatch(/^Recorded on loan but on the shelf/);
  expect(await findings(id, 'found')).toMatchObject([{ code: lent!.code, acts: ['done', 'return'] }]);
});

test('a copy on loan that stands on the shelf is returned at the loans desk when a person says so; undoing says what it does not take back', async () => {
  const id = await start({ name: 'Returned' });
  await detail(id);
  const [left, lent] = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=on%20loan`))
    .body.rows;
  await load(id, [left!.code, lent!.code]);
  await detail(id);
  const stateOf = async (code: string) =>
    (await t.running.services.loans.ask([code], { anew: true })).of(code).state;
  const items = [
    { finding: 'found', code: left!.code, act: 'done' },
    { finding: 'found', code: lent!.code, act: 'return' },
  ];
  const review = (await head!<Review>('POST', `/stocktakes/${id}/settle/review`, { items })).body;
  expect(review.consequences).toEqual(['The loans desk will check in 1 copy. Undo does not take that back.']);
  expect(review.rows.map((r) => r.after)).toEqual([
    { text: 'left on loan' },
    { text: 'returned at the loans desk' },
  ]);
  const done = await head!<{ entry: number; sentence: string }>('POST', `/stocktakes/${id}/settle`, {
    items,
    token: review.token,
  });
  expect(done.body.sentence).toContain('1 returned at the loans desk, 1 done');
  expect((await detail(id)).toTell).toEqual({ waiting: 0, refused: [] });
  expect([await stateOf(left!.code), await stateOf(lent!.code)]).toEqual(['on loan', 'available']);
  const undoing = await head!<Review>('POST', `/daybook/${done.body.entry}/undo/review`);
  expect(undoing.body.consequences.join(' ')).toContain('The loans desk was told of 1 copy of these');
  // The desk has no loan of it any more: the same again is told as refused, and goes when it is undone.
  await head!('POST', `/daybook/${done.body.entry}/undo`);
  const again = await head!<{ entry: number }>('POST', `/stocktakes/${id}/settle`, { items: [items[1]] });
  expect((await detail(id)).toTell).toEqual({ waiting: 0, refused: [lent!.code] });
  await head!('POST', `/daybook/${again.body.entry}/undo`);
  expect((await detail(id)).toTell).toEqual({ waiting: 0, refused: [] });
});

test('with the loans desk silent, nobody takes silence for “not on loan”: it is told before closing', async () => {
  const other = await startTesting({ loans: false });
  try {
    const ask = await other.as(1);
    const { id } = (await ask<{ id: number }>('POST', '/stocktakes', stretch)).body;
    await ask('POST', `/stocktakes/${id}/load`, { name: 'walk.txt', codes });
    await other.running.services.background.idle();
    const s = (await ask<StocktakeDetail>('GET', `/stocktakes/${id}`)).body;
    expect(s).toMatchObject({ loans: { asked: 0, of: total(s.outcomes) }, outcomes: { 'on loan': 0 } });
    const review = (await ask<Review>('POST', `/stocktakes/${id}/close/review`)).body;
    expect(review.consequences.join(' ')).toContain('The loans desk has not answered for');
  } finally {
    await other.stop();
  }
});

test.each<[string, string | Uint8Array, RegExp]>([
  ['an empty file', '', /There is no barcode in this file/],
  [
    'a spreadsheet',
    new Uint8Array([0x50, 0x4b, 3, 4, 20, 0, 6, 0]),
    /^This is a ZIP archive or an office document\. A scanner’s file is text/,
  ],
  [
    'MARC records',
    '00066nam a2200037 i 4500245001000000\u001e00\u001faBaskets\u001e\u001d',
    /MARC records|no barcode/,
  ],
  ['prose', 'Dear colleagues\nplease find below\nwhat was agreed\n', /does not look like a scanner’s file/],
])('%s is no scanner’s file, and nothing is loaded', async (_, content, says) => {
  const id = await start();
  const body = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const begun = await assistant!<JobState & Problem>(
    'POST',
    `/stocktakes/${id}/load-file?name=odd.dat`,
    body,
  );
  const said = begun.status === 202 ? ((await jobDone(begun.body.id)).message ?? '') : begun.body.detail;
  expect(said).toMatch(says);
  expect(await detail(id)).toMatchObject({ scans: 0, runs: [] });
});

test('a file of several walks and locations is loaded as runs of their own, as one entry; a location that is none is told', async () => {
  const id = await start({ locations: ['OPEN', 'BENCH'], from: '', to: '' });
  const rows = (await assistant!<FindingPage>('GET', `/stocktakes/${id}/outcomes?outcome=skipped`)).body.rows;
  const open = rows.filter((r) => r.location === 'OPEN').slice(0, 6);
  const bench = rows.filter((r) => r.location === 'BENCH').slice(0, 3);
  const lines = [...open.slice(0, 3), ...bench, ...open.slice(3)].map(
    (r, i) => `2026-03-0${1 + (i % 2)},${r.code},${r.location === 'OPEN' ? 'open shelves' : 'BENCH'}`,
  );
  const sent = (list: readonly string[], query = '') =>
    assistant!<JobState>(
      'POST',
      `/stocktakes/${id}/load-file?name=all.csv${query}`,
      new Uint8Array(Buffer.from(['Day,Barcode,Location', ...list].join('\n'))),
    );
  const wrong = await jobDone((await sent([...lines, '2026-03-03,31204000517715,Stacks'])).body.id);
  expect(wrong).toMatchObject({ state: 'failed', message: expect.stringContaining('“Stacks”') as string });
  expect(await detail(id)).toMatchObject({ scans: 0, runs: [] });
  const job = await jobDone((await sent(lines)).body.id);
  expect(job).toMatchObject({ message: 'Loaded 9 scans from all.csv, in 2 walks.' });
  expect((await detail(id)).runs).toMatchObject([
    { name: 'all.csv', location: 'OPEN', scans: 6, began: '2026-03-01' },
    { name: 'all.csv', location: 'BENCH', scans: 3, began: '2026-03-02' },
  ]);
  expect(await findings(id, 'elsewhere')).toEqual([]);
  expect(await findings(id, 'misplaced')).toEqual([]);
  await head!('POST', `/daybook/${job.entry}/undo`);
  expect((await detail(id)).runs).toEqual([]);
  // With the location said, what the file says of it is passed over.
  const all = await jobDone((await sent(lines, '&location=OPEN&again=yes')).body.id);
  expect(all.message).toBe('Loaded 9 scans from all.csv.');
  expect((await findings(id, 'elsewhere')).map((f) => f.code).sort()).toEqual(
    bench.map((f) => f.code).sort(),
  );
});

test('a table in another encoding is read by its column of barcodes, and dated by its first day', async () => {
  const id = await start();
  const shelf = await shelfOf(id);
  const table = [
    'Zeit;Strichcode;Regal',
    ...shelf.slice(0, 5).map((c) => `2026-03-04 10:15;${c.barcode};Fächer`),
  ].join('\r\n');
  const utf16 = new Uint8Array(Buffer.from(`\ufeff${table}`, 'utf16le'));
  const begun = await assistant!<JobState>('POST', `/stocktakes/${id}/load-file?name=utf16.csv`, utf16);
  expect(await jobDone(begun.body.id)).toMatchObject({
    state: 'done',
    message: 'Loaded 5 scans from utf16.csv.',
  });
  expect((await detail(id)).runs).toMatchObject([{ scans: 5, began: '2026-03-04' }]);
});
