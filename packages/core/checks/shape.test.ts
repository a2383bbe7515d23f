import { fieldDefinition } from '../format';
import { field } from '../marc';
import { memory } from '../text';
import { hasSoundShape } from './shape';

// MARC 21 Format for Bibliographic Data: indicators, subfields and repeatability of the fields named.
test.each<[string, string, string, boolean]>([
  ['245', '10', 'ac', true],
  ['245', '14', 'abc', true],
  ['245', '19', 'a', true],
  ['245', '2 ', 'a', false],
  ['245', '10', 'aa', false],
  ['245', '10', 'ann', true],
  ['245', '10', 'd', false],
  ['245', '10', 'é', false],
  ['500', '  ', 'a', true],
  ['500', '1 ', 'a', false],
  ['505', '00', 'trtrtr', true],
  ['650', ' 0', 'axxz', true],
  ['650', ' 9', 'a', false],
  ['245', 'é0', 'a', false],
])('%s %s with %s: %p', (tag, indicators, codes, sound) => {
  const pairs = [...codes].flatMap((code) => [code, 'text']);
  expect(hasSoundShape(memory(), fieldDefinition(tag), field(tag, indicators, ...pairs))).toBe(sound);
});

test('a field that the format does not define has none', () =>
  expect(hasSoundShape(memory(), fieldDefinition('333'), field('333', '  ', 'a', 'text'))).toBe(false));

test('the same tag is another field in another format', () => {
  const heading = field('450', '  ', 'a', 'Reeds');
  expect(hasSoundShape(memory(), fieldDefinition('450', 'authority'), heading)).toBe(true);
  expect(hasSoundShape(memory(), fieldDefinition('450', 'bibliographic'), heading)).toBe(false);
});
