import fc from 'fast-check';
import { expressionOf, LONGEST_TEXT, matcher, replacer } from './expression';

const refused = (find: string) => {
  const made = expressionOf({ find, expression: true });
  return typeof made === 'string' ? made : null;
};

test.each([
  ['(a', /not well formed/],
  ['[z-a]', /not well formed/],
  ['a{2,1}', /not well formed/],
  ['\\p{Nothing}', /not well formed/],
  ['', /Type the text to find/],
  ['(a)\\1', /refers back to a group, which is not supported/],
  ['(?<n>a)\\k<n>', /refers back/],
  ['(?=.*x)y', /looks ahead/],
  ['a(?!b)', /looks ahead/],
  ['(.{0,400}a){0,400}', /./],
  ['.{0,900}.{0,900}x', /too large/],
])('%s is told', (find, said) => expect(refused(find)).toMatch(said));

test.each([
  ['^(\\d+) p\\.?$', '120 p.', '$1 pages', '120 pages'],
  ['(?:vol|v)\\. ?(\\d+)', 'Craft notes, v. 3', 'volume $1', 'Craft notes, volume 3'],
  ['[A-Z]+ .*', 'BBC book', 'x', 'x'],
  ['(ab|cd)+x', 'ababcdx', 'y', 'y'],
  ['\\s+$', 'Eels   ', '', 'Eels'],
  ['\\s+', 'a\u00a0\u2009b', '_', 'a_b'],
  ['[\\s,]+', 'a,\u00a0b', '_', 'a_b'],
  ['\\S+', 'ab\u00a0c', 'x', 'x\u00a0x'],
  ['\\s*[:;/]\\s*$', 'Eels :', '', 'Eels'],
  ['^The (.*) of (.*)$', 'The book of eels', '$2: $1', 'eels: book'],
  ['(.*), (.*)', 'Reedman, Amos', '$2 $1', 'Amos Reedman'],
  ['.*\\((.*)\\).*', 'Eels (fens) here', '$1', 'fens'],
  ['.*?,', 'a,b,c', '-', '--c'],
  ['(\\w+) (\\w+) (\\w+)', 'one two three', '$3 $2 $1', 'three two one'],
  ['(?<first>\\w+) (?<last>\\w+)', 'Ada Quill', '$<last>, $<first>', 'Quill, Ada'],
  ['(\\d{4})-(\\d{4})', '1931-2004', '$2-$1', '2004-1931'],
  ['(?<=\\d)cm', '24cm', ' cm', '24 cm'],
  ['(, [a-z]{3})+', 'Eels, eng, fre', '', 'Eels'],
  ['a/b', 'a/b', 'c', 'c'],
  ['a\\/[/]', 'a//', 'c', 'c'],
  ['\\p{Lu}', 'Éels', 'x', 'xels'],
  ['\\u00e9', 'é', '$$$&', '$é'],
  ['x*', 'abc', '-', '-a-b-c-'],
  ['a*', 'aab', '-', '--b-'],
  ['^a', 'aa', '-', '-a'],
  ['(b)|(c)', 'abc', '[$1|$2]', 'a[b|][|c]'],
  ['.', '🙂a', '$&$&', '🙂🙂aa'],
])('%s: %s', (find, text, by, expected) => {
  expect(refused(find)).toBeNull();
  expect(replacer({ find, expression: true }, by)(text)).toBe(expected);
});

test('in a text of several lines a match may begin in any of them', () => {
  const match = { find: '.*x', expression: true };
  expect(replacer(match, '-')('one\ntwo x\nthree')).toBe('one\n-\nthree');
  expect(matcher(match)('one\ntwo x')).toBe(true);
});
test('plain text is looked for as it stands, capitals do not count', () => {
  expect(replacer({ find: '(A)' }, '$&')('What (a) dollar? $1')).toBe('What $& dollar? $1');
  expect(matcher({ find: 'eel' })('Eels')).toBe(true);
});

// What an engine that tries one way after another never ends with: repeated choices, nested and neighbouring repetitions.
test.each([
  '(a|a)*b',
  '(a|aa)+$',
  '(a+)+$',
  '(a*)*b',
  '(a?a)*x',
  'a{0,9}a{0,9}a{0,9}a{0,9}a{0,9}b',
  '(.*)*x',
  '.*.*.*.*x',
  '(\\w+\\s?)*$!',
])('%s comes to an end on the longest text', (find) => {
  expect(refused(find)).toBeNull();
  expect(matcher({ find, expression: true })('a'.repeat(LONGEST_TEXT))).toBe(find.endsWith('$'));
});

test('what matches, and what it becomes, is as the language itself has it', () => {
  const atom = fc.constantFrom('a', 'b', '.', '\\w', '[^a]', '(a|b)', '(?:ab)', '\\s', '^', '$', '\\d');
  const piece = fc
    .tuple(atom, fc.constantFrom('', '*', '+', '?', '*?', '{0,2}'))
    .map(([a, q]) => (/[\^$]/.test(a) && a.length === 1 ? a : a + q));
  fc.assert(
    fc.property(
      fc.array(piece, { minLength: 1, maxLength: 4 }),
      fc.stringMatching(/^[ab1 x]{0,10}$/),
      (pieces, text) => {
        const find = pieces.join('');
        expect(replacer({ find, expression: true }, '<$&>')(text)).toBe(
          text.replace(new RegExp(find, 'gu'), '<$&>'),
        );
      },
    ),
    { numRuns: 500 },
  );
});
