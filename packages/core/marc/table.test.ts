import fc from 'fast-check';
import { csvHead, csvRow, readColumns, type Column } from '../address';
import { encodeUtf8, field, recogniseFormat, recordReader, type MarcRecord } from '.';
import { rowAt, tableHead } from './table';

const LEADER = '00000nam a22000003u 4500';
function read(text: string, cut = text.length) {
  const bytes = encodeUtf8(text);
  const reader = recordReader('csv');
  return [...reader.push(bytes.slice(0, cut)), ...reader.push(bytes.slice(cut)), ...reader.end()];
}
const recordsOf = (text: string) => read(text).map((r) => r.record);
const toldOf = (text: string) => read(text).flatMap((r) => r.repairs.map((x) => `${x.code} ${x.message}`));

const COLUMNS = '001,100^1,100$a,245^1,245^2,245$a,245$c,650^2,650$a,650$x';
const columns = readColumns(COLUMNS) as Column[];
const text = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 30 })
  .map((s) => s.normalize('NFC').replace(/[\u0000-\u001f|]/g, ' '))
  .filter((s) => s.trim() !== '' && !s.includes('Ã') && !s.includes('Â') && s === s.normalize('NFC'));
const heading = fc.tuple(fc.constantFrom('0', '7', ' '), text, text);
/** Records that have nothing but what the columns can say. */
const record = fc
  .tuple(text, fc.option(text), text, fc.array(heading, { maxLength: 3 }))
  .map(([number, name, title, subjects]): MarcRecord => ({
    leader: LEADER,
    fields: [
      { tag: '001', value: number },
      ...(name === null ? [] : [field('100', '1 ', 'a', name)]),
      field('245', '10', 'a', title, 'c', number),
      ...subjects.map(([ind2, a, x]) => field('650', ` ${ind2}`, 'a', a, 'x', x)),
    ],
  }));

test('what is written as a table of all that records have comes back, wherever it is cut in two', () => {
  fc.assert(
    fc.property(fc.array(record, { minLength: 1, maxLength: 5 }), fc.nat(400), (records, cut) => {
      const table = csvHead(columns) + records.map((r) => csvRow(r, columns)).join('');
      const back = read(table, cut);
      expect(back.map((r) => r.record)).toEqual(records);
      expect(back.flatMap((r) => r.repairs)).toEqual([]);
    }),
    { numRuns: 150 },
  );
});

test.each(['=1+1', '+x', '-x', '@x', "'=1", "''-x", '＝1', "'quoted'", "'", 'a=b'])(
  'a text %s is run by no spreadsheet and reads back as it was',
  (title) => {
    const columns = readColumns('245$a');
    if (typeof columns === 'string') throw new Error(columns);
    const held: MarcRecord = { leader: LEADER, fields: [field('245', '  ', 'a', title)] };
    const table = csvHead(columns) + csvRow(held, columns);
    expect(table.split('\r\n')[1]).toMatch(/^(?:[^=+\-@＝]|$)/);
    expect(read(table, 0).map((r) => r.record?.fields)).toEqual([held.fields]);
  },
);

test.each<[string, string | null]>([
  ['245$a', ','],
  ['001,008/35-37,LDR/06,245^1,245$a', ','],
  ['020$a;245$a', ';'],
  ['"020$a"\t"245$a"', '\t'],
  ['\ufeff020$a,245$a', ','],
  ['title,author', null],
  ['245$a,title', null],
  ['245', null],
  ['001$a', null],
  ['008/39-35', null],
  ['008/40', null],
  ['007/01', null],
  ['', null],
])('a head %j is one of a table with %j between', (head, delimiter) =>
  expect(tableHead(head)?.delimiter ?? null).toBe(delimiter),
);

test.each<[string, string[]]>([
  ['a,b,', ['a', 'b', '']],
  ['"a,b",c', ['a,b', 'c']],
  ['"a ""b""",c', ['a "b"', 'c']],
  ['"a"b,c', ['ab', 'c']],
  ['24" by 30",c', ['24" by 30"', 'c']],
  ['"a\nb",c\r\nd', ['a\nb', 'c']],
  ['', ['']],
])('the cells of %j are %j', (row, cells) => expect(rowAt(row, 0, ',').cells).toEqual(cells));

test('a table is known by its head, and another told what its head needs', () => {
  expect(recogniseFormat(encodeUtf8('020$a,245$a\r\n1,Eels\r\n'))).toEqual({ format: 'csv' });
  expect(recogniseFormat(encodeUtf8('title,author\r\nEels,Reedman\r\n'))).toEqual({
    problem: expect.stringContaining('020$a or 245$a') as string,
  });
});

test('quotation marks, commas and line breaks in a cell belong to its text', () => {
  const [first] = recordsOf('001,500$a\r\n7,"Said ""so"", twice"\r\n');
  expect(first!.fields[1]).toEqual(field('500', '  ', 'a', 'Said "so", twice'));
  const [second, third] = recordsOf('001,500$a\n7,"One\nTwo"\n\n8,Three');
  expect(second!.fields[1]).toEqual(field('500', '  ', 'a', 'One\nTwo'));
  expect(third!.fields).toEqual([{ tag: '001', value: '8' }, field('500', '  ', 'a', 'Three')]);
});

test('coded positions are put into a fixed field of which nothing else is known', () => {
  const [only] = recordsOf('008/35-37,LDR/06,008/07-10,245$a\nger,c,1987,Lieder\n');
  expect(only!.leader).toBe('00000ncm a22000003u 4500');
  expect(only!.fields[0]).toEqual({ tag: '008', value: `${'|'.repeat(7)}1987${'|'.repeat(24)}ger||` });
});

test('a cell that is too short or too long for its positions keeps the others in their places', () => {
  const table = '008/15-17,008/35-37,245$a\nie,english,Eels\n';
  const [only] = recordsOf(table);
  expect(toldOf(table)).toEqual([
    'table Row 2: “english” is longer than the 3 positions of 008 that it is for; it was cut.',
  ]);
  expect(only!.fields[0]).toEqual({ tag: '008', value: `${'|'.repeat(15)}ie ${'|'.repeat(17)}eng||` });
});

test('several texts of a column make several fields, in the order of tags', () => {
  const [only] = recordsOf('650$a,245$a\nReeds | Willows,Baskets\n');
  expect(only!.fields).toEqual([
    field('245', '  ', 'a', 'Baskets'),
    field('650', '  ', 'a', 'Reeds'),
    field('650', '  ', 'a', 'Willows'),
  ]);
});

test('nothing silent: cells too many, columns that do not go together, rows without a text', () => {
  expect(toldOf('001,245$a\n7,Eels,more\n')).toEqual([
    'table Row 2: there are 3 cells for 2 columns; those behind were left out.',
  ]);
  expect(toldOf('001,650$a,650$x\n7,Reeds | Willows,Uses\n')).toEqual([
    'table Row 2: the columns of 650 have different numbers of texts; they were put together in their order.',
  ]);
  expect(
    read('001,245$a\n,\n7,Eels\n').map((r) => [r.record !== null, r.repairs.map((x) => x.code)]),
  ).toEqual([
    [false, ['unreadable']],
    [true, []],
  ]);
  expect(toldOf('001,245$a\n7\n')).toEqual([]);
  for (const row of ['12,Eels', '1 | 0,Eels'])
    expect(toldOf(`245^1,245$a\n${row}\n`)).toEqual([
      'table Row 2: an indicator of 245 has no field, or more than one character; that was left out.',
    ]);
  const open = '001,245$a\n7,"Eels\n8,Reeds\n';
  expect(toldOf(open)).toEqual([
    'table Row 2: a quotation mark is not closed; its cell was ended with the row.',
  ]);
  expect(recordsOf(open).map((r) => r!.fields[1])).toEqual([
    field('245', '  ', 'a', 'Eels'),
    field('245', '  ', 'a', 'Reeds'),
  ]);
});
