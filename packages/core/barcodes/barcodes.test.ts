import fc from 'fast-check';
import { COPIES_14, RULES_14 } from '../testing/barcode-rules';
import {
  CHECK_RULES,
  checkCharacter,
  fitsRule,
  isCopyCode,
  readCode,
  ruleProblems,
  ruleText,
  scanForms,
  scannedBarcode,
  triedOn,
  type BarcodeRule,
  barcodeFor,
  barcodeProblem,
  checkDigit,
  cleanScan,
  groupedBarcode,
  hasRightCheckDigit,
  nearMisses,
} from '.';

const form = COPIES_14;
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
    ['KIT12', /14 digits/],
    ['9780306406157', /ISBN/],
    ['3120400050000X', /31204 and 9 digits/],
    ['31204\u000000500', /control/],
  ])('%p is told', (code, said) => {
    expect(barcodeProblem(code, RULES_14)).toMatch(said);
  });
  test('a wrong check digit is told with the right one', () => {
    const code = barcodeFor(form, 51771);
    const wrong = code.slice(0, -1) + ((Number(code.at(-1)) + 1) % 10);
    expect(barcodeProblem(code, RULES_14)).toBeNull();
    expect(barcodeProblem(wrong, RULES_14)).toContain(`it should be ${code.at(-1)}`);
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

const FOUR_AND_FOUR: BarcodeRule = { of: 'copy', prefix: '', form: 'AAAA9999', check: 'none' };

describe('rules for barcodes', () => {
  test.each<[string, BarcodeRule, readonly string[], readonly string[]]>([
    [
      'letters and digits',
      FOUR_AND_FOUR,
      ['WICK0001', 'wick9999'],
      ['WICK001', 'WIC00001', '00010001', 'WICK000A'],
    ],
    [
      'a prefix of letters',
      { of: 'copy', prefix: 'LIB-', form: '9999', check: 'none' },
      ['LIB-0042', 'lib-0042'],
      ['LIB0042', 'LIB-042'],
    ],
    // Code 39 with its check character, the example of ISO/IEC 16388: CODE39 has the check character W.
    [
      'modulo 43',
      { of: 'copy', prefix: '', form: 'XXXXX', check: 'mod43' },
      ['AB12' + checkCharacter('mod43', 'AB12')!],
      ['AB12A'],
    ],
    // ISO 2108: ISBN 0-306-40615-2 and 0-8044-2957-X.
    [
      'modulo 11',
      { of: 'copy', prefix: '', form: '9999999999', check: 'mod11' },
      ['0306406152', '080442957X'],
      ['0306406153', '0804429570'],
    ],
    [
      'EAN',
      { of: 'copy', prefix: '20', form: '99999999999', check: 'ean' },
      ['2012345678903'],
      ['2012345678901'],
    ],
  ])('%s', (_, rule, fit, not) => {
    expect(ruleProblems(rule)).toEqual([]);
    for (const code of fit)
      expect([code, fitsRule(code, rule), barcodeProblem(code, [rule])]).toEqual([code, true, null]);
    for (const code of not)
      expect([code, fitsRule(code, rule), barcodeProblem(code, [rule])]).toEqual([
        code,
        false,
        expect.any(String),
      ]);
  });

  test('without a rule anything is taken that can be printed, but not a book’s own number', () => {
    for (const code of ['KIT-12', 'x', '12', 'Wick 7']) expect(barcodeProblem(code, [])).toBeNull();
    expect(barcodeProblem('9780306406157', [])).toContain('ISBN');
    expect(barcodeProblem('x'.repeat(41), [])).toContain('40 characters');
    expect(isCopyCode('', [])).toBe(false);
  });

  test('several rules: each takes its own, and what fits none is told by what it is nearest to', () => {
    const rules = [...RULES_14, FOUR_AND_FOUR];
    expect(barcodeProblem('WICK0001', rules)).toBeNull();
    expect(barcodeProblem('31204000500018', rules)).toBeNull();
    expect(barcodeProblem('WICK001', rules)).toContain('8 or 14 characters');
    expect(barcodeProblem('WICKX001', rules)).toContain('4 letters and 4 digits');
  });

  test.each<[string, Partial<BarcodeRule>, RegExp]>([
    ['no form', { form: '' }, /Write A for a letter/],
    ['other letters', { form: 'AB99' }, /Write A for a letter/],
    ['a blank in the prefix', { prefix: 'A B' }, /no blanks/],
    ['too long', { form: '9'.repeat(41) }, /at most 40/],
    ['letters under modulo 10', { form: 'AA99', check: 'mod10' }, /digits alone/],
    ['a letter as check digit', { form: '99A', check: 'mod10' }, /write 9 or X/],
  ])('%s is told', (_, more, said) =>
    expect(ruleProblems({ ...FOUR_AND_FOUR, ...more })[0]?.message).toMatch(said),
  );

  test('a rule is tried on the library’s own barcodes', () => {
    expect(triedOn([FOUR_AND_FOUR], ['WICK0001', 'WICK0002', '12'])).toEqual({
      fit: 2,
      of: 3,
      not: [{ code: '12', why: expect.stringContaining('8 characters') as string }],
    });
    expect(ruleText(FOUR_AND_FOUR)).toBe('4 letters and 4 digits');
    expect(ruleText({ ...FOUR_AND_FOUR, prefix: 'W', form: '9X' })).toBe(
      'W and 1 digit and 1 letter or digit',
    );
  });

  test('what comes with a check character is found wrong in any one character', () => {
    const digits = fc.stringMatching(/^[0-9]{4,12}$/);
    for (const check of CHECK_RULES.filter((c) => c !== 'none'))
      fc.assert(
        fc.property(digits, fc.nat(11), fc.integer({ min: 1, max: 9 }), (body, at, by) => {
          const code = body + checkCharacter(check, body)!;
          const rule: BarcodeRule = { of: 'copy', prefix: '', form: 'X'.repeat(code.length), check };
          expect(fitsRule(code, rule)).toBe(true);
          const i = at % body.length;
          const wrong = code.slice(0, i) + ((Number(code[i]) + by) % 10) + code.slice(i + 1);
          expect(fitsRule(wrong, rule)).toBe(false);
        }),
      );
  });
});

describe('scans', () => {
  test('the code as it came comes first; made clean it is what the rules make of it', () => {
    expect(scanForms(' KIT-12\r')).toEqual(['KIT-12', 'KIT12']);
    expect(scannedBarcode('KIT-12', [])).toBe('KIT-12');
    expect(scannedBarcode('A31204000500018B', RULES_14)).toBe('31204000500018');
    expect(scannedBarcode('3 1204 00050001 8', RULES_14)).toBe('31204000500018');
    // Start and stop letters of a scanner are letters of the code in a library whose codes have some.
    expect(scannedBarcode('A1234B', [{ of: 'copy', prefix: '', form: 'A9999A', check: 'none' }])).toBe(
      'A1234B',
    );
    expect(scannedBarcode('*wick0001*', [FOUR_AND_FOUR])).toBe('wick0001');
    expect(scanForms(' \r\n')).toEqual([]);
  });
  test('a letter misread is a near miss as well', () => {
    expect(nearMisses('WIKC0001', (c) => c === 'WICK0001')).toEqual(['WICK0001']);
    expect(nearMisses('WICX0001', (c) => c === 'WICK0001')).toEqual(['WICK0001']);
  });
});

// Examples of the standards: ISO 2108 (ISBN), ISO 3297 (ISSN), ISO/IEC 15420 (EAN), ISO/IEC 16388 (Code 39).
describe('codes by their schemes', () => {
  test.each([
    ['isbn10', 'ISBN 0-306-40615-2', '0306406152', '9780306406157'],
    ['isbn10', '0-8044-2957-x', '080442957X', '9780804429573'],
    ['isbn10', 'ISBN-10: 0 8044 2957 X (pbk.)', '080442957X', '9780804429573'],
    ['isbn10', 'ISBN 1-03-456789-1', null, null],
    ['isbn13', 'ISBN-13 978‑0‑306‑40615‑7 : £9.50', '9780306406157', '0306406152'],
    ['isbn13', '978030640615751495', '9780306406157', '0306406152'],
    ['isbn13', '9791032305690', '9791032305690', null],
    ['isbn13', '9790260000438', null, null],
    ['isbn13', '9780306406158', null, null],
    ['issn', 'ISSN 0317-8471', '0317-8471', undefined],
    ['issn', '2434561x', '2434-561X', undefined],
    ['issn', '2434-5610', null, undefined],
    ['ean13', '5901234123457', '5901234123457', undefined],
    ['ean13', '036000291452', '0036000291452', undefined],
    ['ean13', '5901-234123457', null, undefined],
    ['library14', '*A3 1204 00050001 8B*', '31204000500018', undefined],
    ['library14', '3120400050000', null, undefined],
    ['library14', '٣١٢٠٤٠٠٠٥٠٠٠٠١', null, undefined],
    ['code39mod43', '*CODE39W*', 'CODE39W', undefined],
    ['code39mod43', 'CODE 39R', 'CODE 39R', undefined],
    ['code39mod43', ' CODE39W', null, undefined],
    ['code39mod43', 'code39W', null, undefined],
    ['code39mod43', '', null, undefined],
  ] as const)('%s %s', (scheme, input, normal, other) => {
    const reading = readCode(scheme, input);
    expect([reading.valid, reading.normal]).toEqual([normal !== null, normal]);
    expect(reading.reason === null).toBe(normal !== null);
    expect(reading.other).toBe(other);
  });
  test('the number before the ISBN may be offered its nought', () => {
    expect(readCode('isbn10', '306406152').reason).toContain('0306406152');
  });
});
