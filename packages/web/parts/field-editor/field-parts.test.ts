import { field } from '@osier/core/marc';
import {
  added,
  fieldTyped,
  joinedToBefore,
  movedBy,
  partsOf,
  removed,
  splitAtDollar,
  type Parts,
} from './field-parts';

const start = partsOf([
  { code: 'a', value: 'Eels and traps$' },
  { code: 'c', value: 'Hob Fen.' },
]);
const shown = (p: Parts | null) => p && [p.parts.map((x) => `$${x.code}${x.value}`).join(' '), p.caret];

test('a dollar and a letter begin a subfield with what stands behind the caret', () => {
  const split = splitAtDollar(start, 0, 15, 'b');
  expect(shown(split)).toEqual(['$aEels and traps $b $cHob Fen.', { key: 2, at: 0 }]);
  const middle = partsOf([{ code: 'a', value: 'Eels$ and traps' }]);
  expect(shown(splitAtDollar(middle, 0, 5, 'b'))).toEqual(['$aEels $band traps', { key: 1, at: 0 }]);
});
test('two dollars are one of the text, and a dollar before no code is text', () => {
  const price = partsOf([{ code: 'c', value: '$$' }]);
  expect(shown(splitAtDollar(price, 0, 2, '5'))).toEqual(['$c$5', { key: 0, at: 2 }]);
  expect(splitAtDollar(start, 0, 15, ' ')).toBeNull();
  expect(splitAtDollar(start, 0, 4, 'b')).toBeNull();
});
test('an empty subfield that is not the first gives way to the one that begins in it', () => {
  const empty = partsOf([
    { code: 'a', value: 'Eels' },
    { code: 'b', value: '$' },
  ]);
  expect(shown(splitAtDollar(empty, 1, 1, 'c'))).toEqual(['$aEels $c', { key: 2, at: 0 }]);
});
test('joining, moving and removing keep the caret where the work is', () => {
  expect(shown(joinedToBefore(start, 1))).toEqual(['$aEels and traps$ Hob Fen.', { key: 0, at: 16 }]);
  expect(joinedToBefore(start, 0)).toBeNull();
  expect(shown(movedBy(start, 1, -1))).toEqual(['$cHob Fen. $aEels and traps$', { key: 1, at: 'end' }]);
  expect(shown(movedBy(start, 1, 1))).toEqual(['$aEels and traps$ $cHob Fen.', null]);
  expect(shown(removed(start, 0))).toEqual(['$cHob Fen.', { key: 1, at: 'end' }]);
  expect(shown(added(start, 0))).toEqual(['$aEels and traps$ $ $cHob Fen.', { key: 2, at: 'code' }]);
});
test('what was typed becomes a field; parts without code or text are none', () => {
  const given = field('245', '10', 'a', 'x');
  expect(fieldTyped(given, ['', '4'], added(start))).toEqual(
    field('245', ' 4', 'a', 'Eels and traps$', 'c', 'Hob Fen.'),
  );
  expect(fieldTyped(given, ['1', '0'], partsOf([{ code: 'a', value: '  ' }]))).toBeNull();
});
