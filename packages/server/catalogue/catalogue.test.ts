import type {
  JobState,
  LookUp,
  Problem,
  RecordDetail,
  Review,
  SearchAnswer,
  SearchFacetCounts,
  Suggestion,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { field } from '@osier/core/marc';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  [cataloguer, assistant] = [await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
const detail = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const find = async (query: string) => (await cataloguer<SearchAnswer>('GET', `/records?${query}`)).body;
const lookUp = async (q: string) =>
  (await cataloguer<LookUp>('GET', `/look-up?q=${encodeURIComponent(q)}`)).body;
const withNote = (r: RecordDetail, text: string) => ({
  version: r.version,
  marc: { ...r.marc, fields: [...r.marc.fields, field('500', '  ', 'a', text)] },
});

test('a search finds by title words, author and beginnings, whatever the marks', async () => {
  const count = async (q: string) =>
    (await cataloguer<SearchAnswer>('GET', `/records?q=${encodeURIComponent(q)}`)).body.total;
  expect(await count('')).toBe(1506);
  expect(await count('vannerie plein air')).toBe(1);
  expect(await count('strataekke')).toBe(0);
  expect(await count('stratag taekkemaend')).toBe(1);
  expect(await count('hurdl')).toBeGreaterThan(20);
  expect(await count('"); DROP TABLE records; --')).toBe(0);
  expect(await count('')).toBe(1506);
});

test('a search by number finds what has that number, not everything', async () => {
  const ids = async (q: string) =>
    (await cataloguer<SearchAnswer>('GET', `/records?q=${encodeURIComponent(q)}`)).body.rows.map((r) => r.id);
  const one = await detail(1);
  expect(await ids('record 7')).toEqual([7]);
  expect(await ids('record 90000')).toEqual([]);
  expect(await ids(one.holdings[0]!.copies[0]!.copy.barcode)).toEqual([1]);
  const named = one.headings[0]!;
  const withHeading = await ids(`heading ${named.id}`);
  expect(withHeading).toContain(1);
  for (const id of withHeading.slice(0, 5))
    expect((await detail(id)).headings.map((h) => h.id)).toContain(named.id);
});

test('facets count and narrow', async () => {
  const all = (await cataloguer<SearchAnswer>('GET', '/records?q=willow')).body;
  const german = (await cataloguer<SearchAnswer>('GET', '/records?language=ger')).body;
  expect(german.total).toBe(5);
  const counts = (await cataloguer<SearchFacetCounts>('GET', '/records/facets?q=willow')).body;
  expect(Object.values(counts.branch).every((n) => n > 0 && n <= all.total)).toBe(true);
  expect(Object.values(counts.material).reduce((a, b) => a + b, 0)).toBe(all.total);
});

test('pages of a search follow on without a gap, ranked or by title', async () => {
  for (const query of ['q=', 'q=the', 'q=willow&branch=MR', 'material=Book']) {
    const { total } = await find(query);
    const seen: number[] = [];
    let after: string | null = '';
    do {
      const page: SearchAnswer = await find(`${query}&after=${after}`);
      seen.push(...page.rows.map((r) => r.id));
      after = page.next;
    } while (after !== null);
    expect([query, seen.length, new Set(seen).size]).toEqual([query, total, total]);
  }
  expect((await cataloguer<Problem>('GET', '/records?after=nonsense')).body.detail).toContain(
    'not a place in the list',
  );
});

test('the title itself comes first, then titles that begin so, the title before names, subjects and the rest', async () => {
  const store = t.running.services.store;
  const rank = async (id: number, ...fields: Parameters<typeof field>[]) =>
    commit(store, {
      did: TESTED,
      person: 1,
      changes: [
        creation('record', id, {
          leader: '00000nam a2200000 i 4500',
          fields: fields.map((f) => field(...f)),
        }),
      ],
    });
  const id = await store.nextIds('record', 7);
  const rest = ['245', '00', 'a', 'Zinnober'] as const;
  await rank(id, [...rest], ['500', '  ', 'a', 'About quicksedge.']);
  await rank(id + 1, [...rest], ['650', ' 0', 'a', 'Quicksedge']);
  await rank(id + 2, [...rest], ['700', '1 ', 'a', 'Quicksedge, Ann']);
  await rank(id + 3, ['245', '00', 'a', 'On quicksedge']);
  await rank(id + 4, ['245', '00', 'a', 'Quicksedge and other plants']);
  await rank(id + 5, ['245', '04', 'a', 'The quicksedge']);
  await rank(id + 6, ['245', '00', 'a', 'Quicksedge']);
  expect((await find('q=quicksedge')).rows.map((r) => r.id)).toEqual(
    [5, 6, 4, 3, 2, 1, 0].map((n) => id + n),
  );
  expect((await find('q=The%20Quicksedge')).rows[0]!.id).toBe(id + 5);
  // A first word that is no article is part of the title: “Quicksedge” alone is not what was asked for.
  expect((await find('q=on%20quicksedge')).rows[0]!.id).toBe(id + 3);
  const other = await store.nextIds('record', 2);
  await rank(other, ['245', '00', 'a', 'Sedgewick'], ['650', ' 0', 'a', 'Marshbelt']);
  await rank(other + 1, ['245', '00', 'a', 'Old marshbelt sedgewick']);
  expect((await find('q=marshbelt%20sedgewick')).rows.map((r) => r.id)).toEqual([other + 1, other]);
});

test('what is being typed is completed to titles, headings, copies and piles', async () => {
  const suggest = async (q: string) =>
    (await cataloguer<{ rows: Suggestion[] }>('GET', `/suggest?q=${encodeURIComponent(q)}`)).body.rows;
  const { as, id, copy } = (await detail(1)).holdings[0]!.copies.map((c) => ({ as: 'copy', ...c }))[0]!;
  expect((await suggest(copy.barcode.slice(0, 12))).map((r) => [r.as, r.id])).toContainEqual([as, id]);
  const titles = (await suggest('willow')).filter((r) => r.as === 'record');
  expect(titles).toHaveLength(5);
  expect(titles.map((r) => r.text.toLowerCase()).every((text) => text.includes('willow'))).toBe(true);
  const [heading] = (await detail(1)).headings;
  expect(await suggest(heading!.text.slice(0, 6).toUpperCase())).toContainEqual(
    expect.objectContaining({ as: 'heading' }),
  );
  await cataloguer('POST', '/piles', { name: '100% sedge_pile', of: 'copy', note: '' });
  const piles = async (q: string) => (await suggest(q)).flatMap((r) => (r.as === 'pile' ? [r.text] : []));
  expect(await piles('% sedge_')).toEqual(['100% sedge_pile']);
  expect(await piles('%sedge%')).toEqual([]);
  // Too short to mean anything, and text that would be taken for something else.
  expect(await suggest('wi')).toEqual([]);
  expect(await suggest("'); DROP TABLE records; --")).toEqual([]);
});

test('the scan line goes to the thing', async () => {
  const r = await detail(1);
  const barcode = r.holdings[0]!.copies[0]!.copy.barcode;
  expect(await lookUp(`A${barcode}B`)).toMatchObject({ as: 'record', id: 1 });
  expect(await lookUp('record 7')).toMatchObject({ as: 'record', id: 7 });
  expect(await lookUp('willow')).toMatchObject({ as: 'list' });
  expect(await lookUp(barcode.slice(0, 9) + barcode.slice(10))).toMatchObject({
    as: 'nothing',
    said: expect.stringContaining(barcode) as string,
  });
  const withIsbn = (await cataloguer<SearchAnswer>('GET', '/records?q=')).body.rows.find((x) => x.isbn)!;
  expect(await lookUp(withIsbn.isbn)).toMatchObject({ as: 'record', id: withIsbn.id });
});

test('a record saved is the record read, with its history', async () => {
  const before = await detail(2);
  const { status } = await cataloguer(
    'PUT',
    '/records/2',
    withNote(before, 'Größe nach Umschlag; <b>not</b> markup & “quotes” 漢字'),
  );
  expect(status).toBe(200);
  const after = await detail(2);
  expect(after.version).toBe(before.version + 1);
  expect(after.marc.fields.at(-1)).toEqual(
    field('500', '  ', 'a', 'Größe nach Umschlag; <b>not</b> markup & “quotes” 漢字'),
  );
  expect(after.history[0]!.sentence).toMatch(/^Edited .*: 500$/);
});

test('a new name makes a heading in the same entry, and undo takes both back', async () => {
  const before = await detail(3);
  const marc = {
    ...before.marc,
    fields: [...before.marc.fields, field('700', '1 ', 'a', 'Unheardof, Zenobia,', 'e', 'editor.')],
  };
  const { body } = await cataloguer<{ entry: number }>('PUT', '/records/3', {
    version: before.version,
    marc,
  });
  expect((await detail(3)).headings.map((h) => h.text)).toContain('Unheardof, Zenobia');
  await cataloguer('POST', `/daybook/${body.entry}/undo`);
  expect((await cataloguer<{ rows: unknown[] }>('GET', '/headings?q=Unheardof')).body.rows).toEqual([]);
  expect((await detail(3)).marc).toEqual(before.marc);
});

test('a heading that others use by now stays when the act that made it is taken back, and doing it again works', async () => {
  const add = async (id: number) => {
    const { version, marc } = await detail(id);
    const fields = [...marc.fields, field('700', '1 ', 'a', 'Latecomer, Lois')];
    return (
      await cataloguer<{ entry: number }>('PUT', `/records/${id}`, { version, marc: { ...marc, fields } })
    ).body.entry;
  };
  const first = await add(8);
  await add(9);
  const undone = await cataloguer<{ entry: number }>('POST', `/daybook/${first}/undo`);
  expect(undone.status).toBe(200);
  expect((await detail(9)).headings.map((h) => h.text)).toContain('Latecomer, Lois');
  expect((await detail(8)).headings.map((h) => h.text)).not.toContain('Latecomer, Lois');
  expect((await cataloguer('POST', `/daybook/${undone.body.entry}/undo`)).status).toBe(200);
  expect((await detail(8)).headings.map((h) => h.text)).toContain('Latecomer, Lois');
});

test('two people saving one record: the second gets 409 with what stands there', async () => {
  const both = await detail(4);
  expect((await cataloguer('PUT', '/records/4', withNote(both, 'first'))).status).toBe(200);
  const second = await cataloguer<Problem>('PUT', '/records/4', withNote(both, 'second'));
  expect(second.status).toBe(409);
  expect(second.body.current).toMatchObject({ version: both.version + 1 });
  expect(JSON.stringify(second.body.current)).toContain('first');
  expect(JSON.stringify((await detail(4)).marc)).not.toContain('second');
});

test('what is not a record is refused with the field', async () => {
  const r = await detail(5);
  const bad = await cataloguer<Problem>('PUT', '/records/5', {
    version: r.version,
    marc: { leader: 'short', fields: [{ tag: '24', subfields: [] }] },
  });
  expect(bad.status).toBe(422);
  expect(bad.body.fields!.map((f) => f.field)).toEqual(['marc.leader', 'marc.fields[0].tag']);
  expect(bad.headers.get('content-type')).toContain('application/problem+json');
});

test('a record leaves as ISO 2709 and MARCXML', async () => {
  const iso = await cataloguer<string>('GET', '/records/6/export?as=iso2709');
  expect(iso.body.slice(0, 5)).toBe(String(new TextEncoder().encode(iso.body).length).padStart(5, '0'));
  expect((await cataloguer<string>('GET', '/records/6/export?as=marcxml')).body).toContain(
    '<controlfield tag="001">',
  );
});

test('an assistant reads and may not write', async () => {
  const r = (await assistant<RecordDetail>('GET', '/records/7')).body;
  const refused = await assistant<Problem>('PUT', '/records/7', withNote(r, 'x'));
  expect(refused.status).toBe(403);
  expect(refused.body.detail).toContain('assistant');
});

describe('a recipe run over all that a search finds', () => {
  const find = async (q: string) =>
    (await cataloguer<SearchAnswer>('GET', `/records?q=${encodeURIComponent(q)}`)).body;
  const job = (id: number) => t.jobDone(cataloguer, id);
  let recipe = '';
  beforeAll(async () => {
    const steps = [{ step: 'drop-subdivision', text: 'Juvenile literature' }];
    const kept = await cataloguer<{ id: number }>('POST', '/recipes', { name: 'Not for children', steps });
    recipe = String(kept.body.id);
  });

  test('is reviewed, does what the review says and no more, and is taken back', async () => {
    const found = await find('650{$v~\\Juvenile literature}');
    expect([found.tookFor, found.running]).toEqual(['field address', null]);
    // Asked for what there is so far, again and again, it comes to the same.
    const soFar = async (): Promise<SearchAnswer> => {
      const { body } = await cataloguer<SearchAnswer>(
        'GET',
        `/records?q=${encodeURIComponent('650{$v~\\Juvenile literature}')}&soFar=yes`,
      );
      return body.running === null ? body : soFar();
    };
    expect(await soFar()).toEqual(found);
    expect(found.total).toBeGreaterThan(2);
    const body = { recipe, q: '650{$v~\\Juvenile literature}' };
    const review = (await cataloguer<Review>('POST', '/records/clean/review', body)).body;
    expect(review.count).toBe(found.total);
    expect(review.consequences[0]).toContain('nearly all');
    const out = review.rows[0]!;
    const begun = await cataloguer<JobState>('POST', '/records/clean', { ...body, leaveOut: [out.id] });
    expect(begun.status).toBe(202);
    const done = await job(begun.body.id);
    expect(done.message).toContain(`changed ${found.total - 1} records`);
    expect((await find(body.q)).rows.map((r) => r.id)).toEqual([out.id]);
    const row = review.rows[1]!;
    expect((await detail(row.id)).marc).toEqual((row.after as { marc: unknown }).marc);
    const undone = await cataloguer('POST', `/daybook/${done.entry}/undo`);
    expect(undone.status).toBe(200);
    expect((await find(body.q)).total).toBe(found.total);
    expect((await detail(row.id)).marc).toEqual((row.before as { marc: unknown }).marc);
  });

  test('facets narrow it, what touches nothing is told, who may not edit may not run it', async () => {
    const body = { recipe, q: '', language: 'ger' };
    const review = (await cataloguer<Review>('POST', '/records/clean/review', body)).body;
    expect(review.sentence).toContain('changes 0 of 5 records.');
    expect(review.consequences).toEqual([expect.stringContaining('changes nothing')]);
    expect((await assistant('POST', '/records/clean', body)).status).toBe(403);
    expect((await cataloguer('POST', '/records/clean/review', { recipe: '999' })).status).toBe(422);
  });
});

test('a list is sorted by title, name, year or when it was added, page by page, each record once', async () => {
  const all = async (sort: string) => {
    const rows: SearchAnswer['rows'][number][] = [];
    for (let after: string | null = ''; after !== null;) {
      const page: SearchAnswer = await find(`sort=${sort}${after && `&after=${encodeURIComponent(after)}`}`);
      rows.push(...page.rows);
      after = page.next;
    }
    expect(rows.length).toBe((await find('')).total);
    expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length);
    return rows;
  };
  const isSorted = (values: readonly (string | number)[]) =>
    values.every((v, i) => i === 0 || values[i - 1]! <= v);
  const added = (await all('added')).map((r) => -r.id);
  expect(isSorted(added)).toBe(true);
  const years = (await all('year')).map((r) => -Number(r.year || 0));
  expect(isSorted(years)).toBe(true);
  const columns = await t.running.services.store.rows<{ id: number; filing_name: string }>(
    'SELECT id, filing_name FROM record_rows',
  );
  const nameOf = new Map(columns.map((c) => [c.id, c.filing_name]));
  const names = (await all('name')).map((r) => nameOf.get(r.id)!);
  expect(isSorted(names)).toBe(true);
  expect(names[0]).not.toBe('\u{10ffff}');
  expect(names.at(-1)).toBe('\u{10ffff}');
});
test('an order also holds for what words find, and what is no order is refused', async () => {
  const { rows } = await find('q=hurdl&sort=year');
  expect(rows.length).toBeGreaterThan(5);
  expect(rows.map((r) => r.year)).toEqual(
    rows
      .map((r) => r.year)
      .sort()
      .reverse(),
  );
  expect((await cataloguer<Problem>('GET', '/records?sort=colour')).body.status).toBe(422);
});

test('titles are narrowed to those with copies of a status or type, alone or with words', async () => {
  const { store } = t.running.services;
  const expected = async (where: string) =>
    (await store.rows<{ id: number }>(`SELECT DISTINCT record AS id FROM copies WHERE ${where}`)).length;
  const lost = await find('status=lost');
  expect(lost.total).toBe(await expected("status = 'lost'"));
  expect(lost.total).toBeGreaterThan(0);
  expect(lost.within).toBe('titles with copies: lost');
  const books = await find('type=BK&status=lost');
  expect(books.total).toBe(await expected("status = 'lost' AND type = 'BK'"));
  expect((await find('type=BK&q=hurdl')).total).toBeLessThan((await find('q=hurdl')).total + 1);
  expect((await find('type=nothing')).total).toBe(0);
  expect((await cataloguer<Problem>('GET', '/records?status=eaten')).body.status).toBe(422);
  const facets = (await cataloguer<SearchFacetCounts>('GET', '/records/facets?status=lost')).body;
  expect(Object.values(facets.material).reduce((n, m) => n + m, 0)).toBe(lost.total);
});
