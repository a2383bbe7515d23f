// Meanings from the MARCspec documentation, sections on field, subfield, indicator and sub specifications.
import { field, type MarcRecord } from '../marc';
import { csvHead, csvRow, hasAny, isAddress, parseAddress, readColumns, textsAt } from '.';

const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: 'w1' },
    { tag: '008', value: '120508s1990    enka   g      000 0 eng d' },
    field('020', '  ', 'a', '9780306406157', 'q', 'paperback', 'c', '£9.50'),
    field('020', '  ', 'a', '9780306406140', 'q', 'hardback'),
    field('245', '14', 'a', 'The eels,', 'b', '"and" traps', 'c', 'A.'),
    field('650', ' 0', 'a', 'Eels', 'x', 'Uses', 'x', 'History.'),
    field('650', ' 7', 'a', 'Traps', '2', 'local'),
    field('655', ' 7', 'a', 'Handbooks'),
  ],
};
const at = (text: string) => {
  const address = parseAddress(text);
  if (!isAddress(address)) throw new Error(address.problem);
  return textsAt(record, address);
};

test.each<[string, string[]]>([
  ['001', ['w1']],
  ['LDR/6', ['a']],
  ['LDR/5-7', ['nam']],
  ['008/35-37', ['eng']],
  ['008/#', ['d']],
  ['008/#-1', [' d']],
  ['008/38-#', [' d']],
  ['008/50', []],
  ['245$a', ['The eels,']],
  ['245$a$c', ['The eels,', 'A.']],
  ['245$a-b', ['The eels,', '"and" traps']],
  ['245$a/0-2', ['The']],
  ['245^2', ['4']],
  ['245', ['The eels, "and" traps A.']],
  ['020[1]$a', ['9780306406140']],
  ['020[#]$a', ['9780306406140']],
  ['020[0-#]$q', ['paperback', 'hardback']],
  ['65.$a', ['Eels', 'Traps', 'Handbooks']],
  ['650$x[1]', ['History.']],
  ['650$x[#]', ['History.']],
  ['020$a{$q=\\paperback}', ['9780306406157']],
  ['020$a{$c}', ['9780306406157']],
  ['020$a{!$c}', ['9780306406140']],
  ['020$a{$q!=\\paperback}', ['9780306406140']],
  ['020$a{$q~\\back}', ['9780306406157', '9780306406140']],
  ['650$a{^2=\\7}', ['Traps']],
  ['650$a{$2=\\local|$x}', ['Eels', 'Traps']],
  ['650$a{/0=\\T}', ['Traps']],
  ['245$a{008/35-37=\\eng}', ['The eels,']],
  ['245$a{008/35-37=\\fre}', []],
  ['650$a{$a}{$2}', ['Traps']],
  ['245$a{$c=\\A.}', ['The eels,']],
  ['020$q{$a=020[1]$a}', ['hardback']],
])('%s', (text, found) => expect(at(text)).toEqual(found));

test('places come with what is found', () => {
  const address = parseAddress('650$x[1]/0-2');
  expect(isAddress(address) && hasAny(record, address)).toBe(true);
  expect(at('650$x[1]/0-2')).toEqual(['His']);
});
test.each<[string, number]>([
  ['', 0],
  ['24', 0],
  ['245$', 4],
  ['245^3', 4],
  ['245[', 4],
  ['245[1', 5],
  ['245/x', 4],
  ['245/4-2', 7],
  ['245$c-a', 7],
  ['245$a{$b', 8],
  ['245 $a', 3],
])('%p is told what is wrong, and where', (text, where) => {
  const found = parseAddress(text);
  expect(found).toMatchObject({ at: where });
  expect('problem' in found && found.problem).toMatch(/\.$/);
});

describe('tables of chosen fields', () => {
  test('a line a record, as RFC 4180 has it', () => {
    const columns = readColumns('001, 245$a$b, 650$a, 300$a');
    expect(Array.isArray(columns) && csvHead(columns)).toBe('001,245$a$b,650$a,300$a\r\n');
    expect(Array.isArray(columns) && csvRow(record, columns)).toBe(
      'w1,"The eels, | ""and"" traps",Eels | Traps,\r\n',
    );
  });
  test('a column that is none is told', () => expect(readColumns('001,2!')).toMatch(/not a field address/));
});

describe('conditions in conditions', () => {
  const nested = (depth: number, inner: string): string =>
    depth === 0 ? inner : `500{${nested(depth - 1, inner)}}`;
  const many: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: Array.from({ length: 200 }, (_, i) =>
      field('500', '  ', 'a', `note ${i}`, 'a', 'more', 'b', 'x'),
    ),
  };
  test('deeper than six are refused', () => {
    expect(isAddress(parseAddress(nested(6, '500$a')))).toBe(true);
    expect(parseAddress(nested(7, '500$a'))).toMatchObject({
      problem: expect.stringContaining('at most 6 deep') as string,
    });
  });
  test.each([
    [nested(6, '500$a=\\note\\s199'), 200],
    ['500$a{$a{$a{$a{$a{$a=$b}}}}}', 0],
    ['500$a{$a~\\more{$b}}', undefined],
    ['500{500$a=500$a}{500$a!~\\zzz}{500$a{500$b=\\x}}', 200],
  ])('%s is evaluated in a moment, whatever the record', (text, count) => {
    const address = parseAddress(text);
    if (!isAddress(address)) return expect(count).toBeUndefined();
    let looked = 0;
    const counting: MarcRecord = {
      ...many,
      fields: new Proxy([...many.fields], {
        get: (fields, key, self) => {
          if (key === 'forEach') looked++;
          return Reflect.get(fields, key, self) as unknown;
        },
      }),
    };
    expect(textsAt(counting, address)).toHaveLength(count!);
    // The fields of the record are gone through once for each address that stands in the text, not once for each of each other.
    expect(looked).toBeLessThanOrEqual(10);
  });
});
