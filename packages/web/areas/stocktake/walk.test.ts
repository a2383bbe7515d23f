import 'fake-indexeddb/auto';
import { deviceVerdict, nextOnDevice } from './device-verdict';
import {
  waitingCount,
  dropScans,
  firstTogether,
  keepScan,
  keepShelf,
  keptShelf,
  waitingScans,
  type KeptCopy,
  type KeptScan,
} from './walk-store';

const copy = (n: number, more: Partial<KeptCopy> = {}): KeptCopy => ({
  ...{
    barcode: `3120400000${String(n).padStart(4, '0')}`,
    shelfKey: `7${n}`,
    callNumber: `7${n}`,
    title: `T${n}`,
  },
  ...{ location: 'OPEN', status: 'skipped' },
  ...more,
});
const scan = (number: number, more: Partial<KeptScan> = {}): KeptScan => ({
  ...{ stocktake: 1, run: 'a', number, code: `c${number}`, at: '2026-11-29T10:00:00Z', location: '' },
  ...more,
});

test('scans are kept in their order until they are dropped, each stocktake by itself', async () => {
  for (const n of [0, 1, 2, 10, 11]) await keepScan(scan(n));
  await keepScan(scan(0, { stocktake: 2 }));
  // The same scan kept once more is the same.
  await keepScan(scan(2));
  expect((await waitingScans(1)).map((s) => s.number)).toEqual([0, 1, 2, 10, 11]);
  await dropScans([scan(0), scan(1)]);
  expect((await waitingScans(1)).map((s) => s.number)).toEqual([2, 10, 11]);
  expect(await waitingScans(2)).toHaveLength(1);
  expect([await waitingCount(1), await waitingCount(2), await waitingCount(3)]).toEqual([3, 1, 0]);
});

test('what is sent together is of one run and location, without a gap', () => {
  const together = (...scans: KeptScan[]) => firstTogether(scans, 3).map((s) => s.number);
  expect(together(scan(0), scan(1), scan(3))).toEqual([0, 1]);
  expect(together(scan(0), scan(1, { run: 'b' }))).toEqual([0]);
  expect(together(scan(0), scan(1, { location: 'OPEN' }))).toEqual([0]);
  expect(together(scan(0), scan(1), scan(2), scan(3))).toEqual([0, 1, 2]);
  expect(together()).toEqual([]);
});

test('the copies of a stretch stay on the device', async () => {
  expect(await keptShelf(7)).toBeNull();
  await keepShelf(7, [copy(1)]);
  expect(await keptShelf(7)).toEqual([copy(1)]);
});

describe('without network', () => {
  const all = [copy(1), copy(2), copy(3, { location: 'BENCH' }), copy(4, { status: 'other' })];
  const copies = new Map(all.map((c) => [c.barcode, c]));
  const verdict = (
    raw: string,
    { seen = new Set<string>(), before = null as KeptCopy | null, location = '' } = {},
  ) => deviceVerdict(raw, location, { copies, seen, before }).outcome;
  test.each<[string, string]>([
    [copy(1).barcode, 'in place'],
    [`*${copy(1).barcode}*`, 'in place'],
    ['9780306406157', 'unknown'],
    ['31204000009999', 'kept'],
    [copy(4).barcode, 'kept'],
  ])('“%s” is %s', (raw, outcome) => expect(verdict(raw)).toBe(outcome));
  test('what was scanned, what stands before the last one, and what is of another location', () => {
    expect(verdict(copy(1).barcode, { seen: new Set([copy(1).barcode]) })).toBe('scanned before');
    expect(verdict(copy(1).barcode, { before: copy(2) })).toBe('out-of-order');
    expect(verdict(copy(3).barcode, { location: 'OPEN' })).toBe('should-not-be-here');
  });
  test('the next one is the next of the location that nobody scanned', () => {
    expect(nextOnDevice(all, new Set(), copy(1))?.title).toBe('T2');
    expect(nextOnDevice(all, new Set([copy(2).barcode]), copy(1))).toBeNull();
  });
});
