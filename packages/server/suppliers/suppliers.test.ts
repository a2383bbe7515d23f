import type {
  DeliverySummary,
  IncomingDetail,
  IncomingPage,
  JobState,
  LabelsPreview,
  Problem,
  Review,
  RollRow,
  SetUp,
  SheetRow,
} from '@osier/contract';
import { rollNumber, serialIn } from '@osier/core/barcodes';
import { LABEL_SHEETS } from '@osier/core/labels';
import { readFileSync } from 'node:fs';
import { describe as describeRecord } from '@osier/core/matching';
import { DEFAULT_SETTINGS } from '@osier/core/deliveries';
import { field } from '@osier/core/marc';
import { SHEETS, SHELF_READY, WORKROOM } from '../../../demo/library';
import { keysOf } from '../deliveries/keys';
import { matcherFor, type ToMatch } from '../deliveries/matcher';
import { copyWork } from '../deliveries/settings';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

/** A copy as a person makes one by hand. */
const COPY = {
  branch: 'MR',
  location: 'OPEN',
  scheme: 'dewey' as const,
  prefix: '',
  class: '746.41',
  item: 'XYZ',
  suffix: '',
  barcode: '',
  number: 1,
  type: 'BK',
  price: null,
  fund: '',
  supplier: '',
  note: '',
  status: 'available' as const,
  remarks: [],
};

const deliver = async (name: string) => {
  const { body } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    `/deliveries?name=${name}`,
    readFileSync(demoFile(name)),
  );
  await t.jobDone(cataloguer, body.job);
  return body.delivery;
};
const page = async (id: number, facet = '') =>
  (await cataloguer<IncomingPage>('GET', `/deliveries/${id}/incoming?facet=${facet}`)).body;
const detail = async (id: number, n: number) =>
  (await cataloguer<IncomingDetail>('GET', `/deliveries/${id}/incoming/${n}`)).body;
const summary = async (id: number) =>
  (await cataloguer<DeliverySummary>('GET', `/deliveries/${id}/summary`)).body;
const run = async (method: string, path: string, body: object = {}) => {
  const started = await cataloguer<JobState>(method, path, body);
  expect(started.status).toBe(202);
  return t.jobDone(cataloguer, started.body.id);
};

test('a shelf-ready delivery: sheet, recipe and copies by themselves; problems first; accepted; taken back row by row', async () => {
  const before = await catalogueOf(t.running);
  const id = await deliver('reedling-shelf-ready.mrc');
  const read = await summary(id);
  expect(read.sheet).toMatchObject({
    name: 'Reedling Library Supply',
    why: 'the file name fits “reedling-shelf-ready*”',
  });
  expect(read).toMatchObject({
    read: 24,
    waiting: { add: 21, copies: 3 },
    copies: { waiting: 26, problems: 4, made: 0 },
  });
  const sum = (at: 'before' | 'after') => read.findings.reduce((n, f) => n + f[at], 0);
  expect(sum('after')).toBeLessThan(sum('before'));

  const all = (await page(id)).rows;
  const odd = (r: (typeof all)[number]) => r.copyProblems > 0 || r.errors > 0;
  expect(all.map(odd)).toEqual([...all.map(odd)].sort((x, y) => Number(y) - Number(x)));
  const first = all.filter((r) => r.copyProblems > 0);
  const problems = await Promise.all(
    first.slice(0, 4).map(async (r) => (await detail(id, r.id)).proposedCopies[0]!.problems.join(' ')),
  );
  for (const said of [
    /is already on/,
    /is not of the roll/,
    /31204 and 9 digits/,
    /“TOWER” is not a location here/,
  ])
    expect(problems.some((p) => said.test(p))).toBe(true);

  // One is put right by hand: another location, and a barcode from the roll.
  const tower = first.find((r, i) => problems[i]!.includes('TOWER'))!;
  const path = `/deliveries/${id}/incoming/${tower.id}`;
  const [copy] = (await detail(id, tower.id)).proposedCopies;
  const wrong = await cataloguer<Problem>('PUT', path, {
    version: tower.version,
    copies: [{ ...copy, number: 0 }],
  });
  expect([wrong.status, wrong.body.detail]).toEqual([422, 'A copy number is 1 or more.']);
  const mended = [{ ...copy, location: 'BENCH', barcode: '' }];
  expect(
    (await cataloguer('PUT', path, { version: tower.version, copies: mended, note: 'Asked the supplier.' }))
      .status,
  ).toBe(200);
  expect((await page(id, 'noted')).rows[0]).toMatchObject({ copyProblems: 0, note: 'Asked the supplier.' });

  const review = (await cataloguer<Review>('POST', `/deliveries/${id}/accept/review`, {})).body;
  expect(review.count).toBe(21);
  expect(review.rows.slice(0, 3).every((r) => r.exception)).toBe(true);
  const done = await run('POST', `/deliveries/${id}/accept`);
  expect(done.message).toMatch(
    /^Accepted 21 records of “reedling-shelf-ready.mrc”: 18 new, 3 with copies only, 23 copies/,
  );
  expect(done.message).toContain('3 records stayed in the delivery');
  expect(await summary(id)).toMatchObject({
    done: { added: 18, copiesOnly: 3 },
    copies: { made: 23, problems: 3 },
  });
  const after = await catalogueOf(t.running);
  expect([
    after.records!.length - before.records!.length,
    after.copies!.length - before.copies!.length,
  ]).toEqual([18, 23]);
  // A price in another currency is kept as it came.
  const abroad = (await t.running.services.store.find('copy', { where: { price: 2490 } })).map(
    (c) => c.value,
  );
  expect(abroad.filter((c) => c.currency === 'EUR')).toHaveLength(1);
  // The one without a barcode got a number of the roll behind all those that the file brings.
  const serials = (await detail(id, tower.id)).proposedCopies[0]!.barcode;
  const brought = await Promise.all(
    all
      .filter((r) => r.id !== tower.id)
      .map(async (r) => (await detail(id, r.id)).proposedCopies.map((c) => c.barcode)),
  );
  const ofRoll = brought.flat().flatMap((b) => serialIn(SHELF_READY, b) ?? []);
  expect(serialIn(SHELF_READY, serials)).toBe(Math.max(...ofRoll) + 1);
  const report = (await cataloguer<string>('GET', `/deliveries/${id}/report`)).body;
  expect(report).toContain('copies only');
  expect(report).toContain(serials);
  const labels = () =>
    cataloguer<LabelsPreview & Problem>('POST', '/labels/preview', {
      ...{ kind: 'barcode', sheet: LABEL_SHEETS[0], delivery: id },
    });
  const printed = (await labels()).body;
  expect(printed.count).toBe(23);
  expect(printed.labels.map((l) => l.barcode)).toContain(serials);

  const back = await run('POST', `/deliveries/${id}/take-back`);
  expect(back.message).toBe('Undid the accepting of 21 records of “reedling-shelf-ready.mrc”.');
  expect(await catalogueOf(t.running)).toEqual(before);
  expect(await summary(id)).toMatchObject({ waiting: { add: 21, copies: 3 }, accepted: 0 });
  expect((await labels()).body.detail).toBe('There is no copy to print a label of.');
  // Nothing is left of accepting, so that it cannot be taken back once more; taking back can be, and then it stands again.
  const entry = async (e: number | null) =>
    (await cataloguer<{ undoneBy: number | null }>('GET', `/daybook/${e}`)).body.undoneBy;
  expect(await entry(done.entry)).toBe(back.entry);
  expect((await cataloguer('POST', `/daybook/${back.entry}/undo`)).status).toBe(200);
  expect(await summary(id)).toMatchObject({ done: { added: 18, copiesOnly: 3 } });
  expect((await run('POST', `/deliveries/${id}/take-back`)).message).toMatch(
    /^Undid the accepting of 21 records/,
  );
  expect(await catalogueOf(t.running)).toEqual(before);
  // Decided otherwise and accepted once more, it goes back to what was decided last.
  const one = (await page(id, 'add')).rows[0]!.id;
  await cataloguer('POST', `/deliveries/${id}/decisions`, { incoming: [one], decision: 'skip' });
  await run('POST', `/deliveries/${id}/accept`);
  await run('POST', `/deliveries/${id}/take-back`);
  expect(await detail(id, one)).toMatchObject({ state: 'waiting', decision: 'skip' });
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('taken back in part: what was worked on or lent since stays, and is named', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  await run('POST', `/deliveries/${id}/accept`);
  const accepted = (await page(id, 'accepted')).rows;
  const [a, b, c] = accepted;
  const record = (
    await cataloguer<{ version: number; marc: { leader: string; fields: object[] } }>(
      'GET',
      `/records/${a!.record}`,
    )
  ).body;
  const marc = {
    ...record.marc,
    fields: [
      ...record.marc.fields,
      { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Seen.' }] },
    ],
  };
  await cataloguer('PUT', `/records/${a!.record}`, { version: record.version, marc });
  const body = { incoming: [a!.id, b!.id, c!.id] };
  const review = (await cataloguer<Review>('POST', `/deliveries/${id}/take-back/review`, body)).body;
  expect(review).toMatchObject({ count: 2, verb: 'Undo', noun: { one: 'record', many: 'records' } });
  expect(review.rows[0]).toMatchObject({ id: a!.id, canLeaveOut: false });
  expect(review.rows[0]!.exception).toMatch(/was changed since by Tobias Fenn: Edited/);
  const done = await run('POST', `/deliveries/${id}/take-back`, { ...body, leaveOut: [c!.id] });
  expect(done.message).toMatch(/^Undid the accepting of 1 record of .* 1 record stayed/);
  const state = async (n: number) => (await detail(id, n)).state;
  expect([await state(a!.id), await state(b!.id), await state(c!.id)]).toEqual([
    'accepted',
    'waiting',
    'accepted',
  ]);
  expect((await cataloguer('GET', `/records/${b!.record}`)).status).toBe(404);
  // Taking back is itself an act that can be taken back.
  expect((await cataloguer('POST', `/daybook/${done.entry}/undo`)).status).toBe(200);
  expect([await state(b!.id), (await cataloguer('GET', `/records/${b!.record}`)).status]).toEqual([
    'accepted',
    200,
  ]);
});

test('other settings for one delivery: matched anew, a person’s decision stays', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const held = (await page(id, 'held')).rows;
  expect(held.length).toBeGreaterThan(6);
  await cataloguer('POST', `/deliveries/${id}/decisions`, { incoming: [held[0]!.id], decision: 'add' });
  const { version, sheet, settings } = await summary(id);
  const next = {
    ...settings,
    actions: { one: 'skip', several: 'skip', none: 'add' },
    defaults: { ...settings.defaults, branch: 'MR', location: 'OPEN', type: 'BK', copies: 2 },
    roll: 1,
  };
  const done = await run('PUT', `/deliveries/${id}/settings`, { version, sheet: sheet!.id, settings: next });
  expect(done.state).toBe('done');
  const after = await summary(id);
  expect(after.copies).toEqual({ waiting: 84, problems: 0, made: 0 });
  expect(after.waiting.skip).toBeGreaterThan(0);
  expect((await detail(id, held[0]!.id)).decision).toBe('add');
  const stale = await cataloguer('PUT', `/deliveries/${id}/settings`, {
    version,
    sheet: null,
    settings: next,
  });
  expect(stale.status).toBe(409);
  const reading = await cataloguer<Problem>('PUT', `/deliveries/${id}/settings`, {
    version: after.version,
    sheet: null,
    settings: { ...next, charset: 'marc8' },
  });
  expect([reading.status, reading.body.detail]).toEqual([
    422,
    expect.stringContaining('Load the file again'),
  ]);
});

test('all under a facet are decided at once; what has no sure match is left as it was', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const all = async (to: number, facet: string, decision: string) => {
    const job = await cataloguer<JobState>('POST', `/deliveries/${to}/decisions/all`, { facet, decision });
    return (await t.jobDone(cataloguer, job.body.id)).message;
  };
  const held = (await page(id, 'held')).rows;
  const sure = held.filter((r) => r.matches[0]!.sure).length;
  expect(sure).toBeGreaterThan(0);
  expect(await all(id, 'held', 'merge')).toContain(`Chose “merge fields” for ${sure} incoming records`);
  expect((await page(id)).facets.merge).toBe(sure);
  expect((await detail(id, (await page(id, 'merge')).rows[0]!.id)).becomes).not.toBeNull();

  const foreign = await deliver('lyngby-exchange.xml');
  expect(await all(foreign, 'waiting', 'replace')).toMatch(
    /^Chose “replace” for 0 .* Left as they were, because no match is sure: 15 records\.$/,
  );
  expect((await page(foreign)).facets.add).toBe(15);
  const bad = await cataloguer<Problem>('POST', `/deliveries/${id}/decisions/all`, {
    facet: 'nonsense',
    decision: 'skip',
  });
  expect([bad.status, bad.body.detail]).toEqual([422, 'There is no facet “nonsense”.']);
});

test('records merged into one go back together or stay; a skipped one owns no copy of another', async () => {
  const id = await deliver('lyngby-exchange.xml');
  const [a, b, c, d] = (await page(id, 'add')).rows;
  const decide = (incoming: number[], decision: string, target?: number) =>
    cataloguer('POST', `/deliveries/${id}/decisions`, { incoming, decision, target });
  await decide([a!.id, b!.id], 'merge', 3);
  const barcode = rollNumber(WORKROOM, WORKROOM.from + 900);
  const copy = { ...COPY, barcode };
  await cataloguer('PUT', `/deliveries/${id}/incoming/${c!.id}`, { version: c!.version, copies: [copy] });
  await cataloguer('PUT', `/deliveries/${id}/incoming/${d!.id}`, { version: d!.version, copies: [copy] });
  await decide([d!.id], 'skip');
  expect(await run('POST', `/deliveries/${id}/accept`)).toMatchObject({ state: 'done' });

  const review = await cataloguer<Review>('POST', `/deliveries/${id}/take-back/review`, {
    incoming: [a!.id],
  });
  expect(review.body.count).toBe(0);
  expect(review.body.rows[0]!.exception).toMatch(
    /^Record 3 also has record \d+ of this file in it; undo them together\.$/,
  );
  const both = { incoming: [a!.id, b!.id], leaveOut: [b!.id] };
  expect((await run('POST', `/deliveries/${id}/take-back`, both)).message).toMatch(
    /^Undid the accepting of 0 records .* 1 record stayed/,
  );
  expect((await run('POST', `/deliveries/${id}/take-back`, { incoming: [a!.id, b!.id] })).message).toMatch(
    /^Undid the accepting of 2 records of “lyngby-exchange.xml”\.$/,
  );
  expect((await run('POST', `/deliveries/${id}/take-back`, { incoming: [c!.id] })).message).toMatch(
    /^Undid the accepting of 1 record of “lyngby-exchange.xml”\.$/,
  );
  const [found] = await t.running.services.store.rows('SELECT id FROM copies WHERE barcode = :barcode', {
    barcode,
  });
  expect(found).toBeUndefined();
});

test('a batch that is matched once more, because its commit met a conflict, comes out the same', async () => {
  const { store } = t.running.services;
  const work = await copyWork(store, DEFAULT_SETTINGS);
  const match = matcherFor(DEFAULT_SETTINGS, work);
  const row = (seq: number, title: string, barcode: string): ToMatch => {
    const marc = {
      leader: '00000nam a2200000 i 4500',
      fields: [field('020', '  ', 'a', '9780306406157'), field('245', '10', 'a', title)],
    };
    const description = describeRecord(marc);
    return { seq, description, keys: keysOf(description), copies: [{ ...COPY, barcode, problems: [] }] };
  };
  const rows = [
    row(1, 'Quite new', '31204000000019'),
    row(2, 'Quite new', '31204000000019'),
    row(3, 'Other', ''),
  ];
  const once = await match(rows, store);
  expect(once.map((m) => m.repeats)).toEqual([null, 1, 1]);
  expect(once.map((m) => m.copies[0]!.problems.some((p) => p.includes('already in record 1')))).toEqual([
    false,
    true,
    false,
  ]);
  expect(await match(rows, store)).toEqual(once);
});

test('a record is paired by hand with one that no rule found', async () => {
  const id = await deliver('lyngby-exchange.xml');
  const row = (await page(id, 'add')).rows[0]!;
  const to = { incoming: [row.id], decision: 'merge', target: 3 };
  expect((await cataloguer('POST', `/deliveries/${id}/decisions`, to)).status).toBe(200);
  const paired = await detail(id, row.id);
  expect([paired.target, paired.held.map((h) => h.id)]).toEqual([3, expect.arrayContaining([3])]);
  const gone = await cataloguer<Problem>('POST', `/deliveries/${id}/decisions`, { ...to, target: 999_999 });
  expect([gone.status, gone.body.detail]).toEqual([422, 'There is no record 999999 in the catalogue.']);
});

test('sheets and rolls: only the head keeps them, codes must be on their lists, a roll in use stays', async () => {
  const sheets = (await cataloguer<SheetRow[]>('GET', '/supplier-sheets')).body;
  expect(sheets.map((s) => s.sheet.name)).toEqual(['Reedling Library Supply', 'Tallow & Pike']);
  const sheet = { ...SHEETS[0]!, name: 'Third', files: ['third*'], organisations: [] };
  expect((await cataloguer('POST', '/supplier-sheets', { sheet })).status).toBe(403);
  const wrong = await head<Problem>('POST', '/supplier-sheets', {
    sheet: { ...sheet, defaults: { ...sheet.defaults, branch: 'mr', location: 'OPEN' } },
  });
  expect(wrong.status).toBe(422);
  expect(JSON.stringify(wrong.body)).toContain('“mr” is not a branch here. Nearest: MR (Millrace)');
  const made = (await head<{ id: number }>('POST', '/supplier-sheets', { sheet })).body;
  const changed = await head('PUT', `/supplier-sheets/${made.id}`, {
    version: 1,
    sheet: { ...sheet, name: 'Fourth' },
  });
  expect(changed.status).toBe(200);
  expect((await head('POST', `/supplier-sheets/${made.id}/remove`, { version: 1 })).status).toBe(409);
  expect((await head('POST', `/supplier-sheets/${made.id}/remove`, { version: 2 })).status).toBe(200);

  const rolls = (await cataloguer<RollRow[]>('GET', '/label-rolls')).body;
  const reedling = rolls.find((r) => r.roll.supplier)!;
  expect(reedling).toMatchObject({
    counts: { all: 600, used: 0, spoiled: 0, left: 600, passed: 0, isLow: false },
    next: rollNumber(SHELF_READY, SHELF_READY.from),
  });
  const used = await head<Problem>('POST', `/label-rolls/${reedling.id}/remove`, { version: 1 });
  expect([used.status, used.body.detail]).toEqual([
    422,
    expect.stringContaining('“Reedling Library Supply” takes its numbers'),
  ]);
  const over = await head<Problem>('POST', '/label-rolls', {
    roll: { ...SHELF_READY, name: 'New', from: 800_500, to: 800_900 },
  });
  expect(JSON.stringify(over.body)).toContain('belong to the roll “Reedling shelf-ready”');
  const grown = await head('PUT', `/label-rolls/${reedling.id}`, {
    version: reedling.version,
    roll: { ...SHELF_READY, to: 800_900 },
  });
  expect(grown.status).toBe(200);
});

test('spoiled labels are given to no copy, by hand only on purpose; few left is told; a closed roll gives none', async () => {
  const first = 55_000_001;
  const serial = (n: number) => String(first + n - 1);
  const roll = {
    ...WORKROOM,
    ...{ name: 'Torn', from: first, to: first + 19, warnBelow: 16 },
    spoiled: [serial(1), `${serial(3)}-${serial(4)}`],
  };
  const number = (n: number) => rollNumber(roll, Number(serial(n)));
  const made = (await head<{ id: number }>('POST', '/label-rolls', { roll })).body;
  const now = async () =>
    (await cataloguer<RollRow[]>('GET', '/label-rolls')).body.find((r) => r.id === made.id)!;
  expect(await now()).toMatchObject({ counts: { all: 20, spoiled: 3, left: 17, isLow: false } });
  const several = (n: number) =>
    cataloguer<Problem>('POST', '/copies/several', {
      ...{ record: 3, roll: made.id },
      rows: Array.from({ length: n }, () => ({
        ...{ branch: 'MR', location: 'OPEN', scheme: 'dewey', class: '746.41', type: 'BK' },
      })),
    });
  const taken = await several(2);
  expect(taken.status).toBe(201);
  const numbers = async () =>
    (await t.running.services.store.find('copy', { where: { record: 3 } }))
      .map((c) => c.value.barcode)
      .filter((b) => serialIn(roll, b) !== null)
      .sort();
  expect(await numbers()).toEqual([number(2), number(5)]);
  expect(await now()).toMatchObject({
    counts: { used: 2, spoiled: 3, left: 15, passed: 0, isLow: true },
    next: number(6),
  });
  const change = async (more: object) => {
    const { version } = await now();
    return head<Problem>('PUT', `/label-rolls/${made.id}`, { version, roll: { ...roll, ...more } });
  };
  const usedOne = await change({ spoiled: [serial(5)] });
  expect([usedOne.status, usedOne.body.fields]).toEqual([
    422,
    [
      {
        field: 'spoiled',
        message: expect.stringMatching(/^1 number of this roll is used and cannot be spoiled: /) as string,
      },
    ],
  ]);
  const holding = (await t.running.services.store.find('holding', { where: { record: 3 } }))[0]!.id;
  const byHand = (keepBarcode: boolean) =>
    cataloguer<Problem>('POST', '/copies', { holding, barcode: number(4), type: 'BK', keepBarcode });
  const refused = await byHand(false);
  expect([refused.status, refused.body.detail]).toEqual([
    422,
    expect.stringContaining('is marked as spoiled'),
  ]);
  expect((await byHand(true)).status).toBe(201);
  expect(await now()).toMatchObject({ counts: { used: 3, spoiled: 2, left: 15, passed: 0 } });
  // The spoiled one was given on purpose, and does not stand in the way of other changes.
  expect((await change({ note: 'Top drawer' })).status).toBe(200);
  expect(
    (await change({ spoiled: [serial(1), serial(3)], isClosed: true, note: ' Top drawer ' })).status,
  ).toBe(200);
  expect(await now()).toMatchObject({
    roll: { note: 'Top drawer', isClosed: true },
    counts: { used: 3, left: 15, isLow: false },
    next: null,
  });
  const none = await several(1);
  expect([none.status, none.body.detail]).toEqual([422, 'The label roll “Torn” is closed.']);
});

test('a number of a reserved roll is for that supplier’s copies; the head may overrule, which is told', async () => {
  const { from } = SHELF_READY;
  const [one, two] = [rollNumber(SHELF_READY, from + 500), rollNumber(SHELF_READY, from + 501)];
  const holding = (await t.running.services.store.find('holding', { where: { record: 3 } }))[0]!.id;
  const add = (ask: Ask, barcode: string, keepBarcode: boolean) =>
    ask<Problem & { entry: number; id: number; sentence: string }>('POST', '/copies', {
      ...{ holding, barcode, type: 'BK', keepBarcode },
    });
  for (const [ask, keep] of [
    [cataloguer, false],
    [cataloguer, true],
    [head, false],
  ] as const) {
    const refused = await add(ask, one, keep);
    expect([refused.status, refused.body.detail]).toEqual([
      422,
      expect.stringMatching(/label roll “Reedling shelf-ready”, which is reserved for Reedling/),
    ]);
  }
  const kept = await add(head, one, true);
  expect([kept.status, kept.body.sentence]).toEqual([
    201,
    expect.stringMatching(/; its barcode is from the label roll “Reedling shelf-ready”, which is reserved$/),
  ]);
  const changed = await head<{ sentence: string }>('PUT', `/copies/${kept.body.id}`, {
    ...{ version: 1, barcode: two, keepBarcode: true },
  });
  expect(changed.body.sentence).toMatch(/its barcode was .*; its barcode is from the label roll/);
  const supplied = await cataloguer<{ sentence: string }>('POST', '/copies', {
    ...{ holding, barcode: one, type: 'BK', supplier: 'RLS' },
  });
  expect([supplied.status, supplied.body.sentence]).toEqual([201, expect.not.stringContaining('reserved')]);
});

test('a label that was given up comes again in a delivery only on purpose, also where it was given up meanwhile', async () => {
  const id = await deliver('reedling-shelf-ready.mrc');
  const { rows } = await page(id);
  const one = rows.find((r) => r.copyProblems === 0)!;
  const leaveOut = rows.filter((r) => r !== one).map((r) => r.id);
  const barcodeOf = async (n: number) => (await detail(id, n)).proposedCopies[0]!.barcode;
  const { id: roll, version } = (await cataloguer<RollRow[]>('GET', '/label-rolls')).body.find(
    (r) => r.roll.name === SHELF_READY.name,
  )!;
  const serial = serialIn(SHELF_READY, await barcodeOf(one.id))!;
  const torn = { ...SHELF_READY, spoiled: [String(serial)] };
  expect((await head('PUT', `/label-rolls/${roll}`, { version, roll: torn })).status).toBe(200);
  // Read before, accepted now: it is looked at again.
  const accepted = await run('POST', `/deliveries/${id}/accept`, { leaveOut });
  expect(accepted.message).toContain('1 record stayed in the delivery');
  expect((await summary(id)).accepted).toBe(0);
  const path = `/deliveries/${id}/incoming/${one.id}`;
  const put = async (keepBarcode: boolean) => {
    const now = await detail(id, one.id);
    const [copy, ...more] = now.proposedCopies;
    const copies = [{ ...copy, ...(keepBarcode && { keepBarcode }) }, ...more];
    expect((await cataloguer('PUT', path, { version: now.version, copies })).status).toBe(200);
    return (await detail(id, one.id)).proposedCopies[0]!;
  };
  expect((await put(false)).problems).toEqual([expect.stringContaining('is marked as spoiled')]);
  expect(await put(true)).toMatchObject({ problems: [], keepBarcode: true });
  expect((await run('POST', `/deliveries/${id}/accept`, { leaveOut })).message).toMatch(/^Accepted 1 /);
  await run('POST', `/deliveries/${id}/take-back`);
  const untorn = { version: version + 1, roll: SHELF_READY };
  expect((await head('PUT', `/label-rolls/${roll}`, untorn)).status).toBe(200);
});

test('several copies and brief records take a reserved number where the head means it, told before and after', async () => {
  const { from } = SHELF_READY;
  const [one, two] = [rollNumber(SHELF_READY, from + 510), rollNumber(SHELF_READY, from + 511)];
  const taken = (await t.running.services.store.find('copy', { limit: 1 }))[0]!.value.barcode;
  const row = { branch: 'MR', location: 'OPEN', scheme: 'own', class: 'LONG', item: '7', type: 'BK' };
  const several = (ask: Ask, barcodes: string[], keepBarcodes: boolean, path = '/review') =>
    ask<Problem & Review & { sentence: string }>('POST', `/copies/several${path}`, {
      ...{ record: 3, keepBarcodes, rows: barcodes.map((barcode) => ({ ...row, barcode })) },
    });
  const mayBe = ({ body }: { body: Problem }) => body.fields?.map((f) => f.overrulable ?? false);
  expect(mayBe(await several(cataloguer, [one], true))).toEqual([false]);
  expect(mayBe(await several(head, [one, 'odd form'], false))).toEqual([true, true]);
  // What another copy has is nobody's to give.
  expect(mayBe(await several(head, [taken], true))).toEqual([false]);
  expect((await several(head, [one], true)).body.consequences).toContain(
    'Numbers of the label roll “Reedling shelf-ready” are taken though it is reserved.',
  );
  const done = await several(head, [one], true, '');
  expect([done.status, done.body.sentence]).toEqual([
    201,
    expect.stringMatching(/; barcodes are from the label roll “Reedling shelf-ready”, though reserved$/),
  ]);
  const brief = (ask: Ask, keepBarcode: boolean) =>
    ask<Problem & { sentence: string }>('POST', '/records/brief', {
      ...{ title: 'Withies for the long table', class: '746.41', branch: 'MR', location: 'OPEN', type: 'BK' },
      ...{ barcode: two, keepBarcode },
    });
  expect(mayBe(await brief(cataloguer, true))).toEqual([false]);
  expect(mayBe(await brief(head, false))).toEqual([true]);
  const made = await brief(head, true);
  expect([made.status, made.body.sentence]).toEqual([
    201,
    expect.stringMatching(/; its barcode is from the label roll “Reedling shelf-ready”, which is reserved$/),
  ]);
});

test('a roll of our own may be meant for branches and types: whoever gives its numbers to other copies is told before', async () => {
  const roll = {
    ...WORKROOM,
    name: 'Kit labels',
    from: 950_000,
    to: 950_100,
    branches: ['HB'],
    types: ['KT'],
  };
  const unknown = await head<Problem>('POST', '/label-rolls', { roll: { ...roll, branches: ['XX'] } });
  expect(unknown.body.fields?.[0]?.field).toBe('branches');
  expect((await head('POST', '/label-rolls', { roll })).status).toBe(200);
  const review = async (branch: string, location: string, type: string) => {
    const row = { branch, location, scheme: 'own', class: 'KIT', item: '9', type };
    const rows = [0, 1].map((n) => ({ ...row, barcode: rollNumber(roll, roll.from + n) }));
    return (await cataloguer<Review>('POST', '/copies/several/review', { record: 3, rows })).body
      .consequences;
  };
  expect(await review('HB', 'CAGE', 'KT')).toEqual(['1 new holding will be made.']);
  expect(await review('HB', 'CAGE', 'BK')).toContain(
    '2 barcodes are of the label roll “Kit labels”, which is meant for other copies: Hallow Barn; Kit.',
  );
});

test('a roll whose numbers end in a check character of Code 39 gives just these; true and false stand for modulo 10 and none', async () => {
  const own = {
    ...WORKROOM,
    name: 'By Code 39',
    prefix: 'W-',
    from: 794,
    to: 799,
    length: 7,
    check: 'mod43',
  };
  const { id } = (await head<{ id: number }>('POST', '/label-rolls', { roll: own })).body;
  const rolls = async () => (await cataloguer<RollRow[]>('GET', '/label-rolls')).body;
  const now = async () => (await rolls()).find((r) => r.id === id)!;
  expect(await now()).toMatchObject({ roll: { check: 'mod43' }, next: 'W-07942' });
  const rows = Array.from({ length: 2 }, () => ({
    ...{ branch: 'MR', location: 'OPEN', scheme: 'dewey', class: '746.41', type: 'BK' },
  }));
  const { value: house, version } = (await head<SetUp>('GET', '/set-up')).body.house;
  expect((await head('PUT', '/set-up/house', { ...house, version, barcodes: [] })).status).toBe(200);
  const taken = await cataloguer('POST', '/copies/several', { record: 3, roll: id, rows });
  expect(taken.status).toBe(201);
  expect(await now()).toMatchObject({ counts: { used: 2, left: 4 }, next: 'W-07964' });
  expect((await rolls()).find((r) => r.roll.name === WORKROOM.name)?.roll.check).toBe('mod10');
  const wrong = await head<Problem>('POST', '/label-rolls', {
    roll: { ...own, name: 'Other', check: 'mod7' },
  });
  expect([wrong.status, wrong.body.fields?.[0]?.field]).toEqual([422, 'roll.check']);
});
