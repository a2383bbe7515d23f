import fc from 'fast-check';
import { cqlClause, cqlText, isCql, parseCql, type CqlNode } from '.';

/** Conditions and how they are joined, in brackets: what a query means whatever its form. */
const shown = (node: CqlNode): string => {
  if (node.type === 'prefixed') return `{${node.prefix}=${node.uri} ${shown(node.of)}}`;
  if (node.type === 'joined')
    return `(${shown(node.left)} ${node.by}${node.modifiers.map((m) => `/${m.name}${m.sign}${m.value}`).join('')} ${shown(node.right)})`;
  const { index, relation, term } = node;
  return relation
    ? `${index}|${relation.name}${relation.modifiers.map((m) => `/${m.name}${m.sign}${m.value}`).join('')}|${term}`
    : term;
};
const read = (text: string): string => {
  const cql = parseCql(text);
  if (!isCql(cql)) return `${cql.at}: ${cql.problem}`;
  return (
    shown(cql.node) +
    (cql.sort.length
      ? ` by ${cql.sort.map((s) => s.index + s.modifiers.map((m) => `/${m.name}`).join('')).join(',')}`
      : '')
  );
};

/** The examples of the published texts: CQL 1.2 (Library of Congress, “CQL: the Contextual Query Language”), sections 2 and 3. */
test.each([
  ['dinosaur', 'dinosaur'],
  ['"complete dinosaur"', 'complete dinosaur'],
  ['title = "complete dinosaur"', 'title|=|complete dinosaur'],
  ['title exact "the complete dinosaur"', 'title|exact|the complete dinosaur'],
  ['dinosaur or bird', '(dinosaur or bird)'],
  ['title = and', 'title|=|and'],
  ['dinosaur not reptile', '(dinosaur not reptile)'],
  ['dinosaur and bird or dinobird', '((dinosaur and bird) or dinobird)'],
  ['(bird or dinosaur) and (feathers or scales)', '((bird or dinosaur) and (feathers or scales))'],
  ['"feathered dinosaur" and (yixian or jehol)', '(feathered dinosaur and (yixian or jehol))'],
  ['publicationYear < 1980', 'publicationYear|<|1980'],
  ['lengthOfFemur > 2.4', 'lengthOfFemur|>|2.4'],
  ['bioMass >= 100', 'bioMass|>=|100'],
  ['title all "complete dinosaur"', 'title|all|complete dinosaur'],
  ['title any "dinosaur bird reptile"', 'title|any|dinosaur bird reptile'],
  ['title any/relevant "dinosaur bird"', 'title|any/relevant|dinosaur bird'],
  ['dc.title == "complete"', 'dc.title|==|complete'],
  ['caudal = "fin" prox/distance<3/unit=word tail', '(caudal|=|fin prox/distance<3/unit=word tail)'],
  [
    '> dc = "info:srw/context-sets/1/dc-v1.1" dc.title any fish',
    '{dc=info:srw/context-sets/1/dc-v1.1 dc.title|any|fish}',
  ],
  ['> "http://deepcustard.example/" custardDepth > 10', '{=http://deepcustard.example/ custardDepth|>|10}'],
  [
    'dinosaur sortBy dc.date/sort.descending dc.title/sort.ascending',
    'dinosaur by dc.date/sort.descending,dc.title/sort.ascending',
  ],
  [
    'dc.title any fish or (dc.creator any sanderson and dc.identifier = "id:1234567")',
    '(dc.title|any|fish or (dc.creator|any|sanderson and dc.identifier|=|id:1234567))',
  ],
  ['title <> "a \\"quoted\\" word"', 'title|<>|a \\"quoted\\" word'],
  ['cat AND dog', '(cat and dog)'],
  ['""', ''],
])('%s', (text, meaning) => {
  expect(read(text)).toBe(meaning);
});

test.each([
  ['', '0: Something to search for is missing at the end.'],
  ['eels and', '8: Something to search for is missing at the end.'],
  [
    'and eels',
    '0: Something to search for is missing before “and”; write it in quotation marks to search for the word.',
  ],
  ['(eels', '0: A bracket is not closed.'],
  ['eels)', '4: A bracket is closed that was not opened.'],
  ['"eels', '0: A quotation mark is not closed.'],
  ['title =', '7: What is searched for is missing at the end.'],
  ['title = )', '8: What is searched for is missing before “)”.'],
  ['title any/', '10: The name of a modifier is missing at the end.'],
  ['eels "pout"', '5: Something like “and” is missing before “pout”.'],
])('what is wrong with %s is told with its place', (text, problem) => {
  expect(read(text)).toBe(problem);
});

test('deep brackets and very long queries are refused, not run into the ground', () => {
  expect(read('('.repeat(100_000))).toMatch(/too (long|many brackets)/);
  expect(read(`${'> a = "b" '.repeat(5000)}x`)).toMatch(/too (long|many brackets)/);
  expect(read(Array.from({ length: 4000 }, () => 'a').join(' or '))).toMatch(/too long/);
});

const text = fc.string({ maxLength: 12 });
const name = fc.string({ minLength: 1, maxLength: 8 }).map((t) => t.replace(/["\\]/g, 'x'));
const modifier = fc
  .record({ name, sign: fc.constantFrom('', '=', '<='), value: name })
  .map((m) => (m.sign === '' ? { ...m, value: '' } : m));
const clause = fc.oneof(
  fc
    .record({ index: name, relation: fc.constantFrom('=', '==', '<>', '<', 'any', 'all', 'exact'), text })
    .map((c) => cqlClause(c.index, c.relation, c.text)),
  text.map((t) => ({ ...cqlClause('', '=', t), index: '', relation: null })),
);
const node: fc.Arbitrary<CqlNode> = fc.letrec<{ node: CqlNode }>((tie) => ({
  node: fc.oneof(
    { depthSize: 'small' },
    clause,
    fc.record({
      type: fc.constant('joined' as const),
      by: fc.constantFrom('and', 'or', 'not', 'prox'),
      modifiers: fc.array(modifier, { maxLength: 2 }),
      left: tie('node'),
      right: tie('node'),
    }),
    fc.record({
      type: fc.constant('prefixed' as const),
      prefix: fc.oneof(fc.constant(''), name),
      uri: name,
      of: tie('node'),
    }),
  ),
})).node;

test('what is written is read as the same', () => {
  fc.assert(
    fc.property(
      node,
      fc.array(fc.record({ index: name, modifiers: fc.array(modifier, { maxLength: 1 }) }), { maxLength: 2 }),
      (of, sort) => {
        const cql = { node: of, sort };
        expect(parseCql(cqlText(cql))).toEqual(cql);
      },
    ),
  );
});

test('reading any text ends, with a query or with a place in it', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 60, unit: fc.constantFrom(...'ab"\\()=<>/ ', 'and', ' or ', 'sortBy', 'é') }),
      (t) => {
        const cql = parseCql(t);
        if (isCql(cql)) expect(parseCql(cqlText(cql))).toEqual(cql);
        else expect(cql.at >= 0 && cql.at <= t.length).toBe(true);
      },
    ),
  );
});
