import {
  fieldDefinition,
  fieldName,
  indicatorMeaning,
  isLocalTag,
  materialOf,
  readPositions,
  subfieldName,
} from '.';

// Facts from the MARC 21 Format for Bibliographic Data.
test('names and meanings', () => {
  expect(fieldName('245')).toBe('Title Statement');
  expect(subfieldName('245', 'b')).toBe('Remainder of title');
  expect(indicatorMeaning('245', 2, '4')).toContain('Number of nonfiling characters');
  expect(indicatorMeaning('100', 1, '1')).toContain('Surname');
  expect(fieldDefinition('245')!.repeatable).toBe(false);
  expect(fieldName('333')).toContain('Not defined');
});
test.each([
  ['949', true],
  ['590', true],
  ['690', true],
  ['099', true],
  ['245', false],
  ['650', false],
])('%s is local: %p', (tag, local) => expect(isLocalTag(tag)).toBe(local));
test.each([
  ['00000nam a', 'Books'],
  ['00000nas a', 'Continuing Resources'],
  ['00000ngm a', 'Visual Materials'],
  ['00000ncm a', 'Music'],
  ['00000nem a', 'Maps'],
])('leader %s is %s', (leader, material) => expect(materialOf(leader)).toBe(material));
test('008 of a book in words', () => {
  const read = Object.fromEntries(
    readPositions('008', '120508s1990    enka   g      000 0 eng d', '00000nam a2200000 i 4500').map((p) => [
      p.name,
      p.meaning ?? p.value,
    ]),
  );
  expect(read).toMatchObject({
    'Date 1': '1990',
    'Target audience': 'General',
    Illustrations: 'Illustrations',
  });
});
