import { burstReader, readsAsCode } from './scanner-burst';

const feed = (text: string, gap: number, start = 1000) => {
  const read = burstReader();
  const found = [...text].map((key, i) => read(key === '\n' ? 'Enter' : key, start + i * gap));
  return found.at(-1);
};

test.each<[string, string, number, string | null]>([
  ['a scanner', '31204000500001\n', 8, '31204000500001'],
  ['a slow scanner', '31204000500001\n', 35, '31204000500001'],
  ['fingers', '31204000500001\n', 36, null],
  ['too short for a code', '12\n', 5, null],
])('%s', (_, text, gap, code) => expect(feed(text, gap)).toBe(code));

test('keys typed before a scan do not stick to it', () => {
  const read = burstReader();
  read('x', 0);
  [...'31204'].forEach((key, i) => read(key, 500 + i * 5));
  expect(read('Enter', 526)).toBe('31204');
});
test('an Enter that comes late is not the scanner’s', () => {
  const read = burstReader();
  [...'31204'].forEach((key, i) => read(key, i * 5));
  expect(read('Enter', 400)).toBeNull();
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
