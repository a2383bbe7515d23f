import { burstReader, readsAsCode } from './scanner-burst';

/** Feeds keys, each with the time since the one before; `\n` is Enter. */
const fed = (keys: readonly (readonly [text: string, gap: number])[]) => {
  const burst = burstReader();
  let at = 1000;
  let code: string | null = null;
  for (const [text, gap] of keys)
    for (const key of text) code = burst.read(key === '\n' ? 'Enter' : key, (at += gap));
  return code;
};

test.each<[string, readonly (readonly [string, number])[], string | null]>([
  ['a scanner', [['31204000500001\n', 8]], '31204000500001'],
  ['a slow scanner', [['31204000500001\n', 60]], '31204000500001'],
  ['fingers', [['31204000500001\n', 61]], null],
  ['too short for a code', [['12\n', 5]], null],
  [
    'a pause within',
    [
      ['31204', 8],
      ['0', 200],
      ['00500001\n', 8],
    ],
    '31204000500001',
  ],
  [
    'two pauses within',
    [
      ['31204', 8],
      ['0', 90],
      ['00500', 8],
      ['0', 90],
      ['01\n', 8],
    ],
    '31204000500001',
  ],
  [
    'an Enter after a pause',
    [
      ['31204000500001', 8],
      ['\n', 200],
    ],
    '31204000500001',
  ],
  [
    'an Enter that comes late',
    [
      ['31204', 5],
      ['\n', 400],
    ],
    null,
  ],
  [
    'keys typed long before',
    [
      ['x', 0],
      ['31204', 500],
      ['\n', 1],
    ],
    null,
  ],
  [
    'typing, then a scan',
    [
      ['wil', 180],
      ['3', 180],
      ['1204000500001\n', 8],
    ],
    '31204000500001',
  ],
  ['a mark within', [['746/41204\n', 8]], '746/41204'],
])('%s', (_, keys, code) => expect(fed(keys)).toBe(code));

test('keys typed before a scan do not stick to it', () => {
  const burst = burstReader();
  burst.read('x', 0);
  [...'31204'].forEach((key, i) => burst.read(key, 500 + i * 5));
  expect(burst.read('Enter', 526)).toBe('31204');
});
test('a scan is known as one while it runs', () => {
  const burst = burstReader();
  [...'312'].forEach((key, i) => burst.read(key, 500 + i * 5));
  expect(burst.isRunning(515)).toBe(true);
  burst.read('w', 900);
  expect(burst.isRunning(900)).toBe(false);
});
test('fast keys are a scan no longer when time has passed, or when Tab or an arrow follows', () => {
  for (const next of ['Tab', 'ArrowDown', 'Escape']) {
    const burst = burstReader();
    [...'677'].forEach((key, i) => burst.read(key, 500 + i * 5));
    expect(burst.isRunning(515)).toBe(true);
    expect(burst.isRunning(5000)).toBe(false);
    expect(burst.read(next, 520)).toBeNull();
    expect(burst.isRunning(521)).toBe(false);
  }
});
test('the Shift of a capital does not break a scan', () => {
  const burst = burstReader();
  ['Shift', 'W', 'I', 'L', '-', '0', '0', '1', '2'].forEach((key, i) => burst.read(key, 500 + i * 5));
  expect(burst.read('Enter', 546)).toBe('WIL-0012');
});

test.each<[string, boolean]>([
  ['31204000500001', true],
  ['half31204000500042', true],
  ['978-0-8044-2957-3', true],
  ['080442957X', true],
  ['WIL-00123', true],
  ['drop a subdivision', false],
  ['127 pages', false],
  ['2026-11-27', false],
  ['125.00', false],
  ['London', false],
])('%s reads as a code: %s', (text, is) => expect(readsAsCode(text)).toBe(is));
