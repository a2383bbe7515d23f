import { decodeForgiving, utf8Length, encodeUtf8 } from './utf8';
import { decodeMarc8 } from './marc8';
import { encodeMarc8 } from './marc8-encode';

const of = (...bytes: (number | string)[]) =>
  Uint8Array.from(bytes.flatMap((b) => (typeof b === 'string' ? [...b].map((c) => c.charCodeAt(0)) : [b])));

describe('MARC-8 (MARC 21 Specifications: Character Sets, part 2)', () => {
  test.each<[string, Uint8Array, string]>([
    ['a mark stands before its base', of('caf', 0xe2, 'e'), 'café'],
    ['two marks on one base', of(0xe3, 0xe2, 'a'), 'ấ'],
    ['letters of ANSEL', of(0xa1, 0xe2, 'od', 0xb1), 'Łódł'],
    ['Basic Cyrillic as G0', of(0x1b, '(N', 'kNIVKA', 0x1b, '(B', '.'), 'Книжка.'],
    ['Hebrew as G1', of(0x1b, ')2', 0xf9, 0xec), 'של'],
    ['subscript and back', of('H', 0x1b, 'b2', 0x1b, 's', 'O'), 'H₂O'],
    ['EACC in three bytes', of(0x1b, '$1', 0x21, 0x30, 0x21, 0x1b, '(B', 'x'), '一x'],
    ['a ligature over both letters is one mark', of(0xeb, 't', 0xec, 's'), 't͡s'],
    ['numeric references', of('&#x0416;'), 'Ж'],
  ])('%s', (_, bytes, text) => {
    expect(decodeMarc8(bytes)).toMatchObject({ text, unknown: [] });
  });

  test('a byte that no table has is told and stands as U+FFFD', () => {
    expect(decodeMarc8(of('a', 0xaf, 'b'))).toMatchObject({ text: 'a\ufffdb', unknown: [1] });
  });

  test('a character of three bytes that lost some of them does not swallow the escape behind it', () => {
    const broken = of(0x1b, '$1', 0x21, 0x30, 0x21, 0x21, 0x30, 0x1b, '(B', 'Eels');
    expect(decodeMarc8(broken)).toMatchObject({ text: '一\ufffd\ufffdEels', unknown: [6, 7] });
  });

  test.each(['café', 'Łódź', 'Ḳeliʻah', 'Жук', '漢字', 'naïve “q” – ∞', 't͡s', 'Rørdam-Høj & co'])(
    '%s written and read is the same',
    (text) => {
      expect(decodeMarc8(encodeMarc8(text)).text).toBe(text.normalize('NFC'));
    },
  );
});

describe('UTF-8', () => {
  test('two bad bytes in a text do not spoil the rest', () => {
    const bytes = Uint8Array.from([...encodeUtf8('Étude '), 0xe9, 0x20, 0x93, ...encodeUtf8(' plaît')]);
    expect(decodeForgiving(bytes)).toEqual({ text: 'Étude é “ plaît', bad: [7, 9], places: [6, 8] });
  });
  test.each(['', 'abc', 'é', '漢', '𝔥é'])('length of %p in bytes', (text) => {
    expect(utf8Length(text)).toBe(encodeUtf8(text).length);
  });
});
