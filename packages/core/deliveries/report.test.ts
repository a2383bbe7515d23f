import { reportHead, reportLine, type ReportRow } from '.';

const row: ReportRow = {
  seq: 3,
  title: 'Eels, "and" traps',
  author: 'Reedman, Amos',
  isbn: '9780306406157',
  year: '1990',
  state: 'accepted',
  decision: 'replace',
  record: 40,
  barcodes: ['31204000517715', '31204000517723'],
  repairs: 1,
  errors: 0,
  warnings: 2,
  advice: 0,
  note: 'Asked.',
};
test('a line has as many cells as the head, quoted as RFC 4180 has it', () => {
  expect(reportLine(row)).toBe(
    '3,replaced,40,"Eels, ""and"" traps","Reedman, Amos",1990,9780306406157,31204000517715 | 31204000517723,1,0,2,0,Asked.\r\n',
  );
  expect(reportHead().split(',')).toHaveLength(13);
});
test.each<[Partial<ReportRow>, string]>([
  [{ decision: 'add' }, 'added'],
  [{ state: 'skipped', decision: 'skip' }, 'skipped'],
  [{ state: 'waiting', decision: 'add', record: null }, 'waiting (add)'],
])('%j is told as %s', (part, said) => expect(reportLine({ ...row, ...part }).split(',')[1]).toBe(said));
