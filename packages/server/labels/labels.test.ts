// Codes are read back by zbarimg, places are measured on the page as poppler draws it (pdftoppm, pdftotext).
import {
  LAST_PRINT,
  type Done,
  type LabelSheetRow,
  type LabelsPreview,
  type Problem,
  type RecordDetail,
  type WithdrawalList,
} from '@osier/contract';
import { LABEL_CODES, LABEL_SHEETS, type LabelSheet } from '@osier/core/labels';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
const folder = mkdtempSync(join(tmpdir(), 'osier-labels-'));
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(async () => {
  await t.stop();
  rmSync(folder, { recursive: true });
});
const [SPINES, CODES, POCKETS] = LABEL_SHEETS as readonly [LabelSheet, LabelSheet, LabelSheet];

async function pdfOf(body: object, name: string): Promise<string> {
  const { headers } = await cataloguer('POST', '/sign-in/demo', { person: 2 });
  const cookie = (headers.get('set-cookie') ?? '').split(';')[0]!;
  const answer = await fetch(`${t.running.address}/api/labels/pdf`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify(body),
  });
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  const file = join(folder, `${name}.pdf`);
  writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
  return file;
}
const previewOf = async (body: object) =>
  (await cataloguer<LabelsPreview>('POST', '/labels/preview', body)).body;

/** The first page in grey, ten dots a millimetre. */
function drawn(file: string) {
  execFileSync('pdftoppm', [
    '-r',
    '254',
    '-gray',
    '-f',
    '1',
    '-l',
    '1',
    '-singlefile',
    file,
    join(folder, 'page'),
  ]);
  const bytes = readFileSync(join(folder, 'page.pgm'));
  const [head, width, height] = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(bytes.subarray(0, 40).toString('latin1'))!;
  const at = head.length;
  const isBlack = (x: number, y: number) => bytes[at + y * Number(width) + x]! < 128;
  return { width: Number(width), height: Number(height), isBlack };
}
const firstCopies = async (count: number) =>
  (await t.running.services.store.find('copy', { order: [['id', 'ASC']], limit: count })).map((c) => c.id);

test('labels of what a search finds stand in the order of the shelf; more than 1,000 are told', async () => {
  const store = t.running.services.store;
  const wanted = await store.rows<{ id: number }>(
    "SELECT id FROM copies WHERE status = 'lost' AND record IS NOT NULL ORDER BY shelf_key, id",
  );
  const order = { kind: 'spine', sheet: SPINES };
  const { labels, count } = await previewOf({ ...order, found: { status: 'lost' } });
  expect(count).toBe(wanted.length);
  expect(labels.map((l) => l.copy)).toEqual(wanted.slice(0, labels.length).map((c) => c.id));
  const many = await cataloguer<Problem>('POST', '/labels/preview', { ...order, found: {} });
  expect([many.status, JSON.stringify(many.body)]).toEqual([
    422,
    expect.stringContaining('narrow the search'),
  ]);
  const none = await cataloguer('POST', '/labels/preview', { ...order, found: { q: 'title = zzzz' } });
  expect(none.status).toBe(422);
});

test.each(LABEL_CODES)(
  'every barcode printed as %s is read back',
  async (code) => {
    const copies = await firstCopies(30);
    // Code 39 and Codabar of fourteen digits need a wider label.
    const sheet = code === 'code128' ? CODES : { ...POCKETS, height: 32, rows: 7 };
    const body = { kind: 'barcode', code, sheet, copies };
    const { problems, pages, count } = await previewOf(body);
    expect([problems, pages, count]).toEqual([[], code === 'code128' ? 2 : 3, 30]);
    const file = await pdfOf(body, code);
    execFileSync('pdftoppm', ['-r', '300', '-png', file, join(folder, code)]);
    const read = Array.from({ length: pages }, (_, n) =>
      execFileSync('zbarimg', ['--raw', '-q', join(folder, `${code}-${n + 1}.png`)], { encoding: 'utf8' })
        .trim()
        .split('\n'),
    ).flat();
    const barcodes = (await t.running.services.store.readMany('copy', copies)).map((c) => c.value.barcode);
    const bare = (text: string) => (code === 'codabar' ? text.replace(/^A|B$/g, '') : text);
    expect(read.map(bare).sort()).toEqual([...barcodes].sort());
  },
  60_000,
);

test('labels stand where the sheet says, to a fifth of a millimetre, from the n-th on', async () => {
  const body = { kind: 'barcode', sheet: CODES, copies: await firstCopies(4), startAt: 5 };
  const { labels } = await previewOf(body);
  const page = drawn(await pdfOf(body, 'places'));
  expect([page.width / 10, page.height / 10].map(Math.round)).toEqual([210, 297]);
  expect(labels.map((l) => [l.x, l.y])).toEqual(
    [4, 5, 6, 7].map((at) => [
      CODES.left + (at % 3) * (CODES.width + CODES.gapX),
      CODES.top + Math.floor(at / 3) * (CODES.height + CODES.gapY),
    ]),
  );
  for (const { bars, x } of labels) {
    const [first, last] = [bars[0]!, bars.at(-1)!];
    const y = Math.round((first.y + first.height / 2) * 10);
    const row = Array.from({ length: Math.round(CODES.width * 10) }, (_, i) => Math.round(x * 10) + i).filter(
      (px) => page.isBlack(px, y),
    );
    expect(Math.abs(row[0]! / 10 - first.x)).toBeLessThanOrEqual(0.2);
    expect(Math.abs((row.at(-1)! + 1) / 10 - (last.x + last.width))).toBeLessThanOrEqual(0.2);
    // The code is in the middle of its label, with the free space beside it that a scanner wants.
    expect(Math.abs(first.x - x - (x + CODES.width - last.x - last.width))).toBeLessThan(0.1);
    const column = Math.round((first.x + first.width / 2) * 10);
    const down = Array.from({ length: 320 }, (_, i) => Math.round(first.y * 10) - 10 + i).filter((py) =>
      page.isBlack(column, py),
    );
    expect(Math.abs(down[0]! / 10 - first.y)).toBeLessThanOrEqual(0.2);
  }
  // Nothing stands where the first four labels were used before.
  const used = Array.from({ length: CODES.width * 10 }, (_, i) => i + CODES.left * 10).some((px) =>
    page.isBlack(px, Math.round((CODES.top + 10) * 10)),
  );
  expect(used).toBe(false);
}, 60_000);

/** Every line of some labels is on the page where the preview has it, and within its label. */
function expectPrinted(file: string, labels: LabelsPreview['labels'], sheet: LabelSheet): void {
  const words = [
    ...execFileSync('pdftotext', ['-bbox', file, '-'], { encoding: 'utf8' }).matchAll(
      /<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</g,
    ),
  ].map(([, xMin, yMin, xMax, yMax, text]) => ({
    x: Number(xMin) * (25.4 / 72),
    y: Number(yMin) * (25.4 / 72),
    end: Number(xMax) * (25.4 / 72),
    low: Number(yMax) * (25.4 / 72),
    text,
  }));
  for (const label of labels)
    for (const line of label.texts) {
      const [first] = line.text.split(' ');
      const word = words.find(
        (w) => w.text === first && Math.abs(w.x - line.x) <= 0.2 && w.y < line.y && line.y < w.low + 0.2,
      );
      expect([line.text, word !== undefined]).toEqual([line.text, true]);
      expect(word!.end).toBeLessThanOrEqual(label.x + sheet.width);
      expect(line.y).toBeLessThanOrEqual(label.y + sheet.height);
    }
}

test('the lines of a spine are on the page as the preview has them, and each within its label', async () => {
  const record = (await cataloguer<RecordDetail>('GET', '/records/20')).body;
  const body = { kind: 'spine', sheet: SPINES, record: 20 };
  const { labels } = await previewOf(body);
  expect(labels).toHaveLength(record.holdings.flatMap((h) => h.copies).length);
  const file = await pdfOf(body, 'spines');
  expectPrinted(file, labels, SPINES);
}, 60_000);

test('letters of many scripts are printed; a sign that there is none for, a code that does not fit and a barcode of other characters are told', async () => {
  const { store } = t.running.services;
  const { holdings } = (await cataloguer<RecordDetail>('GET', '/records/21')).body;
  const { version } = (await cataloguer<{ house: { version: number } }>('GET', '/set-up')).body.house;
  const { value } = await store.house();
  await (
    await t.as(1)
  )('PUT', '/set-up/house', { ...value, version, barcodes: [] });
  const place = await cataloguer<{ id: number }>('POST', '/holdings', {
    ...{ record: 21, branch: 'MR', location: 'BENCH', scheme: 'own', class: 'Łódź Ωμέγα Жук', item: '語' },
  });
  const add = async (barcode: string, holding: number) =>
    (await cataloguer<{ id: number }>('POST', '/copies', { holding, type: 'BK', barcode })).body.id;
  const odd = await add('WICK 0001', place.body.id);
  const problems = async (body: object) =>
    (await previewOf({ sheet: SPINES, ...body })).problems.map((p) => p.message);
  expect(await problems({ kind: 'spine', copies: [odd] })).toEqual([
    'There is no sign for “語” in the fonts of labels.',
  ]);
  const text = execFileSync(
    'pdftotext',
    [await pdfOf({ kind: 'spine', sheet: SPINES, copies: [odd] }, 'scripts'), '-'],
    { encoding: 'utf8' },
  );
  expect(text).toContain('Łódź');
  expect(text).toContain('Ωμέγα');
  expect(text).toContain('Жук');
  const plain = await add('WICK0002', holdings[0]!.id);
  expect(
    await problems({ kind: 'barcode', code: 'code39', sheet: { ...SPINES, width: 25 }, copies: [plain] }),
  ).toEqual([expect.stringContaining('needs a label of')]);
  expect(await problems({ kind: 'barcode', code: 'codabar', sheet: CODES, copies: [plain] })).toEqual([
    expect.stringContaining('other characters'),
  ]);
});

test('what a list has withdrawn gets labels that say so, without a code; none for what was undone', async () => {
  const head = await t.as(1);
  const store = t.running.services.store;
  const some = await store.rows<{ barcode: string }>(
    "SELECT c.barcode FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.status = 'available' ORDER BY c.id LIMIT 40",
  );
  const { id } = (await head<{ id: number }>('POST', '/withdrawal-lists', { name: 'To mark', branch: 'MR' }))
    .body;
  await head('POST', `/withdrawal-lists/${id}/scans`, { codes: some.map((c) => c.barcode).reverse() });
  const order = { kind: 'withdrawn', sheet: SPINES, list: id };
  const refused = async (body: object) =>
    (await head<Problem>('POST', '/labels/preview', { ...order, ...body })).body.fields?.[0]?.field;
  expect(await refused({})).toBe('list');
  const { verdicts } = (await head<WithdrawalList>('GET', `/withdrawal-lists/${id}`)).body;
  const clear = verdicts.filter((v) => v.verdict === 'clear');
  expect(clear.length).toBeGreaterThan(3);
  const copies = clear.map((v) => v.candidate!.copyId);
  const done = await head<{ entry: number }>('POST', `/withdrawal-lists/${id}/withdraw`, { copies });
  expect(done.status).toBe(200);

  // The list may be called something else by now.
  const { version } = (await head<WithdrawalList>('GET', `/withdrawal-lists/${id}`)).body;
  const renamed = { version, name: 'Marked', branch: 'MR', reason: 'worn' };
  expect((await head('PUT', `/withdrawal-lists/${id}`, renamed)).status).toBe(200);
  const { labels, count, problems } = await previewOf(order);
  expect([count, problems]).toEqual([clear.length, []]);
  const on = new Date().toISOString().slice(0, 10);
  const inOrder = some
    .map((c) => c.barcode)
    .reverse()
    .filter((code) => clear.some((v) => v.code === code));
  expect(
    labels.map((l) => [l.barcode, l.texts[0]?.text, l.texts[1]?.text, l.texts.at(-1)?.text, l.bars]),
  ).toEqual(inOrder.map((code) => [code, 'WITHDRAWN', on, code, []]));
  expectPrinted(await pdfOf(order, 'withdrawn'), labels, SPINES);
  // On a label that is too low for it all, that is told.
  const low = { ...order, sheet: { ...SPINES, height: 12 } };
  expect((await previewOf(low)).problems).toHaveLength(clear.length);

  expect(await refused({ kind: 'spine' })).toBe('kind');
  expect(await refused({ list: undefined, record: 20 })).toBe('kind');
  expect((await head('POST', '/labels/preview', { ...order, list: 999_999 })).status).toBe(404);
  expect((await head('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await refused({})).toBe('list');
}, 60_000);

test('what cannot be printed is refused at its field', async () => {
  const ask = (body: object) =>
    cataloguer<Problem>('POST', '/labels/preview', { kind: 'spine', sheet: SPINES, ...body });
  expect((await ask({ record: 999_999 })).status).toBe(404);
  expect((await ask({})).body.fields?.[0]?.field).toBe('copies');
  expect((await ask({ copies: [] })).body.fields?.[0]?.field).toBe('copies');
  expect((await ask({ record: 20, startAt: 49 })).body.fields?.[0]).toEqual({
    field: 'startAt',
    message: 'The sheet has 48 labels.',
  });
  expect((await ask({ record: 20, sheet: { ...SPINES, columns: 5 } })).body.fields?.[0]?.field).toBe(
    'sheet.columns',
  );
  expect((await ask({ record: 20, sheet: { ...SPINES, width: -3 } })).status).toBe(422);
});

test('labels of what one has made since one’s last print: each copy once for each kind, nobody else’s, none that are gone', async () => {
  const other = await t.as(1);
  const order = { kind: 'spine', sheet: SPINES, since: LAST_PRINT };
  const made = async (ask: Ask, barcode: string) => {
    const { holdings } = (await ask<RecordDetail>('GET', '/records/21')).body;
    const copy = { holding: holdings[0]!.id, barcode, type: 'BK', keepBarcode: true };
    return (await ask<Done & { id: number }>('POST', '/copies', copy)).body;
  };
  const barcodes = async (body: object = order) => (await previewOf(body)).labels.map((l) => l.barcode);
  const [one, two] = [await made(cataloguer, '91204000000001'), await made(cataloguer, '91204000000002')];
  await made(other, '91204000000003');
  // A copy that is only changed was not made since.
  const { holdings } = (await cataloguer<RecordDetail>('GET', '/records/22')).body;
  const { id, version } = holdings[0]!.copies[0]!;
  await cataloguer('PUT', `/copies/${id}`, { version, note: 'Seen' });
  const mine = (await barcodes()).filter((b) => b.startsWith('91204'));
  expect(mine).toEqual(['91204000000001', '91204000000002']);
  expect(await barcodes()).not.toContain('91204000000003');
  await pdfOf(order, 'since');
  const none = await cataloguer<Problem>('POST', '/labels/preview', order);
  expect([none.status, none.body.fields]).toEqual([
    422,
    [
      {
        field: 'since',
        message:
          'You have made no copies since then. Copies that a job is still making come when it has ended.',
      },
    ],
  ]);
  // Labels of another kind are printed by themselves; an instant leads back to what was printed.
  expect((await barcodes({ ...order, kind: 'pocket' })).length).toBeGreaterThan(1);
  const again = { ...order, since: new Date(Date.now() - 3_600_000).toISOString() };
  expect(await barcodes(again)).toEqual(expect.arrayContaining(mine));
  await made(cataloguer, '91204000000004');
  expect(await barcodes()).toEqual(['91204000000004']);
  expect((await previewOf(order)).since).toMatch(/^\d{4}-\d\d-\d\dT/);
  await cataloguer('POST', `/daybook/${one.entry}/undo`, {});
  expect(await barcodes(again)).not.toContain('91204000000001');
  expect(await barcodes(again)).toContain(two.id ? '91204000000002' : '');
  expect((await cataloguer('POST', '/labels/preview', { ...order, since: 'lately' })).status).toBe(422);
});

test('copies that a job makes are printed when it has made all of them, none is passed over', async () => {
  const head = await t.as(1);
  const order = { kind: 'barcode', code: 'code39', sheet: SPINES, since: LAST_PRINT };
  const { holdings } = (await head<RecordDetail>('GET', '/records/23')).body;
  const holding = holdings[0]!.id;
  const make = (barcode: string) =>
    head<Done & { id: number }>('POST', '/copies', { holding, barcode, type: 'BK', keepBarcode: true });
  const early = (await make('92204000000001')).body;
  // The entry of that act is one that a job goes on adding to.
  const jobs = t.running.services.store.table('jobs');
  const job = { kind: 'x', title: 'x', state: 'running', person: 1, work: '{}', cursor: '{}' } as const;
  const rest = { done: 0, total: null, message: null, entry: early.entry, started: '', begun: 0 };
  await t.running.services.store.write((tx) => jobs.insert({ ...job, ...rest }, tx));
  await make('92204000000002');
  const barcodes = async () => {
    const { body } = await head<LabelsPreview & Problem>('POST', '/labels/preview', order);
    return body.labels?.map((l) => l.barcode).filter((b) => b.startsWith('92204')) ?? body.fields;
  };
  expect(await barcodes()).not.toContain('92204000000001');
  await t.running.services.store.write((tx) => jobs.update({ state: 'done' }, { kind: 'x' }, tx));
  expect(await barcodes()).toEqual(['92204000000001', '92204000000002']);
});

test('sheets of labels are kept under their names, changed, deleted, and all of it undone', async () => {
  const assistant = await t.as(3);
  const sheets = async () => (await assistant<LabelSheetRow[]>('GET', '/label-sheets')).body;
  const sheet = { ...SPINES, name: 'Wickmere spines', columns: 3 };
  const keep = (body: object, ask: Ask = cataloguer) =>
    ask<Done & { id: number } & Problem>('POST', '/label-sheets', body);
  const first = await keep({ sheet });
  expect([first.status, first.body.sentence]).toEqual([200, 'Saved the sheet of labels “Wickmere spines”']);
  expect((await keep({ sheet: { ...sheet, name: 'WICKMERE SPINES' } })).body.fields?.[0]?.field).toBe(
    'sheet.name',
  );
  expect((await keep({ sheet: { ...sheet, name: ' ' } })).body.fields?.[0]?.field).toBe('sheet.name');
  expect((await keep({ sheet: { ...sheet, name: 'Wide', columns: 9 } })).body.fields?.[0]?.field).toBe(
    'sheet.columns',
  );
  const [kept] = await sheets();
  expect(kept?.sheet).toEqual(sheet);
  const changed = await keep({ sheet: { ...sheet, rows: 10 }, id: kept!.id, version: kept!.version });
  expect([changed.status, (await sheets())[0]!.sheet.rows]).toEqual([200, 10]);
  expect((await keep({ sheet, id: kept!.id, version: kept!.version })).status).toBe(409);
  const gone = await cataloguer<Done>('POST', `/label-sheets/${kept!.id}/remove`, {
    version: (await sheets())[0]!.version,
  });
  expect(await sheets()).toEqual([]);
  await cataloguer('POST', `/daybook/${gone.body.entry}/undo`, {});
  expect((await sheets())[0]!.sheet.rows).toBe(10);
});
