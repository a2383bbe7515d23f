import { scanWalks } from '.';

const table = (text: string) => text.split('\n').map((l) => l.split(','));

test('a list of codes is one walk, whatever stands between them', () => {
  expect(scanWalks(table('31204000517715\n\n31204000517723\nA 12'))).toEqual([
    { walk: '', place: '', on: '', codes: ['31204000517715', '31204000517723', 'A 12'] },
  ]);
  expect(scanWalks([])).toEqual([]);
});

test('walks and locations are told apart by their columns, each in its own order, in the order in which they were begun', () => {
  const read = scanWalks(
    table(
      'Time,Barcode,Scanned by,Location\n2026-03-04 10:15,B1,Ida,Open\n2026-03-05 09:00,B2,Nell,open\n04.03.2026,B3,Ida,Open\n,B4,Ida,Bench\n,,Ida,Bench\n,B5,ida,OPEN',
    ),
  );
  expect(read).toEqual([
    { walk: 'Ida', place: 'Open', on: '2026-03-04', codes: ['B1', 'B3', 'B5'] },
    { walk: 'Nell', place: 'open', on: '2026-03-05', codes: ['B2'] },
    { walk: 'Ida', place: 'Bench', on: '', codes: ['B4'] },
  ]);
});

test('with the location said, lines of several locations stay one walk in their order', () => {
  const lines = table('Barcode,Location\nB1,Open\nB2,Bench\nB3,Open');
  expect(scanWalks(lines, true)).toEqual([{ walk: '', place: '', on: '', codes: ['B1', 'B2', 'B3'] }]);
});

test('without a column of walks the lines are one, dated by its first day; a column that is the codes’ own is no walk', () => {
  expect(scanWalks(table('Barcode,When\nB1,then\nB2,31/12/2025'))).toEqual([
    { walk: '', place: '', on: '2025-12-31', codes: ['B1', 'B2'] },
  ]);
  expect(scanWalks(table('Device\nB1\nB2')).map((w) => w.codes.length)).toEqual([3]);
});

test('no code is lost or doubled, however lines are mixed', () => {
  for (let seed = 1; seed <= 200; seed++) {
    let n = seed;
    const next = (below: number) => (n = (n * 48271) % 2147483647) % below;
    const lines = Array.from({ length: 1 + next(60) }, (_, i) => [
      `B${i}`,
      ['', 'a', 'b', 'A'][next(4)]!,
      ['', 'x', 'y'][next(3)]!,
    ]);
    const read = scanWalks([['barcode', 'run', 'location'], ...lines]);
    expect(read.flatMap((w) => w.codes).sort()).toEqual(lines.map(([code]) => code!).sort());
    for (const { walk, place, codes } of read)
      expect(codes).toEqual(
        lines.flatMap(([code, of, at]) =>
          of!.toLowerCase() === walk.toLowerCase() && at === place ? [code!] : [],
        ),
      );
  }
});
