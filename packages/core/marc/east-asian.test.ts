import { eastAsianOf } from './east-asian';
import { field } from './record';

test.each([
  ['Reed baskets', '245-01/$1', 'jpn', undefined],
  ['竹細工の本', '245-01/$1', 'eng', 'ja'],
  ['竹工藝', '245-01/$1', 'jpn', 'ja'],
  ['竹工藝', '245-01/$1', 'kor', 'ko'],
  ['竹工藝', '245-01/$1', 'eng', 'zh'],
  ['竹工藝', '245-01/Kore', 'eng', 'ko'],
  ['竹工藝', '245-01/Hant', 'jpn', 'zh'],
  ['대나무 공예', '245-01/$1', 'chi', 'ko'],
  ['\u{20bb7}野家', '245-01/$1', 'chi', 'zh'],
] as const)('%s with $6 %s in a record of %s is drawn as %s', (text, link, language, drawn) => {
  expect(eastAsianOf(field('880', '10', '6', link, 'a', text), language)).toBe(drawn);
});
test('a control field is drawn as it is', () => {
  expect(eastAsianOf({ tag: '001', value: '竹' }, 'chi')).toBeUndefined();
});
