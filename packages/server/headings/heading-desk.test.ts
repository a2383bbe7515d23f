import type {
  Done,
  HeadingDetail,
  JobState,
  LookAlikePage,
  MergedAnswer,
  Problem,
  RecordDetail,
  Review,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf } from '@osier/core/headings';
import type { Change } from '@osier/core/kinds';
import { field, type DataField, type MarcRecord } from '@osier/core/marc';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
  assistant = await t.as(3);
});
afterAll(() => t.stop());

const heading = async (id: number) => (await cataloguer<HeadingDetail>('GET', `/headings/${id}`)).body;
const nameOf = (marc: { readonly fields: readonly { tag: string }[] }) =>
  (marc.fields.filter((f) => f.tag === '100') as DataField[]).map((f) => f.subfields);
async function page(query = '') {
  await t.running.services.background.idle();
  return (await cataloguer<LookAlikePage>('GET', `/headings/look-alikes${query}`)).body;
}

/** Records under names (their $a and $d), and headings for these, without going through the desk. */
async function added(
  names: readonly (readonly DataField[])[],
): Promise<{ records: number[]; headings: number[] }> {
  const { store } = t.running.services;
  const made = names.map((fields, i): MarcRecord => ({
    leader: '00000nam a2200000 i 4500',
    fields: [...fields, field('245', '10', 'a', `Tools and their makers, part ${i}`)],
  }));
  const from = await store.nextIds('record', made.length);
  const uses = new Map(made.flatMap(headingsOf).map((u) => [u.key, u]));
  const first = await store.nextIds('heading', uses.size);
  const headings = [...uses.values()].map((u, i) => creation('heading', first + i, headingFrom(u)));
  const records = made.map((marc, i) => creation('record', from + i, marc));
  for (let at = 0; at < records.length; at += 400) {
    const changes: Change[] = [...records.slice(at, at + 400), ...(at === 0 ? headings : [])];
    await commit(store, { did: TESTED, person: 1, changes });
  }
  return { records: records.map((r) => r.id), headings: headings.map((h) => h.id) };
}
const person = (a: string, d?: string) =>
  field('100', '1 ', 'a', d ? `${a},` : a, ...(d ? (['d', d] as const) : []));

test('groups are ranked by certainty and records, counted by facet, put by and taken up again', async () => {
  const all = await page();
  const weight = (g: LookAlikePage['rows'][number]) =>
    Math.max(
      1,
      g.headings.reduce((n, h) => n + h.records, 0),
    ) * Math.max(...g.pairs.map((p) => p.score));
  expect(all.rows.map(weight)).toEqual(all.rows.map(weight).sort((a, b) => b - a));
  expect(all.facets.reduce((n, f) => n + f.n, 0)).toBe(all.rows.length);
  for (const verdict of ['same', 'perhaps'] as const)
    expect((await page(`?verdict=${verdict}&kind=personal`)).rows).toHaveLength(
      all.facets.filter((f) => f.verdict === verdict && f.kind === 'personal').reduce((n, f) => n + f.n, 0),
    );
  const headings = all.rows[0]!.headings.map((h) => h.id);
  const put = await cataloguer<Done>('POST', '/headings/distinct', { headings, later: true });
  expect(put.body.sentence).toMatch(/^Put by “.+” to look at later$/);
  expect((await page()).rows.map((g) => g.headings[0]!.id)).not.toContain(headings[0]);
  expect((await page('?later=yes')).rows.map((g) => g.headings.map((h) => h.id))).toEqual([headings]);
  expect((await page()).total).toBe(all.total - 1);
  expect((await cataloguer('POST', '/headings/distinct', { headings, later: true })).status).toBe(422);
  const again = await cataloguer<Done>('POST', '/headings/take-up', { headings });
  expect(again.status).toBe(200);
  expect((await page()).rows.map((g) => g.headings[0]!.id)).toContain(headings[0]);
  expect((await cataloguer('POST', '/headings/take-up', { headings })).status).toBe(422);
  // Put by first, then decided: different for good.
  await cataloguer('POST', '/headings/distinct', { headings, later: true });
  expect((await cataloguer('POST', '/headings/distinct', { headings, reason: 'Dates differ' })).status).toBe(
    200,
  );
  expect((await page('?later=yes')).rows).toEqual([]);
  expect((await page()).total).toBe(all.total - 1);
  expect((await assistant('POST', '/headings/distinct', { headings })).status).toBe(403);
});

test('a heading gets another form in every record; a form that is no heading, or another’s, is refused', async () => {
  const { headings, records } = await added([
    [person('Quillfeather, A.')],
    [person('Quillfeather, A.'), field('650', ' 0', 'a', 'Hammers')],
    [person('Sedgeman, Ivo')],
  ]);
  const before = await catalogueOf(t.running);
  const [id, , other] = headings;
  const refused = async (form: string) =>
    (await cataloguer<Problem>('POST', '/headings/merge', { kept: id, lost: [], form })).body.detail;
  expect(await refused('$dno name')).toMatch(/begins with \$a/);
  expect(await refused('$aQuill, Ada$aTwice')).toMatch(/\$a twice/);
  expect(await refused('$aQuill, Ada$tA title')).toMatch(/\$t is no part of a heading in 100/);
  expect(await refused('$aSedgeman, Ivo')).toBe(
    `Heading ${other} has this form already. Merge with it instead.`,
  );
  expect(await refused('$a—')).toMatch(/no letters or digits/);
  expect((await cataloguer('POST', '/headings/merge', { kept: id, lost: [] })).status).toBe(422);
  const body = { kept: id, lost: [], form: 'Quillfeather, Ada,$d1871-1940' };
  const review = (await cataloguer<Review>('POST', '/headings/merge/review', body)).body;
  expect(review).toMatchObject({
    verb: 'Change',
    sentence: '2 records will carry “Quillfeather, Ada, 1871-1940”.',
  });
  const done = await cataloguer<MergedAnswer>('POST', '/headings/merge', { ...body, token: review.token });
  expect(done.body.sentence).toBe(
    'Changed the heading “Quillfeather, A.” to “Quillfeather, Ada, 1871-1940”: 2 records changed',
  );
  const now = await heading(id!);
  expect(now).toMatchObject({
    text: 'Quillfeather, Ada, 1871-1940',
    seeFrom: ['Quillfeather, A.'],
    records: 2,
  });
  expect(now.marc.leader[5]).toBe('c');
  // The second record has another heading without a final stop: it ends its fields so.
  for (const [r, d] of [
    [records[0], '1871-1940.'],
    [records[1], '1871-1940'],
  ] as const)
    expect(nameOf((await cataloguer<RecordDetail>('GET', `/records/${r}`)).body.marc)).toEqual([
      [
        { code: 'a', value: 'Quillfeather, Ada,' },
        { code: 'd', value: d },
      ],
    ]);
  expect((await cataloguer('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('a heading that mixes two is split: the chosen records go to another one, made or there already', async () => {
  const { headings, records } = await added([
    [person('Marlowe, Jo')],
    [person('Marlowe, Jo')],
    [person('Marlowe, Jo')],
    [person('Tallow, Ann')],
  ]);
  const [id] = headings;
  const before = await catalogueOf(t.running);
  const ask = <T>(path: string, more: object) =>
    cataloguer<T>('POST', `/headings/${id}/split${path}`, {
      form: '$aMarlowe, Jo,$d1962-',
      records: records.slice(1, 2),
      ...more,
    });
  expect((await ask<Problem>('', { records: [records[3]] })).body.detail).toMatch(
    /does not carry this heading/,
  );
  expect((await ask<Problem>('', { form: 'Marlowe, Jo' })).body.detail).toMatch(
    /the form that the heading has/,
  );
  const review = (await ask<Review>('/review', {})).body;
  expect(review.consequences.join(' ')).toMatch(/will be made.*different is recorded/);
  const done = await ask<Done>('', { token: review.token });
  expect(done.body.sentence).toBe('Split “Marlowe, Jo”: 1 record now under “Marlowe, Jo, 1962-”');
  const to = (await cataloguer<RecordDetail>('GET', `/records/${records[1]}`)).body.headings[0]!;
  expect(to.text).toBe('Marlowe, Jo, 1962-');
  expect([await heading(id!), await heading(to.id)].map((h) => h.records)).toEqual([2, 1]);
  const isPair = (await page('?kind=personal')).rows.some((g) => g.headings.some((h) => h.id === to.id));
  expect(isPair).toBe(false);
  // The rest goes to the heading that is there now: the first keeps none and is marked as split.
  const rest = await ask<Done>('', { records: [records[0], records[2]] });
  expect(rest.status).toBe(200);
  expect((await heading(id!)).marc.leader[5]).toBe('s');
  expect((await heading(to.id)).records).toBe(3);
  for (const entry of [rest.body.entry, done.body.entry])
    expect((await cataloguer('POST', `/daybook/${entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('fields of a lost authority record are taken where that is chosen', async () => {
  const { headings } = await added([[person('Oakley, P.')], [person('Oakley, Pia')]]);
  const [lost, kept] = headings as [number, number];
  const { store } = t.running.services;
  const held = (await store.read('heading', lost))!;
  const fields = [
    ...held.value.marc.fields,
    field('670', '  ', 'a', 'Her The adze'),
    field('678', '1 ', 'a', 'Cooper'),
  ];
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [
      {
        kind: 'heading',
        id: lost,
        version: held.version,
        before: held.value,
        after: { ...held.value, marc: { ...held.value.marc, fields } },
      },
    ],
  });
  await cataloguer('POST', '/headings/merge', { kept, lost: [lost], taken: ['670'] });
  const tags = (await heading(kept)).marc.fields.map((f) => f.tag);
  expect(tags).toEqual(['100', '400', '670']);
});

test('a merge over many records is a job: others keep off meanwhile, what comes late is merged too, all goes back', async () => {
  const { headings, records } = await added([
    ...Array.from({ length: 1100 }, (_, i) => [
      person('Reedman, A.'),
      ...(i % 2 ? [field('700', '1 ', 'a', 'Reedman, A.', 'e', 'editor.')] : []),
    ]),
    [person('Reedman, Amos', '1880-1950')],
    [person('Reedmann, Axel')],
  ]);
  const [lost, kept, third] = headings as [number, number, number];
  const before = await catalogueOf(t.running);
  const asked = { kept, lost: [lost] };
  const review = (await cataloguer<Review>('POST', '/headings/merge/review', asked)).body;
  expect(review.sentence).toBe('1,100 records will carry “Reedman, Amos, 1880-1950”.');
  expect(review.rows.length + review.more).toBe(1102);
  const late = (await cataloguer<RecordDetail>('GET', `/records/${records[1101]}`)).body;
  const { body } = await cataloguer<MergedAnswer>('POST', '/headings/merge', {
    ...asked,
    token: review.token,
  });
  expect(body.entry).toBeNull();
  const held = await cataloguer<Problem>('POST', '/headings/merge', { kept: third, lost: [lost] });
  expect([held.status, held.body.detail]).toEqual([422, expect.stringMatching(/is being merged/)]);
  expect((await heading(lost)).merging).toBe(true);
  // A record whose number is passed already may come to carry the lost form.
  const marc = { ...late.marc, fields: [...late.marc.fields, field('700', '1 ', 'a', 'Reedman, A.')] };
  const saved = await cataloguer<Done>('PUT', `/records/${records[1101]}`, {
    version: late.version,
    marc,
    withErrors: true,
  });
  expect(saved.status).toBe(200);
  const done = await t.jobDone(cataloguer, body.job!);
  expect(done).toMatchObject({
    state: 'done',
    message: expect.stringMatching(/^Merged 2 headings into/) as string,
  });
  expect(await heading(lost)).toMatchObject({ mergedInto: kept, records: 0, merging: false });
  expect(await heading(kept)).toMatchObject({ records: 1102, seeFrom: ['Reedman, A.'] });
  const undoing = await cataloguer<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, {});
  if (undoing.body.job) await t.jobDone(cataloguer, undoing.body.job);
  const left = await cataloguer('POST', `/daybook/${saved.body.entry}/undo`);
  expect(left.status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('a merge that is cancelled stays as far as it came, and is undone whole', async () => {
  const { headings } = await added([
    ...Array.from({ length: 1300 }, () => [person('Withy, B.')]),
    [person('Withy, Bea', '1901-1970')],
  ]);
  const [lost, kept] = headings as [number, number];
  const before = await catalogueOf(t.running);
  const { body } = await cataloguer<MergedAnswer>('POST', '/headings/merge', { kept, lost: [lost] });
  const stop = async () => (await cataloguer('POST', `/jobs/${body.job}/cancel`)).status;
  for (;;) {
    const { done } = (await cataloguer<JobState>('GET', `/jobs/${body.job}`)).body;
    if (done > 0) break;
  }
  await stop();
  const ended = await t.jobDone(cataloguer, body.job!);
  expect(ended.state).toBe('cancelled');
  expect((await heading(lost)).mergedInto).toBeNull();
  expect((await heading(lost)).records + (await heading(kept)).records).toBe(1301);
  const undoing = await cataloguer<{ job?: number }>('POST', `/daybook/${ended.entry}/undo`, {});
  if (undoing.body.job) await t.jobDone(cataloguer, undoing.body.job);
  expect(await catalogueOf(t.running)).toEqual(before);
}, 120_000);

test('all groups that are the same are merged through one review; a record of two groups is changed once, all goes back', async () => {
  const { records } = await added([
    [
      person('Osierwright, Percival Aldous', '1861-1932'),
      field('700', '1 ', 'a', 'Sallowby, Q. X.,', 'd', '1870-1944'),
    ],
    [
      person('Osierwright, P. A.', '1861-1932'),
      field('700', '1 ', 'a', 'Sallowby, Quentin Xavier,', 'd', '1870-1944'),
    ],
    [
      person('Osierwright, P. A.', '1861-1932'),
      field('700', '1 ', 'a', 'Sallowby, Q. X.,', 'd', '1870-1944'),
    ],
  ]);
  const same = await page('?verdict=same');
  const before = await catalogueOf(t.running);
  const review = (await cataloguer<Review>('POST', '/headings/merge-all/review', {})).body;
  expect(review.rows).toHaveLength(same.rows.length);
  const left = review.rows.filter((r) => r.exception !== null);
  expect(review.count).toBe(same.rows.length - left.length);
  const out = review.rows.find((r) => r.exception === null && !/Osierwright|Sallowby/.test(r.label))!;
  const begun = await cataloguer<JobState>('POST', '/headings/merge-all', {
    token: review.token,
    leaveOut: [out.id],
  });
  expect(begun.status).toBe(202);
  const done = await t.jobDone(cataloguer, begun.body.id);
  expect(done.message).toMatch(new RegExp(`^Merged ${review.count - 1} groups of headings: `));
  const still = (await page('?verdict=same')).rows;
  expect(still).toHaveLength(left.length + 1);
  const third = (await cataloguer<RecordDetail>('GET', `/records/${records[2]}`)).body;
  expect(third.version).toBe(2);
  expect(third.headings.map((h) => h.text).sort()).toEqual([
    'Osierwright, Percival Aldous, 1861-1932',
    'Sallowby, Quentin Xavier, 1870-1944',
  ]);
  const undoing = await cataloguer<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, {});
  if (undoing.body.job) await t.jobDone(cataloguer, undoing.body.job);
  expect(await catalogueOf(t.running)).toEqual(before);
  expect((await cataloguer('POST', '/headings/merge-all', { kind: 'meeting' })).status).toBe(422);
}, 120_000);

test('an authority record is edited in its fields; its form and circles of see-froms are not made so', async () => {
  const { headings } = await added([[person('Larkspur, Edwin')], [person('Larkspur, Edwina')]]);
  const [id, other] = headings as [number, number];
  const now = await heading(id);
  const save = (marc: object, version = now.version) =>
    cataloguer<Problem & Done>('PUT', `/headings/${id}`, { version, marc });
  const withFields = (...more: DataField[]) => ({ ...now.marc, fields: [...now.marc.fields, ...more] });
  const done = await save(
    withFields(field('400', '1 ', 'a', 'Larkspur, E.'), field('670', '  ', 'a', 'His Marsh tools')),
  );
  expect([done.status, done.body.sentence]).toEqual([
    200,
    'Edited the authority record “Larkspur, Edwin”: 400, 670',
  ]);
  expect(await heading(id)).toMatchObject({ seeFrom: ['Larkspur, E.'], version: 2 });
  expect((await heading(id)).history[0]!.sentence).toBe(done.body.sentence);
  expect((await save(withFields(field('667', '  ', 'a', 'Late')))).status).toBe(409);
  const told = async (marc: object) => {
    const { status, body } = await save(marc, 2);
    expect(status).toBe(422);
    return body.detail;
  };
  expect(await told(withFields(field('400', '1 ', 'a', 'Larkspur, Edwin')))).toMatch(
    /form of the heading itself/,
  );
  expect(await told(withFields(field('400', '1 ', 'a', 'Larkspur, Edwina')))).toBe(
    `The see-from “Larkspur, Edwina” is heading ${other} here. Merge the two instead.`,
  );
  expect(await told({ ...now.marc, fields: [person('Larkspur, E. R.')] })).toMatch(/Change form/);
  expect(await told({ ...now.marc, fields: [field('670', '  ', 'a', 'Nothing')] })).toMatch(
    /no heading \(1XX\)/,
  );
  expect(await told({ ...now.marc, leader: '00000nam a2200000 i 4500' })).toMatch(/no authority record/);
  expect((await assistant('PUT', `/headings/${id}`, { version: 2, marc: now.marc })).status).toBe(403);
});

test('a new heading near an established one is asked about when a record is saved, and made when that is meant', async () => {
  const { headings } = await added([[person('Wheelwright, Jonathan', '1855-1921')]]);
  const one = await heading(headings[0]!);
  const fields = [...one.marc.fields, field('670', '  ', 'a', 'His Spokes and felloes')];
  expect(
    (await cataloguer('PUT', `/headings/${one.id}`, { version: 1, marc: { ...one.marc, fields } })).status,
  ).toBe(200);
  await t.running.services.background.idle();
  const record = (await cataloguer<RecordDetail>('GET', '/records/20')).body;
  const save = (d: string, more: object = {}) => {
    const name = field('700', '1 ', 'a', 'Wheelright, Jonathan,', 'd', d);
    const marc = { ...record.marc, fields: [...record.marc.fields, name] };
    return cataloguer<Problem & Done>('PUT', '/records/20', {
      version: record.version,
      marc,
      ...more,
    });
  };
  const asked = await save('1855-1921');
  expect([asked.status, asked.body.fields]).toEqual([
    422,
    [
      {
        field: 'withErrors',
        message: `“Wheelright, Jonathan, 1855-1921” is a new heading, and looks like the established “Wheelwright, Jonathan, 1855-1921” (heading ${one.id}).`,
      },
    ],
  ]);
  expect((await save('1855-1921', { withErrors: true })).status).toBe(200);
});
