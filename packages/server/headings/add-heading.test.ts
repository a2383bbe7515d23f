import type { HeadingDetail, HeadingPage, Problem } from '@osier/contract';
import { controlValue, lineOf } from '@osier/core/marc';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const add = (body: object, who = cataloguer!) =>
  who<{ id: number; entry: number } & Problem>('POST', '/headings', {
    ...{ kind: 'personal', source: 'Quill baskets, 1931, title page' },
    ...body,
  });
const read = async (id: number) => (await cataloguer!<HeadingDetail>('GET', `/headings/${id}`)).body;
const refusal = async (body: object) => {
  const { status, body: problem } = await add(body);
  return [status, problem.fields?.[0]?.field, problem.detail];
};

test('a heading is made with its authority record: found by its other forms, established, undone', async () => {
  const before = await catalogueOf(t.running);
  const made = await add({
    form: 'Quillfeather, Ossian,$d1871-1944.',
    seeFroms: ['Quillfeather, O.', '$aOssian Quill'],
  });
  expect(made.status).toBe(201);
  const heading = await read(made.body.id);
  expect(heading.text).toBe('Quillfeather, Ossian, 1871-1944');
  expect(heading.marc.fields.filter((f) => 'subfields' in f).map(lineOf)).toEqual([
    '100 1# $aQuillfeather, Ossian,$d1871-1944',
    '400 1# $aQuillfeather, O.',
    '400 0# $aOssian Quill',
    '670 ## $aQuill baskets, 1931, title page',
  ]);
  // MARC 21 Authority: 008 has 40 positions; 09 established heading, 32 one person, 33 fully established.
  const fixed = controlValue(heading.marc, '008')!;
  expect([fixed.length, fixed[9], fixed[11], fixed[14], fixed[29], fixed[32], fixed[33]].join(' ')).toBe(
    '40 a a a a a a',
  );
  expect([heading.marc.leader[5], heading.marc.leader[6]]).toEqual(['n', 'z']);
  // It has no number until somebody gives it one.
  expect(heading.findings.map((f) => f.rule)).toEqual(['control-number']);
  const found = (await assistant!<HeadingPage>('GET', '/headings?q=ossian')).body.rows;
  expect(found.map((r) => r.id)).toEqual([made.body.id]);
  const lists = async (only: string) =>
    (await cataloguer!<HeadingPage>('GET', `/headings?q=quillfeather&only=${only}`)).body.rows.length;
  expect([await lists('unestablished'), await lists('without-records')]).toEqual([0, 1]);
  expect((await cataloguer!('POST', `/daybook/${made.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('a topic belongs to the vocabulary that is said, and is another heading in each', async () => {
  const one = await add({ kind: 'topic', form: 'Quill baskets', vocabulary: 'MeSH' });
  const two = await add({ kind: 'topic', form: 'Quill baskets', vocabulary: 'local-osmere' });
  const three = await add({ kind: 'topic', form: '$aQuill baskets$zOsmere' });
  expect([one.status, two.status, three.status]).toEqual([201, 201, 201]);
  expect((await read(one.body.id)).vocabulary).toBe('mesh');
  expect((await read(two.body.id)).vocabulary).toBe('local-osmere');
  expect((await read(three.body.id)).text).toBe('Quill baskets — Osmere');
  expect(controlValue((await read(one.body.id)).marc, '008')![11]).toBe('c');
  const place = await add({ kind: 'place', form: 'Quillmere' });
  expect((await read(place.body.id)).marc.fields.some((f) => f.tag === '151')).toBe(true);
  const meeting = await add({ kind: 'meeting', form: '$aCongress of Quills$n(2nd :$d1931 :$cOsmere)' });
  expect((await read(meeting.body.id)).kind).toBe('meeting');
});

test('what makes no heading is told at its place, and nothing is made', async () => {
  const before = await catalogueOf(t.running);
  const rows = (await cataloguer!<HeadingPage>('GET', '/headings?kind=personal')).body.rows;
  const [used] = rows.filter((r) => r.records > 0);
  expect(await refusal({ form: '' })).toEqual([422, 'form', expect.any(String)]);
  expect(await refusal({ form: 'Wren, Ada', source: ' ' })).toEqual([422, 'source', expect.any(String)]);
  expect(await refusal({ form: '$d1931' })).toEqual([422, 'form', 'The form of a heading begins with $a.']);
  expect(await refusal({ form: 'Wren, Ada$zOsmere' })).toEqual([
    422,
    'form',
    '$z is no part of a heading in 100.',
  ]);
  expect(await refusal({ kind: 'topic', form: 'Wrens -- Osmere' })).toEqual([
    422,
    'form',
    expect.stringContaining('behind $x, $y, $z or $v'),
  ]);
  expect(await refusal({ form: '...' })).toEqual([422, 'form', 'The form has no letters or digits.']);
  expect(await refusal({ form: used!.text })).toEqual([
    422,
    'form',
    expect.stringContaining(`(heading ${used!.id}) already`),
  ]);
  expect(await refusal({ form: 'Wren, Ada', seeFroms: ['Wren, Ada.'] })).toEqual([
    422,
    'seeFroms',
    expect.stringContaining('the form of the heading itself'),
  ]);
  expect(await refusal({ form: 'Wren, Ada', seeFroms: [used!.text] })).toEqual([
    422,
    'seeFroms',
    expect.stringContaining(`is heading ${used!.id} here`),
  ]);
  expect(await refusal({ form: 'Wren, Ada', seeFroms: ['$d1931'] })).toEqual([
    422,
    'seeFroms',
    expect.any(String),
  ]);
  expect((await add({ form: 'Wren, Ada' }, assistant)).status).toBe(403);
  expect((await add({ form: 'Wren, Ada', kind: 'colour' })).status).toBe(422);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('one that looks like an established heading, or is its see-from, is asked about first', async () => {
  const first = await add({ form: 'Thistlewick, Marjorie,$d1890-1961', seeFroms: ['Thistle, Marjorie'] });
  expect(first.status).toBe(201);
  await t.running.services.background.idle();
  expect(await refusal({ form: 'Thistle, Marjorie' })).toEqual([
    422,
    'form',
    expect.stringContaining(`is a see-from of “Thistlewick, Marjorie, 1890-1961”`),
  ]);
  const near = { form: 'Thistlewik, Marjorie,$d1890-1961' };
  expect(await refusal(near)).toEqual([
    422,
    'withErrors',
    expect.stringContaining(`(heading ${first.body.id})`),
  ]);
  expect((await add({ ...near, withErrors: true })).status).toBe(201);
  // Two people at once: one of them is told.
  const twice = await Promise.all([1, 2].map(() => add({ form: 'Oxlip, Ned,$d1902-' })));
  const statuses = twice.map((a) => a.status).sort();
  expect(statuses[0]).toBe(201);
  expect([409, 422]).toContain(statuses[1]);
});
