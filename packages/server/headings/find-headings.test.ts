import type { HeadingPage } from '@osier/contract';
import {
  headingPlanOfTyped,
  isHeadingFound,
  isPlan,
  type FindableHeading,
  type HeadingColumn,
} from '@osier/core/find';
import { wordsAt } from '@osier/core/access';
import { creation } from '@osier/core/changes';
import {
  HEADING_WORDS,
  headingIdentity,
  headingsOf,
  identityOf,
  isEstablished,
  type Heading,
} from '@osier/core/headings';
import { field } from '@osier/core/marc';
import { cqlClause, cqlText, type CqlNode } from '@osier/core/query';
import fc from 'fast-check';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let ask: Ask;
let all: (FindableHeading & { readonly text: string })[];
beforeAll(async () => {
  t = await startTesting();
  ask = await t.as(2);
  await addEstablished();
  all = await findables();
});
afterAll(() => t.stop());

/** Established headings with other forms, sources and numbers, and one that was merged into another. */
async function addEstablished(): Promise<void> {
  const { store } = t.running.services;
  const made = Array.from({ length: 12 }, (_, i): Heading => ({
    kind: i % 3 ? 'personal' : 'corporate',
    mergedInto: null,
    marc: {
      leader: '00000nz  a2200000n  4500',
      fields: [
        { tag: '001', value: `w${i}` },
        { tag: '003', value: 'WIC' },
        field('010', '  ', 'a', `n  ${12000 + i}`),
        field(i % 3 ? '100' : '110', i % 3 ? '1 ' : '2 ', 'a', `Withen${i}, Ada`),
        field(i % 3 ? '400' : '410', i % 3 ? '1 ' : '2 ', 'w', 'nne', 'a', `Osierman${i}, Ada`),
        ...(i % 2 ? [field('400', '1 ', 'a', `Fenwright, A. ${i}`)] : []),
        ...(i % 4 ? [] : [field('500', '1 ', 'a', `Withen${i + 1}, Ada`)]),
        field('670', '  ', 'a', `Letters of a basketmaker, ${1900 + i}`),
        field('880', '1 ', '6', '400-01', 'a', `Ивина ${i}`),
      ],
    },
  }));
  const from = await store.nextIds('heading', made.length + 1);
  const merged: Heading = { ...made[1]!, mergedInto: from };
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [...made, merged].map((h, i) => creation('heading', from + i, h)),
  });
}

/** Every heading that stands, as it is in the store, read without any index. */
async function findables(): Promise<typeof all> {
  const { store } = t.running.services;
  const use = new Map<string, number>();
  for (const { value } of await store.find('record'))
    for (const h of headingsOf(value)) use.set(headingIdentity(h), (use.get(headingIdentity(h)) ?? 0) + 1);
  const entries = new Map<number, { first: string; last: string; by: string }>();
  for (const e of await store.rows<{ object: number; at: string; name: string }>(
    "SELECT o.object, d.at, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry JOIN people p ON p.id = d.person WHERE o.kind = 'heading' ORDER BY o.entry",
  ))
    entries.set(e.object, { first: entries.get(e.object)?.first ?? e.at, last: e.at, by: e.name });
  const texts = new Map(
    (await store.rows<{ id: number; text: string }>('SELECT id, text FROM headings')).map((h) => [
      h.id,
      h.text,
    ]),
  );
  return (await store.find('heading'))
    .filter((h) => h.value.mergedInto === null)
    .map(({ id, value }) => {
      const { kind, vocabulary } = identityOf(value);
      const words = Object.fromEntries(HEADING_WORDS.map((p) => [p.name, wordsAt(p, value)]));
      return {
        ...{ id: Number(id), kind, vocabulary, text: texts.get(Number(id))! },
        words: words as Record<HeadingColumn, string>,
        records: use.get(headingIdentity(identityOf(value))) ?? 0,
        isEstablished: isEstablished(value),
        entries: entries.get(Number(id)) ?? null,
      };
    });
}

/** All pages of what is found. */
async function listed(q: string, more = ''): Promise<HeadingPage['rows']> {
  const rows: HeadingPage['rows'][number][] = [];
  for (let after = ''; ;) {
    const { body, status } = await ask<HeadingPage>(
      'GET',
      `/headings?q=${encodeURIComponent(q)}${more}${after && `&after=${encodeURIComponent(after)}`}`,
    );
    expect(status).toBe(200);
    rows.push(...body.rows);
    if (body.next === null) return rows;
    after = body.next;
  }
}

test('generated queries find what a plain reading of every heading finds, in alphabetical order', async () => {
  const tokens = all.flatMap((h) => Object.values(h.words).flatMap((w) => w.split(' '))).filter(Boolean);
  const word = fc.constantFrom(...tokens.slice(0, 400), ...tokens.slice(-400), 'zzz');
  const words = fc.array(word, { minLength: 1, maxLength: 2 }).map((w) => w.join(' '));
  const column = fc.constantFrom('words', 'form', 'seefrom', 'seealso', 'note', 'identifier', 'heading');
  const today = new Date().toISOString().slice(0, 10);
  const leaf: fc.Arbitrary<CqlNode> = fc.oneof(
    fc.tuple(column, fc.constantFrom('=', 'all', 'any', '<>'), words).map(([i, r, w]) => cqlClause(i, r, w)),
    fc.tuple(column, word).map(([i, w]) => ({ ...cqlClause(i, '=', ''), term: `${w.slice(0, 3)}*` })),
    word.map((w) => ({ ...cqlClause('form', '=', ''), term: `^${w}` })),
    fc.constantFrom('personal', 'corporate', 'topic', 'place', 'none').map((k) => cqlClause('kind', '=', k)),
    fc.constantFrom('topic place').map((k) => cqlClause('kind', 'any', k)),
    fc
      .constantFrom(...new Set(all.map((h) => h.vocabulary).filter(Boolean)), 'none')
      .map((v) => cqlClause('vocabulary', '=', v)),
    fc
      .tuple(fc.constantFrom('=', '<', '<=', '>', '>=', '<>'), fc.integer({ min: 0, max: 9 }))
      .map(([r, n]) => cqlClause('records', r, String(n))),
    fc.constantFrom('yes', 'no').map((y) => cqlClause('established', '=', y)),
    fc.constantFrom(...all.map((h) => h.id), 999_999).map((n) => cqlClause('number', '=', String(n))),
    fc
      .tuple(fc.constantFrom('added', 'changed'), fc.constantFrom('=', '<', '>='))
      .map(([i, r]) => cqlClause(i, r, today)),
    fc.constantFrom('Tobias Fenn', 'nobody').map((p) => cqlClause('changedby', '=', p)),
  );
  const { node } = fc.letrec<{ node: CqlNode }>((tie) => ({
    node: fc.oneof(
      { depthSize: 'small' },
      leaf,
      fc
        .tuple(fc.constantFrom('and' as const, 'or' as const, 'not' as const), tie('node'), tie('node'))
        .map(([by, left, right]): CqlNode => ({ type: 'joined', by, modifiers: [], left, right })),
    ),
  }));
  let found = 0;
  await fc.assert(
    fc.asyncProperty(node, async (made) => {
      const q = cqlText({ node: made, sort: [] });
      const plan = headingPlanOfTyped(q);
      if (!isPlan(plan)) throw new Error(plan.problem);
      const plain = all.filter((h) => isHeadingFound(h, plan)).map((h) => h.id);
      const rows = await listed(q);
      found += plain.length;
      expect(rows.map((r) => r.id).toSorted((a, b) => a - b)).toEqual(plain.toSorted((a, b) => a - b));
      // SQLite's NOCASE: letters of ASCII are the same in either case.
      const filed = rows.map((r) => r.text.replace(/[A-Z]/g, (c) => c.toLowerCase()));
      expect(filed).toEqual(filed.toSorted((a, b) => Buffer.compare(Buffer.from(a), Buffer.from(b))));
    }),
    { numRuns: 120 },
  );
  expect(found).toBeGreaterThan(500);
}, 120_000);

test('typed words find by the forms under which a heading is known, and say by which see-from', async () => {
  const [row, ...others] = await listed('osierman5');
  expect([row?.text, row?.knownAs, others]).toEqual(['Withen5, Ada', 'Osierman5, Ada', []]);
  expect((await listed('ada withen5')).map((r) => r.knownAs)).toEqual([null]);
  expect((await listed('ивина 5')).map((r) => r.text)).toEqual(['Withen5, Ada']);
  // Notes and numbers are looked for only where a query asks for them.
  expect(await listed('basketmaker')).toEqual([]);
  expect(await listed('note = basketmaker')).toHaveLength(12);
  expect((await listed('identifier = "n 12003"')).map((r) => r.text)).toEqual(['Withen3, Ada']);
  // What was merged away is found no more, by none of its forms.
  expect(await listed('form = withen1')).toHaveLength(1);
});

test.each([
  ['records = many', /is no number/],
  ['kind > personal', /cannot be looked for by “>”/],
  ['form = "*"', /at least one letter/],
  ['form = reed sortBy form', /stands in its own order/],
  ['form = reed and titel = x', /There is no index “titel”. There are words, form, seefrom/],
  ['form = "reed', /character/],
])('%s is told', async (q, problem) => {
  const { status, body } = await ask<{ detail: string; errors?: { message: string }[] }>(
    'GET',
    `/headings?q=${encodeURIComponent(q)}`,
  );
  expect(status).toBe(422);
  expect(JSON.stringify(body)).toMatch(problem);
});

test.each(['"', '*', "'; DROP TABLE headings; --", 'NEAR(a b)', '{form} : x', 'a"b'])(
  '%s is words',
  async (q) => {
    await expect(listed(q)).resolves.toBeDefined();
  },
);
