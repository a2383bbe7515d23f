import type {
  CopyList,
  CopyListRow,
  Done,
  JobState,
  LocalFieldRow,
  Problem,
  RecordDetail,
  Review,
} from '@osier/contract';
import { parse } from 'papaparse';
import { localOf } from '@osier/core/holdings';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const fields = async () => (await assistant!<LocalFieldRow[]>('GET', '/local-fields?counted=yes')).body;
const named = async (name: string) => (await fields()).find((f) => f.field.name === name)!;
const list = async (query: string) => (await cataloguer!<CopyList & Problem>('GET', `/copies?${query}`)).body;
const all = async (query: string) => {
  const rows: CopyListRow[] = [];
  for (let after: string | null = ''; after !== null;) {
    const page: CopyList = await list(`${query}&after=${encodeURIComponent(after)}`);
    rows.push(...page.rows);
    after = page.next;
  }
  return rows;
};
const ids = (rows: readonly CopyListRow[]) => rows.map((r) => r.id).sort((a, b) => a - b);
const undo = async (entry: number) => (await head!('POST', `/daybook/${entry}/undo`, {})).status;

test('local fields tell how many copies have something in them, and find those copies, all that hold it and no other', async () => {
  const rows = await all('');
  for (const { id, values, field } of await fields()) {
    const having = rows.filter((r) => localOf(r, id) !== '');
    expect([field.name, values]).toEqual([field.name, having.length]);
    expect(values).toBeGreaterThan(5);
    expect(ids(await all(`local=${id}`))).toEqual(ids(having));
    const some = localOf(having[3]!, id);
    const part = field.form === 'choice' ? some.toUpperCase() : some.slice(1, 7).toLowerCase();
    const meant = (value: string) =>
      field.form === 'choice' ? value === some : value.toLowerCase().includes(part);
    expect(ids(await all(`local=${id}&localValue=${encodeURIComponent(part)}`))).toEqual(
      ids(rows.filter((r) => meant(localOf(r, id)))),
    );
    expect(ids(await all(`q=${encodeURIComponent(`copyfield = "${some}"`)}`))).toEqual(
      ids(rows.filter((r) => r.local.some((l) => l.value === some))),
    );
  }
  const binding = await named('Binding');
  expect(await list(`local=${binding.id}&localValue=glued`)).toMatchObject({
    fields: [{ field: 'localValue', message: expect.stringContaining('is one of') as string }],
  });
  expect(await list('local=999')).toMatchObject({ fields: [{ field: 'local' }] });
});

test('values are counted only where that is asked for', async () => {
  const rows = (await assistant!<LocalFieldRow[]>('GET', '/local-fields')).body;
  expect(rows.map((r) => r.values)).toEqual(rows.map(() => null));
});

test('values that differ in signs alone are told apart', async () => {
  const make = async (name: string, form: string, choices: string[]) =>
    (
      await head!<Done & { id: number }>('POST', '/local-fields', {
        field: { name, form, choices, types: [] },
      })
    ).body;
  const [grade, degrees, remark] = [
    await make('Grade', 'choice', ['A+', 'A-']),
    await make('Degrees', 'number', []),
    await make('Remark', 'text', []),
  ];
  const [one, two] = await all('type=BK&status=available');
  const put = async (row: CopyListRow, values: readonly string[]) => {
    const { holdings } = (await cataloguer!<RecordDetail>('GET', `/records/${row.record}`)).body;
    const { version } = holdings.flatMap((h) => h.copies).find((c) => c.id === row.id)!;
    const local = [grade, degrees, remark].map(({ id }, i) => ({ field: id, value: values[i]! }));
    expect((await cataloguer!('PUT', `/copies/${row.id}`, { version, local })).status).toBe(200);
  };
  await put(one!, ['A+', '-3', '?']);
  await put(two!, ['A-', '3', 'torn?']);
  const found = async ({ id }: { id: number }, value: string) =>
    ids(await all(`local=${id}&localValue=${encodeURIComponent(value)}`));
  expect([await found(grade, 'a+'), await found(grade, 'A-')]).toEqual([[one!.id], [two!.id]]);
  expect([await found(degrees, '-3'), await found(degrees, '3.0')]).toEqual([[one!.id], [two!.id]]);
  expect([await found(remark, '?'), await found(remark, 'TORN')]).toEqual([
    [one!.id, two!.id].sort((a, b) => a - b),
    [two!.id],
  ]);
  for (const { entry } of [grade, degrees, remark].toReversed()) expect(await undo(entry)).toBe(200);
});

test('a copy has what is typed into its fields, in the form in which it is kept; what is wrong is told at its place', async () => {
  const [givenBy, binding, counted] = await fields();
  const copy = (await all('type=BK&status=available')).find((r) => r.local.length === 0)!;
  const held = async () => {
    const { holdings } = (await cataloguer!<RecordDetail>('GET', `/records/${copy.record}`)).body;
    return holdings.flatMap((h) => h.copies).find((c) => c.id === copy.id)!;
  };
  const put = async (local: { field: number; value: string }[]) =>
    cataloguer!<Done & Problem>('PUT', `/copies/${copy.id}`, { version: (await held()).version, local });
  const done = await put([
    { field: binding!.id, value: 'rebound' },
    { field: givenBy!.id, value: '  <b>Osmere</b> Ferry ' },
  ]);
  expect(done.status).toBe(200);
  expect((await held()).copy.local).toEqual([
    { field: givenBy!.id, value: '<b>Osmere</b> Ferry' },
    { field: binding!.id, value: 'Rebound' },
  ]);
  for (const [field, value, said] of [
    [binding!.id, 'glued', /is one of/],
    [counted!.id, '2026-01-02', /not a field of copies of type BK/],
    [999, 'x', /no longer there/],
  ] as const)
    expect((await put([{ field, value }])).body.fields).toEqual([
      { field: 'local[0].value', message: expect.stringMatching(said) as string },
    ]);
  expect((await put([{ field: binding!.id, value: '' }])).status).toBe(200);
  expect((await held()).copy.local).toEqual([{ field: givenBy!.id, value: '<b>Osmere</b> Ferry' }]);
  // A new copy has them from the beginning.
  const added = await cataloguer!<Done & { id: number }>('POST', '/copies', {
    holding: (await held()).copy.holding,
    barcode: '31204007012342',
    keepBarcode: true,
    type: 'BK',
    local: [{ field: givenBy!.id, value: 'Estate' }],
  });
  expect(added.status).toBe(201);
  expect((await list('barcode=31204007012342')).rows[0]!.local).toEqual([
    { field: givenBy!.id, value: 'Estate' },
  ]);
});

test('many copies are changed in a local field, and are as they were when that is undone', async () => {
  const { id } = await named('Given by');
  const search = { branch: 'HB', type: 'PT' };
  const before = await all('branch=MR&type=PT');
  const body = {
    ...{ ...search, branch: 'MR' },
    edits: [{ part: 'local', field: id, how: 'set', value: 'Mill sale' }],
  };
  const review = (await cataloguer!<Review>('POST', '/copies/change/review', body)).body;
  expect(review.sentence).toContain('“Given by” to Mill sale');
  expect(JSON.stringify(review.rows[0]!.after)).toContain('Given by: Mill sale');
  const begun = (await cataloguer!<JobState>('POST', '/copies/change', { ...body, token: review.token }))
    .body;
  const job = await t.jobDone(cataloguer!, begun.id);
  const after = await all('branch=MR&type=PT');
  expect(after.every((r) => localOf(r, id) === 'Mill sale')).toBe(true);
  expect((await named('Given by')).values).toBeGreaterThanOrEqual(after.length);
  expect(await undo(job.entry!)).toBe(200);
  expect(await all('branch=MR&type=PT')).toEqual(before);
  const wrong = await cataloguer!<Problem>('POST', '/copies/change/review', {
    ...body,
    edits: [{ part: 'local', how: 'set', value: 'x' }],
  });
  expect([wrong.status, wrong.body.fields?.[0]?.field]).toEqual([422, 'edits[0].field']);
});

test('exports have them: a column each in the table, notes for the staff in the record', async () => {
  const { id } = await named('Pieces counted on');
  const file = async (as: string) =>
    Buffer.from(
      String((await cataloguer!<string>('GET', `/copies/export?local=${id}&as=${as}`)).body),
    ).toString();
  const table = parse<Record<string, string>>((await file('csv')).replace(/^\ufeff/, ''), {
    ...{ header: true, skipEmptyLines: true },
  }).data;
  const rows = await all(`local=${id}`);
  expect(table.map((r) => r['Pieces counted on']).sort()).toEqual(rows.map((r) => localOf(r, id)).sort());
  expect(await file('marcxml')).toContain(
    `<subfield code="x">Pieces counted on: ${localOf(rows[0]!, id)}</subfield>`,
  );
});

test('a local field that is deleted is seen nowhere; when that is undone, what copies have in it is back', async () => {
  const row = await named('Binding');
  const before = await all(`local=${row.id}`);
  const gone = (await head!<Done>('POST', `/local-fields/${row.id}/remove`, { version: row.version })).body;
  expect(gone.sentence).toBe(`Deleted the local field “Binding”, with its values in ${before.length} copies`);
  expect((await list(`local=${row.id}`)).fields?.[0]?.field).toBe('local');
  expect((await all('')).some((r) => localOf(r, row.id) !== '')).toBe(false);
  expect((await list(`q=${encodeURIComponent('copyfield = rebound')}`)).total).toBe(0);
  // A field that is made meanwhile has a number of its own.
  const made = await head!<Done & { id: number }>('POST', '/local-fields', {
    field: { name: 'Shelf mark', form: 'text', choices: [], types: [] },
  });
  expect([made.status, made.body.id === row.id]).toEqual([201, false]);
  expect(await undo(gone.entry)).toBe(200);
  expect(await all(`local=${row.id}`)).toEqual(before);
});

test('what a local field is, is checked; what it holds stays while copies have something in it; only the head sets up', async () => {
  const row = await named('Given by');
  const field = { ...row.field, form: 'number' };
  const put = (ask: Ask, body: object) =>
    ask<Problem>('PUT', `/local-fields/${row.id}`, { version: row.version, field: body });
  expect((await put(head!, field)).body.fields).toEqual([
    { field: 'form', message: expect.stringMatching(/^\d+ copies have something in it/) as string },
  ]);
  expect((await put(head!, { ...row.field, name: 'Binding' })).body.fields?.[0]?.field).toBe('name');
  expect((await put(head!, { ...row.field, types: ['XX'] })).body.fields?.[0]?.field).toBe('types');
  expect((await put(cataloguer!, row.field)).status).toBe(403);
  const wrong = { name: 'X', form: 'choice', choices: ['one'], types: [] };
  expect((await head!<Problem>('POST', '/local-fields', { field: wrong })).body.fields?.[0]?.field).toBe(
    'choices',
  );
  expect((await head!('POST', '/local-fields', { field: { ...wrong, form: 'colour' } })).status).toBe(422);
});
