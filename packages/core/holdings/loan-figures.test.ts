import { loanFigures } from './loan-figures';

const read = (text: string) =>
  loanFigures(
    text.split('\n').map((l) => l.split(',')),
    '2026-11-30',
  );

test('figures are taken from the columns that the first line names, in whatever order', () => {
  expect(
    read('Title,Last_Checkout,Total checkouts,Barcode\nEels,2019-03-04,12,31204000517715\nReeds,,0,R2'),
  ).toEqual({
    figures: [
      { barcode: '31204000517715', loans: 12, lastLoan: '2019-03-04' },
      { barcode: 'R2', loans: 0, lastLoan: '' },
    ],
    untaken: [],
    hasDays: true,
  });
  expect(read('Item barcode,Issues\nR1,3')).toMatchObject({
    hasDays: false,
    figures: [{ loans: 3, lastLoan: '' }],
  });
});

test.each([
  ['2019-03-04', '2019-03-04'],
  ['20190304', '2019-03-04'],
  ['2019-03-04T10:15:00', '2019-03-04'],
  ['4.3.2019', '2019-03-04'],
  ['31/03/2019', '2019-03-31'],
  ['03/31/2019', '2019-03-31'],
  ['5/5/2019', '2019-05-05'],
])('%s is the day %s', (written, day) => {
  expect(read(`barcode,loans,last loan\nR1,1,${written}`)).toMatchObject({ figures: [{ lastLoan: day }] });
});

test('one day that can be read in one order only decides for the file', () => {
  expect(read('barcode,loans,last loan\nR1,1,03/04/2019\nR2,1,25/04/2019')).toMatchObject({
    figures: [{ lastLoan: '2019-04-03' }, { lastLoan: '2019-04-25' }],
  });
  expect(read('barcode,loans,last loan\nR1,1,03/04/2019\nR2,1,04/25/2019')).toMatchObject({
    figures: [{ lastLoan: '2019-03-04' }, { lastLoan: '2019-04-25' }],
  });
});

test.each([
  ['barcode,loans,last loan\nR1,1,03/04/2019', /cannot be told apart/],
  ['loans,last loan\n1,2019-01-01', /no column of barcodes/],
  ['barcode,title\nR1,Eels', /how often/],
  ['barcode,loans', /no lines/],
  ['', /no column of barcodes/],
  ['barcode,loans\nR1,many', /No line could be read: “many” is no number of loans/],
])('%j is refused', (text, problem) => {
  expect(read(text)).toMatchObject({ problem: expect.stringMatching(problem) as unknown });
});

test('lines that cannot be read are named by their number; the others are taken', () => {
  const { untaken, figures } = read(
    'barcode,loans,last loan\nR1,2,2019-02-30\n\n,4,\nR2,-1,\nR3,1e3,\nR4,9999999,\nR5,5,\nR5,6,\nR6,1,2026-12-01',
  ) as Extract<ReturnType<typeof loanFigures>, { figures: unknown }>;
  expect(figures).toEqual([{ barcode: 'R5', loans: 5, lastLoan: '' }]);
  expect(untaken).toEqual([
    { line: 2, problem: '“2019-02-30” is no day.' },
    { line: 4, problem: 'It has no barcode.' },
    { line: 5, problem: '“-1” is no number of loans.' },
    { line: 6, problem: '“1e3” is no number of loans.' },
    { line: 7, problem: '“9999999” is no number of loans.' },
    { line: 9, problem: 'R5 stands further up already.' },
    { line: 10, problem: '2026-12-01 is a day to come.' },
  ]);
});
