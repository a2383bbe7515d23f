import { KIND_NAMES, KINDS } from '.';

const pointsOf = (kind: (typeof KIND_NAMES)[number]) => {
  const { words = [], keys = [], columns = [] } = KINDS[kind].access ?? {};
  return { words, keys, columns };
};
const withAccess = KIND_NAMES.filter((kind) => KINDS[kind].access);

test('records, headings, holdings and copies are found by the registry', () =>
  expect([...withAccess].sort()).toEqual(['copy', 'heading', 'holding', 'record']));

test.each(withAccess)('%s: each access point has a name of its own, a title and a version', (kind) => {
  const { words, keys, columns } = pointsOf(kind);
  const all = [...words, ...keys, ...columns];
  expect(new Set(all.map((p) => p.name)).size).toBe(all.length);
  expect(all.every((p) => p.title !== '' && p.version >= 1)).toBe(true);
  expect(words.every((p) => p.type === 'words')).toBe(true);
  // What is kept in a column has one of its name, and nothing else does but for display.
  expect(columns.map((p) => p.name).filter((name) => !(name in KINDS[kind].columns))).toEqual([]);
  expect(columns.filter((p) => p.type === 'words')).toEqual([]);
});
