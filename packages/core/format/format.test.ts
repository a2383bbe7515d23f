import {
  codeName,
  codeNamed,
  codeStanding,
  fieldDefinition,
  formatOf,
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
  ['490', false],
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

test('holdings fields inside a bibliographic record are known by the holdings format', () => {
  expect(fieldName('876')).toBe('Item Information - Basic Bibliographic Unit');
  expect(subfieldName('876', 'p')).toBe('Piece designation');
  expect(fieldDefinition('876', 'authority')).toBeUndefined();
});
test('authority and holdings records have their own formats, chosen by leader/06', () => {
  expect(formatOf('00000nz  a')).toBe('authority');
  expect(formatOf('00000nx  a')).toBe('holdings');
  expect(fieldName('400', 'authority')).toBe('See From Tracing - Personal Name');
  expect(
    readPositions('008', '120508n| azannaabn          |a aaa      ', '00000nz  a2200000n  4500')[3]!,
  ).toMatchObject({ name: 'Language of catalog' });
});
test.each([
  ['eng', 'current'],
  ['esk', 'obsolete'],
  ['xyz', 'unknown'],
])('the language code %s is %s', (code, standing) => expect(codeStanding('languages', code)).toBe(standing));
test('codes and names lead to each other', () => {
  expect(codeName('countries', 'wlk')).toBe('Wales');
  expect(codeNamed('languages', 'welsh')).toBe('wel');
});
