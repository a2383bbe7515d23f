import { byKey } from '../callnumbers';
import { BY_ORDER, byTitle, type CountedCopy } from './counted-copy';
import { sortedHomes } from './home';

const copyAt = (call: string, i: number): CountedCopy => ({
  ...{ barcode: String(1000 - i), status: 'available', lastSeen: '', home: i % 3 === 2 ? -1 : i % 3 },
  ...{ outside: 'location', call, author: ['b', 'a', ''][i % 3]!, title: i % 2 ? 't' : '' },
});

test('shelves are in the order of their keys, author, title and barcode, whatever the keys are made of', () => {
  // Short and long, alike at the beginning, with characters that no packed number holds, at its last place too.
  const parts = [
    '',
    '7',
    '746.41 ',
    '746.41 REE',
    '746.41 REE Z',
    '\u007f',
    'é',
    '漢字',
    'AAAAAAé',
    'AAAAAA',
    ' ',
    '\u007e',
  ];
  const calls = parts.flatMap((a) => parts.map((b) => a + b)).flatMap((call) => [call, call]);
  let seed = 7;
  const mixed = calls
    .map((call) => [(seed = (seed * 48271) % 2147483647), call] as const)
    .sort(([a], [b]) => a - b)
    .map(([, call], i) => copyAt(call, i));
  const orders = ['call', 'call+author'] as const;
  const { homes, ranks } = sortedHomes(mixed, orders);
  homes.forEach(({ copies, places }, home) => {
    const own = mixed.flatMap((c, i) => (c.home === home ? [i] : []));
    const plain = own.toSorted(
      (a, b) => byTitle(mixed[a]!, mixed[b]!) || byKey(mixed[a]!.barcode, mixed[b]!.barcode),
    );
    expect([...copies]).toEqual(plain);
    const compare = BY_ORDER[orders[home]!];
    let rank = -1;
    const expected = plain.map((i, at) =>
      at === 0 || compare(mixed[plain[at - 1]!]!, mixed[i]!) !== 0 ? ++rank : rank,
    );
    expect(plain.map((i) => ranks[i])).toEqual(expected);
    expect(places).toBe(rank + 1);
  });
  expect(mixed.flatMap((c, i) => (c.home < 0 ? [ranks[i]] : [])).every((r) => r === -1)).toBe(true);
});
