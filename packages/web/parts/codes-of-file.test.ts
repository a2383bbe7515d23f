import { codesOf } from '@osier/core/barcodes';
import { decodedText } from '@osier/core/text';
import { codesOfFile } from './codes-of-file';

const file = (text: string | Uint8Array) => {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
  // The test's Blob has no arrayBuffer.
  return { arrayBuffer: () => Promise.resolve(bytes.slice().buffer) } as Blob;
};

test.each<[string, string, string[]]>([
  ['one a line', '31204000517715\r\n31204000517723\r\n', ['31204000517715', '31204000517723']],
  ['with blank lines and blanks', ' WICK0001 \n\n\nWICK0002', ['WICK0001', 'WICK0002']],
  [
    'a column that is headed',
    'title,Barcode,price\n"Eels, a ""life""",123,4.50\nFords,124,5',
    ['123', '124'],
  ],
  ['semicolons, no heads', 'Eels;A12\nFords;A13', ['A12', 'A13']],
  ['tabs', 'Titel\tStrichcode\nEels\t77\n', ['77']],
  ['a heading that is none of ours', 'Exemplar\n123\n124', ['123', '124']],
  ['a line break in quotes', 'note,barcode\n"two\nlines",55\n', ['55']],
  ['nothing', '\n \n', []],
])('codes of a file: %s', async (_what, text, codes) => expect(await codesOfFile(file(text))).toEqual(codes));

test('in any encoding', async () => {
  const utf16 = new Uint8Array([0xff, 0xfe, ...[...'Müller,9'].flatMap((c) => [c.charCodeAt(0), 0])]);
  expect(decodedText(utf16)).toBe('Müller,9');
  expect(decodedText(new Uint8Array([0x4d, 0xfc, 0x6c]))).toBe('Mül');
  expect(await codesOfFile(file('\ufeffbarcode\n1\n'))).toEqual(['1']);
});
test('a code with blanks or hyphens in it counts as one', () =>
  expect(codesOf([['3 1204 00051771 5'], ['978-0-306-40615-7']])).toEqual([
    '3 1204 00051771 5',
    '978-0-306-40615-7',
  ]));
