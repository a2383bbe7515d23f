import fc from 'fast-check';
import {
  barcodeFor,
  barcodeProblem,
  checkDigit,
  cleanScan,
  groupedBarcode,
  hasRightCheckDigit,
  nearMisses,
} from '.';

const form = { length: 14, kind: '3', library: '1204' };
const serial = fc.integer({ min: 0, max: 99_999_999 });

describe('barcodes', () => {
  test('check digit (ISO/IEC 7812-1, annex B: the worked number 7992739871 has 3)', () => {
    expect(checkDigit('7992739871')).toBe(3);
  });
  test('every single wrong digit is caught', () => {
    fc.assert(
      fc.property(serial, fc.integer({ min: 0, max: 13 }), fc.integer({ min: 1, max: 9 }), (n, at, by) => {
        const code = barcodeFor(form, n);
        const wrong = code.slice(0, at) + ((Number(code[at]) + by) % 10) + code.slice(at + 1);
        expect(hasRightCheckDigit(code)).toBe(true);
        expect(hasRightCheckDigit(wrong)).toBe(false);
      }),
    );
  });
  test.each([
    [' 31204000500001 ', '31204000500001'],
    ['A31204000500001B', '31204000500001'],
    ['3 1204 00050000 1\r', '31204000500001'],
    ['KIT-12', 'KIT12'],
  ])('scan %p is %s', (raw, clean) => {
    expect(cleanScan(raw)).toBe(clean);
  });
  test.each([
    ['', /No barcode/],
    ['3120400050000', /14 digits; this one has 13/],
    ['21204000500001', /reader’s card/],
    ['KIT12', /digits only/],
  ])('%p is told', (code, said) => {
    expect(barcodeProblem(code, form)).toMatch(said);
  });
  test('a wrong check digit is told with the right one', () => {
    const code = barcodeFor(form, 51771);
    const wrong = code.slice(0, -1) + ((Number(code.at(-1)) + 1) % 10);
    expect(barcodeProblem(code, form)).toBeNull();
    expect(barcodeProblem(wrong, form)).toContain(`it should be ${code.at(-1)}`);
  });
  test('groups of fourteen digits', () => expect(groupedBarcode('31204000517715')).toBe('3 1204 00051771 5'));
  test('a dropped, misread, doubled or swapped digit leads back to the code', () => {
    fc.assert(
      fc.property(serial, fc.integer({ min: 0, max: 12 }), (n, at) => {
        const code = barcodeFor(form, n);
        const inUse = (c: string) => c === code;
        for (const scan of [
          code.slice(0, at) + code.slice(at + 1),
          code.slice(0, at) + ((Number(code[at]) + 3) % 10) + code.slice(at + 1),
          code.slice(0, at) + code[at] + code.slice(at),
        ])
          expect(nearMisses(scan, inUse)).toEqual([code]);
      }),
    );
  });
});
