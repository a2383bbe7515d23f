import fc from 'fast-check';
import { expressionOf, matches, replaced } from './expression';
import { runawayIn } from './runaway';

const refused = (find: string) => {
  const made = expressionOf({ find, expression: true });
  return typeof made === 'string' ? made : null;
};

test.each([
  ['(a+)+$', /repeats itself/],
  ['(a*)*', /repeats itself/],
  ['(.+)+x', /repeats itself/],
  ['(\\w+\\s?)*$', /repeats itself/],
  ['([a-zA-Z]+)*', /repeats itself/],
  ['(x+x+)+y', /repeats itself/],
  ['(a?a)*x', /repeats itself/],
  ['(?:(?:ab?)c)+', /repeats itself/],
  ['(a{0,50}){0,50}x', /repeats itself/],
  ['(a|a)*x', /begin alike/],
  ['(\\w|\\d)+x', /begin alike/],
  ['(ab|ac)*d', /begin alike/],
  ['(a)\\1', /refers back/],
  ['(?<n>a)\\k<n>', /refers back/],
  ['x.*.*x', /very long/],
  ['\\w*\\w*\\w*x', /very long/],
  ['[a-z]+[a-z]+[a-z]+x', /very long/],
  ['^.*.*.*x', /very long/],
  ['a.*b.*c', /very long/],
  ['.{0,500}.{0,500}.{0,500}x', /very long/],
  ['(?=.*x)y.*.*z', /very long/],
])('%s is refused', (find, said) => expect(refused(find)).toMatch(said));

test.each([
  ['(a', /not well formed/],
  ['[z-a]', /not well formed/],
  ['a{2,1}', /not well formed/],
  ['\\p{Nothing}', /not well formed/],
  ['', /nothing to look for/],
])('%s is told', (find, said) => expect(refused(find)).toMatch(said));

test.each([
  ['^(\\d+) p\\.?$', '120 p.', '$1 pages', '120 pages'],
  ['(?:vol|v)\\. ?(\\d+)', 'Craft notes, v. 3', 'volume $1', 'Craft notes, volume 3'],
  ['[A-Z]+ .*', 'BBC book', 'x', 'x'],
  ['(ab|cd)+x', 'ababcdx', 'y', 'y'],
  ['\\s+$', 'Eels   ', '', 'Eels'],
  ['\\s*[:;/]\\s*$', 'Eels :', '', 'Eels'],
  ['^The (.*) of (.*)$', 'The book of eels', '$2: $1', 'eels: book'],
  ['(.*), (.*)', 'Reedman, Amos', '$2 $1', 'Amos Reedman'],
  ['.*\\((.*)\\).*', 'Eels (fens) here', '$1', 'fens'],
  ['.*?,', 'a,b,c', '-', '--c'],
  ['(\\w+) (\\w+) (\\w+)', 'one two three', '$3 $2 $1', 'three two one'],
  ['[^,]*, [^,]*, ([^,]*)', 'a, b, c', '$1', 'c'],
  ['(\\d{4})-(\\d{4})', '1931-2004', '$2-$1', '2004-1931'],
  ['(?<=\\d)cm', '24cm', ' cm', '24 cm'],
  ['(, [a-z]{3})+', 'Eels, eng, fre', '', 'Eels'],
  ['a/b', 'a/b', 'c', 'c'],
  ['a\\/[/]', 'a//', 'c', 'c'],
  ['\\p{Lu}', 'Éels', 'x', 'xels'],
])('%s is sound: %s', (find, text, by, expected) => {
  expect(refused(find)).toBeNull();
  expect(replaced(text, { find, expression: true }, by)).toBe(expected);
});

test('in a text of several lines a match may begin in any of them', () => {
  const match = { find: '.*x', expression: true };
  expect(replaced('one\ntwo x\nthree', match, '-')).toBe('one\n-\nthree');
  expect(matches('one\ntwo x', match)).toBe(true);
});
test('plain text is looked for as it stands, capitals do not count', () => {
  expect(replaced('What (a) dollar? $1', { find: '(A)' }, '$&')).toBe('What $& dollar? $1');
  expect(matches('Eels', { find: 'eel' })).toBe(true);
});
test('an expression asked for again is as if it were new', () => {
  const match = { find: 'e', expression: true };
  expect([matches('e', match), matches('e', match), matches('e', match)]).toEqual([true, true, true]);
});

test('one open repetition is never refused, and whatever passes comes to an end on a long text', () => {
  const atom = fc.constantFrom('a', 'b', '.', '\\w', '[^a]', '(a|b)', '(ab)');
  const piece = fc.tuple(atom, fc.constantFrom('', '*', '+', '?', '{0,20}', '{2}')).map(([a, q]) => a + q);
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), fc.boolean(), (pieces, anchored) => {
      const find = `${anchored ? '^' : ''}${pieces.join('')}x`;
      const open = pieces.filter((p) => /[*+]$|\{0,20\}$/.test(p)).length;
      // With no more than one open repetition nothing is refused; with more, growth decides.
      if (open <= 1) expect(runawayIn(find)).toBeNull();
      if (runawayIn(find) === null) expect(matches('a'.repeat(400), { find, expression: true })).toBe(false);
    }),
  );
});
