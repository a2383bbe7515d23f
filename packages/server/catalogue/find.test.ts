import type { LookUp, SearchAnswer } from '@osier/contract';
import { isFound, isPlan, planOfText, type Findable } from '@osier/core/find';
import { cqlClause, cqlText, type CqlNode } from '@osier/core/query';
import { foldedWords } from '@osier/core/text';
import { briefOf } from '@osier/core/access';
import fc from 'fast-check';
import { startTesting, type Ask } from '../testing/running';
import { withPlan } from './queries.find';

let t: Awaited<ReturnType<typeof startTesting>>;
let ask: Ask;
let all: Findable[];
beforeAll(async () => {
  t = await startTesting();
  ask = await t.as(2);
  for (const id of [3, 8]) await ask('POST', `/records/${id}/suppress`, { isSuppressed: true });
  all = await findables();
});
afterAll(() => t.stop());

/** Every record as it stands in the store, read without any index. */
async function findables(): Promise<Findable[]> {
  const { store } = t.running.services;
  const rows = async (sql: string) => store.rows<Record<string, string> & { record: number }>(sql);
  const [holdings, copies, findings] = [
    await rows('SELECT record, branch, location, call_number FROM holdings'),
    await rows('SELECT record, barcode, status, type, fund, supplier, acquired FROM copies'),
    await store.rows<{ record: number; rule: string }>('SELECT record, rule FROM record_findings'),
  ];
  const suppressed = new Set((await store.find('suppressed')).map((s) => Number(s.id)));
  const by = <T extends { record: number }>(of: readonly T[]) => {
    const groups = new Map<number, T[]>();
    for (const row of of) groups.set(row.record, [...(groups.get(row.record) ?? []), row]);
    return (id: number) => groups.get(id) ?? [];
  };
  const [holdingsOf, copiesOf, findingsOf] = [by(holdings), by(copies), by(findings)];
  return (await store.select('record', '1 ORDER BY id')).map(({ id, value }) => ({
    id,
    marc: value,
    holdings: holdingsOf(id),
    copies: copiesOf(id),
    findings: findingsOf(id).map((f) => f.rule),
    isSuppressed: suppressed.has(id),
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
  const column = fc.constantFrom('words', 'title', 'name', 'subject', 'dc.creator');
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
    fc.constantFrom(...barcodes, '1').map((b) => clause('barcode', '=', b)),
    fc.constantFrom('lost', 'missing', 'available', 'in process').map((s) => clause('status', '=', s)),
    fc
      .tuple(fc.constantFrom('=', '<', '<=', '>', '>='), fc.constantFrom('2019', '2021-05', '2022-01-15'))
      .map(([r, d]) => clause('acquired', r, d)),
    fc
      .tuple(fc.constantFrom('=', '<', '>='), fc.integer({ min: 0, max: 5 }))
      .map(([r, n]) => clause('copies', r, String(n))),
    fc.integer({ min: 0, max: 3 }).map((n) => clause('holdings', '=', String(n))),
    fc.constantFrom(...new Set(all.flatMap((r) => r.findings))).map((f) => clause('finding', '=', f)),
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
