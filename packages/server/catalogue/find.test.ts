import type {
  CopyList,
  FurtherCounts,
  HoldingList,
  JobState,
  LookUp,
  RecordDetail,
  SearchAnswer,
} from '@osier/contract';
import { isFound, isPlan, narrowedQuery, planOfText, planOfTyped, type Findable } from '@osier/core/find';
import { cqlClause, cqlText, type CqlNode } from '@osier/core/query';
import { foldedWords } from '@osier/core/text';
import { briefOf, columnAt, FILING_TITLE, SERIES, TITLE_WORDS, wordsAt, YEAR } from '@osier/core/access';
import { byKey } from '@osier/core/callnumbers';
import { headingIdentity, headingsOf, identityOf } from '@osier/core/headings';
import { recordReader } from '@osier/core/marc';
import fc from 'fast-check';
import { parse } from 'papaparse';
import { startTesting, type Ask } from '../testing/running';
import { withPlan } from './queries.find';

let t: Awaited<ReturnType<typeof startTesting>>;
let ask: Ask;
let all: Findable[];
beforeAll(async () => {
  t = await startTesting();
  ask = await t.as(2);
  for (const id of [3, 8]) await ask('POST', `/records/${id}/suppress`, { isSuppressed: true });
  const fill = async (name: string, of: 'record' | 'copy', q: string) => {
    const begun = await ask<JobState>('POST', '/piles/fill', { name, of, q });
    expect((await t.jobDone(ask, begun.body.id)).state).toBe('done');
  };
  await fill('To bind', 'record', 'willow');
  await fill('Copies to see', 'copy', 'basket');
  const { body } = await ask<RecordDetail>('GET', '/records/12');
  await (
    await t.as(1)
  )('PUT', '/records/12', {
    version: body.version,
    marc: {
      ...body.marc,
      fields: [
        ...body.marc.fields,
        { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Given by a member' }] },
      ],
    },
  });
  all = await findables();
});
afterAll(() => t.stop());

/** Every record as it stands in the store, read without any index. */
async function findables(): Promise<Findable[]> {
  const { store } = t.running.services;
  const rows = async (sql: string) => store.rows<Record<string, string> & { record: number }>(sql);
  const [holdings, copies, findings] = [
    await rows('SELECT id, record, branch, location, call_number, shelf_key FROM holdings'),
    await rows(
      `SELECT holding, record, barcode, status, type, fund, supplier, acquired, value ->> 'lastSeen' AS last_seen,
         ifnull(value ->> 'lastLoan', '') AS last_loan, ifnull(CAST(value ->> 'loans' AS TEXT), '') AS loans,
         (SELECT ifnull(group_concat(l.value ->> 'value', char(10)), '') FROM json_each(copies.value, '$.local') l) AS local FROM copies`,
    ),
    await store.rows<{ record: number; rule: string }>('SELECT record, rule FROM record_findings'),
  ];
  const suppressed = new Set((await store.find('suppressed')).map((s) => Number(s.id)));
  const by = <T extends { record: number }>(of: readonly T[]) => {
    const groups = new Map<number, T[]>();
    for (const row of of) groups.set(row.record, [...(groups.get(row.record) ?? []), row]);
    return (id: number) => groups.get(id) ?? [];
  };
  const headings = new Map<string, number[]>();
  const kept = new Map((await store.find('heading')).map((h) => [Number(h.id), h.value]));
  for (const [id, value] of kept) {
    let to = value;
    while (to.mergedInto !== null) to = kept.get(to.mergedInto)!;
    const identity = headingIdentity(identityOf(to));
    headings.set(identity, [...(headings.get(identity) ?? []), id]);
  }
  const entries = new Map<number, { first: string; last: string; by: string }>();
  for (const e of await store.rows<{ object: number; at: string; name: string }>(
    "SELECT o.object, d.at, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry JOIN people p ON p.id = d.person WHERE o.kind = 'record' ORDER BY o.entry",
  ))
    entries.set(e.object, { first: entries.get(e.object)?.first ?? e.at, last: e.at, by: e.name });
  const placed = (sql: string, of: 'delivery' | 'pile') =>
    store
      .rows<{ record: number; id: number; name: string }>(sql)
      .then((found) => by(found.map((f) => ({ ...f, of }))));
  const deliveriesOf = await placed(
    "SELECT i.record, d.id, d.name FROM incoming i JOIN deliveries d ON d.id = i.delivery WHERE i.state = 'accepted'",
    'delivery',
  );
  const pilesOf = await placed(
    `SELECT p.object AS record, l.id, l.name FROM piled p JOIN piles l ON l.id = p.pile WHERE p.kind = 'record'
     UNION SELECT c.record, l.id, l.name FROM piled p JOIN piles l ON l.id = p.pile JOIN copies c ON c.id = p.object WHERE p.kind = 'copy'`,
    'pile',
  );
  const [holdingsOf, copiesOf, findingsOf] = [by(holdings), by(copies), by(findings)];
  return (await store.select('record', '1 ORDER BY id')).map(({ id, value }) => ({
    id,
    marc: value,
    holdings: holdingsOf(id),
    copies: copiesOf(id),
    findings: findingsOf(id).map((f) => f.rule),
    headings: headingsOf(value).flatMap((h) => headings.get(headingIdentity(h)) ?? []),
    isSuppressed: suppressed.has(id),
    entries: entries.get(id) ?? null,
    among: [...deliveriesOf(id), ...pilesOf(id)],
  }));
}

test('hundreds of generated queries find what a plain reading of every record finds', async () => {
  const { store } = t.running.services;
  const titles = all.slice(0, 200).flatMap((r) => foldedWords(briefOf(r.marc).title));
  const barcodes = all.flatMap((r) => r.copies.map((c) => c.barcode!)).slice(0, 50);
  const calls = all.flatMap((r) => r.holdings.map((h) => h.call_number!)).slice(0, 80);
  const word = fc.constantFrom(...titles, 'the', 'a', 'of', 'zzz');
  const words = fc.array(word, { minLength: 1, maxLength: 3 }).map((w) => w.join(' '));
  const clause = (index: string, relation: string, text: string): CqlNode => cqlClause(index, relation, text);
  /** A term whose last `*` masks. */
  const masked = (index: string, relation: string, text: string): CqlNode => ({
    ...cqlClause(index, relation, text),
    term: `${text}*`,
  });
  const today = new Date().toISOString().slice(0, 10);
  const deliveryName = all.flatMap((r) => r.among.filter((a) => a.of === 'delivery'))[0]?.name ?? 'none';
  const column = fc.constantFrom(
    'words',
    'title',
    'name',
    'subject',
    'dc.creator',
    'series',
    'publisher',
    'place',
    'note',
    'local',
  );
  const year = fc.integer({ min: 1950, max: 2026 }).map(String);
  const leaf: fc.Arbitrary<CqlNode> = fc.oneof(
    {
      weight: 5,
      arbitrary: fc
        .tuple(column, fc.constantFrom('=', 'all', 'any', 'adj', '<>'), words)
        .map(([i, r, w]) => clause(i, r, w)),
    },
    fc.tuple(column, word).map(([i, w]) => masked(i, '=', w.slice(0, 3))),
    fc.tuple(column, fc.constantFrom('all', 'any'), words).map(([i, r, w]) => masked(i, r, w)),
    fc.constantFrom(...all.slice(0, 300)).map((r) => ({
      ...clause('title', '=', ''),
      term: `^${foldedWords(briefOf(r.marc).title).slice(0, 2).join(' ')}`,
    })),
    fc.constantFrom(...all.slice(0, 300)).map((r) => clause('title', '==', briefOf(r.marc).title)),
    fc.tuple(fc.constantFrom('=', '<', '<=', '>', '>=', '<>'), year).map(([r, y]) => clause('year', r, y)),
    year.map((y) => clause('year', 'within', `${y} 2010`)),
    fc.constantFrom('eng', 'fre', 'ger', 'xxx').map((l) => clause('language', '=', l)),
    fc.constantFrom('Books', 'Maps', 'Music').map((f) => clause('format', '=', f)),
    fc.constantFrom('SH', 'MR', 'HB', 'XX').map((b) => clause('branch', '=', b)),
    fc.constantFrom('READ OPEN', 'STORE').map((l) => clause('location', 'any', l)),
    fc.constantFrom(...calls).map((c) => clause('callnumber', '=', c)),
    fc.constantFrom(...calls).map((c) => masked('callnumber', '=', c.slice(0, 3))),
    fc
      .tuple(fc.constantFrom('<', '<=', '>', '>='), fc.constantFrom(...calls, '630', '746.41', 'F', 'Q 6'))
      .map(([r, c]) => clause('callnumber', r, c)),
    fc
      .constantFrom('630 .. 639', '674.8 .. 746.41 REE', '700–750')
      .map((c) => clause('callnumber', 'within', c)),
    fc
      .tuple(
        fc.constantFrom('added', 'changed'),
        fc.constantFrom('=', '<', '<=', '>', '>=', '<>'),
        fc.constantFrom(today, '2020-01', '2031'),
      )
      .map(([i, r, d]) => clause(i, r, d)),
    fc
      .constantFrom('Tobias Fenn', 'tobias fenn', 'Nell Arkwright', 'nobody')
      .map((p) => clause('changedby', '=', p)),
    fc.constantFrom('to bind', '1', 'Copies to see', 'none').map((p) => clause('pile', '=', p)),
    fc.constantFrom('1', deliveryName, 'none').map((d) => clause('delivery', '=', d)),
    fc.constantFrom(...barcodes, '1').map((b) => clause('barcode', '=', b)),
    fc.constantFrom('lost', 'missing', 'available', 'in process').map((s) => clause('status', '=', s)),
    fc
      .tuple(fc.constantFrom('=', '<', '<=', '>', '>='), fc.constantFrom('2019', '2021-05', '2022-01-15'))
      .map(([r, d]) => clause('acquired', r, d)),
    fc
      .tuple(
        fc.constantFrom('lastloan', 'seen'),
        fc.constantFrom('=', '<', '<=', '>', '>='),
        fc.constantFrom('2025', '2024-11', '2009-06-15'),
      )
      .map(([i, r, d]) => clause(i, r, d)),
    fc
      .tuple(fc.constantFrom('=', '<', '<=', '>', '>='), fc.integer({ min: 0, max: 30 }))
      .map(([r, n]) => clause('loans', r, String(n))),
    fc
      .constantFrom('Rebound', 'rebound', 'A MEMBER', "Publisher's", 'Publisher’s', '2025-03-11', 'nobody')
      .map((v) => clause('copyfield', '=', v)),
    fc.constantFrom('est', 'Sewn', '2025-0').map((v) => masked('copyfield', '=', v)),
    fc
      .tuple(fc.constantFrom('=', '<', '>='), fc.integer({ min: 0, max: 5 }))
      .map(([r, n]) => clause('copies', r, String(n))),
    fc.integer({ min: 0, max: 3 }).map((n) => clause('holdings', '=', String(n))),
    fc.constantFrom(...new Set(all.flatMap((r) => r.findings))).map((f) => clause('finding', '=', f)),
    fc
      .constantFrom(...all.slice(0, 300).flatMap((r) => r.headings), 999_999)
      .map((h) => clause('heading', '=', String(h))),
    fc.constantFrom('yes', 'no').map((s) => clause('suppressed', '=', s)),
    fc.constantFrom('yes', 'no').map((s) => clause('brief', '=', s)),
    fc.integer({ min: 1, max: 1600 }).map((n) => clause('record', '=', String(n))),
    fc.constant(clause('cql.allRecords', '=', '1')),
  );
  const { node } = fc.letrec<{ node: CqlNode }>((tie) => ({
    node: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      leaf,
      fc
        .tuple(fc.constantFrom('and' as const, 'or' as const, 'not' as const), tie('node'), tie('node'))
        .map(([by, left, right]): CqlNode => ({ type: 'joined', by, modifiers: [], left, right })),
    ),
  }));
  let found = 0;
  await fc.assert(
    fc.asyncProperty(node, async (made) => {
      const plan = planOfText(cqlText({ node: made, sort: [] }));
      if (!isPlan(plan)) throw new Error(plan.problem);
      const { sql, params } = withPlan(plan);
      const ids = (
        await store.rows<{ id: number }>(`SELECT id FROM (${sql}) ORDER BY id`, { ...params })
      ).map((r) => r.id);
      const plain = all.filter((r) => isFound(r, plan)).map((r) => r.id);
      found += plain.length;
      expect(ids).toEqual(plain);
    }),
    { numRuns: 400 },
  );
  expect(found).toBeGreaterThan(1000);
}, 120_000);

const search = (q: string, more = '') =>
  ask<SearchAnswer & { detail: string }>('GET', `/records?q=${encodeURIComponent(q)}${more}`);

test('a query finds at the API, with facets, pages and what it was taken for', async () => {
  const query = 'title any "willow basket*" and copies > 0 not language = fre';
  const { body } = await search(query);
  expect(body.tookFor).toBe('query');
  expect(body.total).toBeGreaterThan(5);
  const found = await search(query, '&branch=SH');
  expect(found.body.total).toBeLessThan(body.total);
  expect((await ask<LookUp>('GET', `/look-up?q=${encodeURIComponent(query)}`)).body).toMatchObject({
    as: 'list',
    q: query,
  });
  expect((await search('cql.allRecords = 1')).body.total).toBe(all.length);
});

test.each([
  ['title = "eels', 422],
  ['title = ', 422],
  ['title = "*"', 422],
  ['title = "\'; DROP TABLE records; --"', 200],
  ['title = "a\\" OR 1=1"', 200],
  ['title = "NEAR(a b) AND {title}: x*"', 200],
  ['title = "NEAR a AND NOT b"', 200],
  ['"', 200],
  ['*', 200],
])('%s is answered with status %i, never with an error of the server', async (q, status) => {
  expect((await search(q)).status).toBe(status);
});

test.each([
  ['a hundred words', Array.from({ length: 100 }, (_, i) => `title = w${i}`).join(' or ')],
  ['a hundred years', Array.from({ length: 100 }, (_, i) => `year <> ${1900 + i}`).join(' and ')],
  ['a hundred statuses', Array.from({ length: 100 }, (_, i) => `status <> s${i}`).join(' or ')],
  [
    'words in turn',
    Array.from({ length: 18 }, (_, i) => `w${i} ${['and', 'or', 'not'][i % 3]} `).join('') + 'eels',
  ],
  [
    'brackets in brackets',
    Array.from({ length: 19 }, (_, i) => `(year = ${1950 + i} ${i % 2 ? 'or' : 'and'} `).join('') +
      'status <> lost' +
      ')'.repeat(19),
  ],
])('as much as a query may have is looked for: %s', async (_, q) => {
  const plan = planOfText(q);
  if (!isPlan(plan)) return expect(plan.problem).toMatch(/at most 100|20 deep/);
  const { sql, params } = withPlan(plan);
  const ids = (
    await t.running.services.store.rows<{ id: number }>(`SELECT id FROM (${sql}) ORDER BY id`, { ...params })
  ).map((r) => r.id);
  expect(ids).toEqual(all.filter((r) => isFound(r, plan)).map((r) => r.id));
});

test('each index of the desk finds something', async () => {
  const first = all.find((r) => r.among.some((a) => a.of === 'delivery'));
  const delivery = first?.among.find((a) => a.of === 'delivery')?.name;
  for (const q of [
    'changedby = "Nell Arkwright"',
    `changed >= ${new Date().toISOString().slice(0, 10)}`,
    'added > 2020',
    'pile = "to bind"',
    'pile = "copies to see"',
    'callnumber within "600 .. 700"',
    'callnumber < 700',
    'note = "given by a member"',
    'publisher = press',
    'place any "dublin ketterby london"',
    `series = "${all.flatMap((r) => SERIES.extract(r.marc))[0]!.text}"`,
    ...(delivery ? [`delivery = "${delivery}"`] : []),
  ])
    expect([q, (await search(q)).body.total > 0]).toEqual([q, true]);
});

/** All that a search finds, page by page. */
async function allFound(q: string, more = '') {
  const rows: SearchAnswer['rows'][number][] = [];
  for (let after: string | null = ''; after !== null;) {
    const { body }: { body: SearchAnswer } = await search(q, `${more}&after=${encodeURIComponent(after)}`);
    rows.push(...body.rows);
    after = body.next;
  }
  return rows;
}

test.each([
  ['title', (r: Findable) => [columnAt(FILING_TITLE, r.marc)], false],
  ['year', (r: Findable) => [columnAt(YEAR, r.marc)], true],
  [
    'callnumber',
    (r: Findable) => [r.holdings.map((h) => h.shelf_key!).sort(byKey)[0] ?? '\u{10ffff}'],
    false,
  ],
  ['changed', (r: Findable) => [r.entries?.last ?? ''], true],
] as const)(
  'by %s every record comes once, in order, from the first to the last',
  async (sort, keyOf, descends) => {
    const of = new Map(all.map((r) => [r.id, keyOf(r)[0]!]));
    for (const q of ['', 'copies >= 0', 'copies > 1 and year > 1990']) {
      const rows = await allFound(q, `&sort=${sort}`);
      const plan = q && planOfText(q);
      const wanted = all.filter((r) => !plan || (isPlan(plan) && isFound(r, plan)));
      expect(rows.map((r) => r.id).sort((a, b) => a - b)).toEqual(wanted.map((r) => r.id));
      const keys = rows.map((r) => of.get(r.id)!);
      expect(keys).toEqual([...keys].sort((a, b) => (descends ? -1 : 1) * byKey(a, b)));
    }
  },
);

test.each(['asc', 'desc'])(
  'by call number %sending a query names its order, with what has none at one end',
  async (way) => {
    const rows = await allFound(`cql.allRecords = 1 sortBy callnumber/sort.${way}ending`);
    const of = new Map(
      all.map((r) => [r.id, r.holdings.map((h) => h.shelf_key!).sort(byKey)[0] ?? '\u{10ffff}']),
    );
    const keys = rows.map((r) => of.get(r.id)!);
    expect(new Set(rows.map((r) => r.id)).size).toBe(all.length);
    expect(keys).toEqual([...keys].sort((a, b) => (way === 'asc' ? 1 : -1) * byKey(a, b)));
  },
);

test('a query is ranked by its words, and sorted by the order that it names', async () => {
  const ranked = await search('willow and year > 1900');
  expect(ranked.body.sortedBy).toBe('relevance');
  const inTitle = ranked.body.rows.map((r) => foldedWords(r.title).includes('willow'));
  expect(inTitle).toEqual([...inTitle].sort((a, b) => Number(b) - Number(a)));
  const sorted = await search('willow and year > 1900 sortBy year/sort.descending');
  expect(sorted.body.sortedBy).toBe('year');
  const years = sorted.body.rows.map((r) => r.year);
  expect(years).toEqual([...years].sort().reverse());
  expect(new Set(years).size).toBeGreaterThan(1);
});

test.each(['willow', 'a', 'the willow', 'willow basket', 'title = willow', 'willow not title = basket'])(
  '“%s”: the title itself, titles that begin so, then titles, names and subjects; each once, to the last page',
  async (q) => {
    const rows = await allFound(q);
    const plan = planOfTyped(q);
    if (!isPlan(plan)) throw new Error(plan.problem);
    const found = all.filter((r) => isFound(r, plan)).map((r) => r.id);
    expect(rows.map((r) => r.id).sort((a, b) => a - b)).toEqual(found);
    const of = new Map(all.map((r) => [r.id, columnAt(FILING_TITLE, r.marc)]));
    const words = foldedWords(q.replace(/^title = | not .*$/g, '')).join(' ');
    const marcs = new Map(all.map((r) => [r.id, r.marc]));
    const begins = (id: number) =>
      [words, words.replace(/^the /, '')].some((w) => of.get(id)!.startsWith(w.length > 1 ? w : `${w} `));
    const isOpen = (w: string) => w.length > 1 && !q.includes('=');
    const inTitle = (id: number) => {
      const title = wordsAt(TITLE_WORDS, marcs.get(id)!).split(' ');
      return words.split(' ').every((w) => title.some((t) => (isOpen(w) ? t.startsWith(w) : t === w)));
    };
    const rank = rows.map((r) => (begins(r.id) ? 0 : inTitle(r.id) ? 1 : 2));
    expect(rank).toEqual([...rank].sort());
  },
);

test('copies are found by the same language: what is asked of copies is asked of each', async () => {
  const copies = all.flatMap((r) => r.copies.map((c) => ({ record: r, copy: c })));
  for (const q of [
    'willow',
    'status = lost',
    'status <> lost and title = willow*',
    'branch = MR and copies > 1',
    'callnumber within "630 .. 640" and acquired > 2019',
  ]) {
    const plan = planOfTyped(q);
    if (!isPlan(plan)) throw new Error(plan.problem);
    const { body } = await ask<CopyList>('GET', `/copies?q=${encodeURIComponent(q)}`);
    const wanted = copies.filter(({ record, copy }) =>
      isFound(
        {
          ...record,
          copies: plan.type !== 'words' && q.includes('copies >') ? record.copies : [copy],
          holdings: record.holdings.filter((h) => h.id === copy.holding),
        },
        plan,
      ),
    );
    expect([q, body.total]).toEqual([q, wanted.length]);
    expect(body.total).toBeGreaterThan(0);
  }
  expect((await ask('GET', '/copies?q=status%20%3D')).status).toBe(422);
});

test('holdings are found by the same language, in the order of the shelf: what is asked of copies is asked of their own', async () => {
  const holdings = all.flatMap((r) =>
    r.holdings.map((h) => ({
      id: Number(h.id),
      shelf: h.shelf_key!,
      of: { ...r, holdings: [h], copies: r.copies.filter((c) => c.holding === h.id) },
    })),
  );
  for (const q of [
    '',
    'willow',
    'status = lost',
    'copies = 0',
    'copies > 1 and branch = MR',
    'callnumber within "630 .. 640" not status = available',
    'location = STORE or title = basket*',
    'pile = "copies to see"',
    'pile = "to bind" and year > 1950',
    'added >= 2020 and language = eng',
  ]) {
    const plan = planOfTyped(q);
    if (!isPlan(plan)) throw new Error(plan.problem);
    const ids: number[] = [];
    for (let after: string | null = ''; after !== null;) {
      const { body }: { body: HoldingList } = await ask<HoldingList>(
        'GET',
        `/holdings?q=${encodeURIComponent(q)}&after=${encodeURIComponent(after)}`,
      );
      ids.push(...body.rows.map((h) => h.id));
      after = body.next;
    }
    const entries = plan.type === 'and' && q.startsWith('added') ? await ofHoldings() : null;
    const wanted = holdings.filter((h) =>
      isFound(entries ? { ...h.of, entries: entries.get(h.id) ?? null } : h.of, plan),
    );
    expect([q, ids.toSorted((a, b) => a - b)]).toEqual([
      q,
      wanted.map((h) => h.id).toSorted((a, b) => a - b),
    ]);
    const shelf = new Map(holdings.map((h) => [h.id, h.shelf]));
    const keys = ids.map((id) => shelf.get(id)!);
    expect(keys).toEqual([...keys].sort(byKey));
    if (!q.startsWith('copies = 0')) expect([q, ids.length > 0]).toEqual([q, true]);
  }
  const at = await ask<HoldingList>('GET', '/holdings?q=willow&branch=MR');
  expect(at.body.rows.every((h) => h.branch === 'MR')).toBe(true);
  expect(at.body.total).toBeGreaterThan(0);
  expect((await ask('GET', '/holdings?q=status%20%3D')).status).toBe(422);
});

/** When and by whom holdings were written to. */
async function ofHoldings(): Promise<ReadonlyMap<number, NonNullable<Findable['entries']>>> {
  const entries = new Map<number, NonNullable<Findable['entries']>>();
  for (const e of await t.running.services.store.rows<{ object: number; at: string; name: string }>(
    "SELECT o.object, d.at, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry JOIN people p ON p.id = d.person WHERE o.kind = 'holding' ORDER BY o.entry",
  ))
    entries.set(e.object, { first: entries.get(e.object)?.first ?? e.at, last: e.at, by: e.name });
  return entries;
}

test.each([
  ['wilow baskets', 'willow baskets'],
  ['willwo', 'willow'],
  ['thee wilow', 'the willow'],
  ['zzqqxx', null],
  ['willow', null],
])('where nothing is found, words of our own are offered that find something: %s', async (typed, meant) => {
  const { body } = await search(typed);
  expect(body.meant).toBe(body.total > 0 ? null : meant);
  if (body.meant) expect((await search(body.meant)).body.total).toBeGreaterThan(0);
});

test.each(['willow', 'copies > 1 and year > 1990', ''])('all that “%s” finds goes into a file', async (q) => {
  const ids = (await allFound(q)).map((r) => r.id).sort((a, b) => a - b);
  const address = (as: string) => `/records/export?q=${encodeURIComponent(q)}&as=${as}&holdings=none`;
  const file = async (as: string) => Buffer.from(String((await ask<string>('GET', address(as))).body));
  const table = (await file('csv')).toString('utf8').replace(/^\ufeff/, '');
  const rows = parse<Record<string, string>>(table, { header: true, skipEmptyLines: true });
  expect(rows.data.map((r) => Number(r.record))).toEqual(ids);
  for (const as of ['iso2709', 'marcxml'] as const) {
    const reader = recordReader(as);
    const read = [...reader.push(await file(as)), ...reader.end()].flatMap((r) => r.record ?? []);
    const of = new Map(all.map((r) => [r.id, r.marc]));
    expect(read.map((m) => briefOf(m).title)).toEqual(ids.map((id) => briefOf(of.get(id)!).title));
  }
  expect((await ask('GET', address('pdf'))).status).toBe(422);
});

test.each(['willow', 'copies > 1 and year > 1990'])(
  'what “%s” may be narrowed by finds as many as it says',
  async (q) => {
    const { body } = await ask<FurtherCounts>('GET', `/records/further?q=${encodeURIComponent(q)}`);
    expect(body.further.map((f) => f.of)).toEqual([
      'year',
      'subject',
      'name',
      'location',
      'supplier',
      'delivery',
      'changedby',
    ]);
    for (const { of, index, values } of body.further) {
      if (of !== 'delivery') expect([of, values.length > 0]).toEqual([of, true]);
      for (const { term, n } of values.slice(0, 4)) {
        const narrowed = narrowedQuery(q, index, '=', term);
        expect([narrowed, (await search(narrowed)).body.total]).toEqual([narrowed, n]);
      }
    }
  },
);
