import fc from 'fast-check';
import { LABEL_SHEETS, labelPlaces, labelSheetProblems, spineLines, type SpineText } from '.';

const number = (more: Partial<SpineText>): SpineText => ({
  ...{ scheme: 'dewey', prefix: '', class: '746.41', item: 'REE', suffix: '', number: 1 },
  ...more,
});
/** Two millimetres a character. */
const measure = (text: string) => text.length * 2;
const lines = (more: Partial<SpineText>, width = 20, most = 8) =>
  spineLines(number(more), measure, { width, lines: most });

test.each<[string, Partial<SpineText>, number, readonly string[]]>([
  [
    'parts below each other',
    { prefix: 'Ref', year: '1998', suffix: 'Large', part: 'v. 2', number: 3 },
    20,
    ['Ref', '746.41', 'REE', '1998', 'Large', 'v. 2', 'c. 3'],
  ],
  ['a class at its point', { class: '746.4120942' }, 20, ['746', '.4120942', 'REE']],
  [
    'an LC number between its parts',
    { scheme: 'lc', class: 'QH541.5', item: '.S3 W45 1998' },
    20,
    ['QH', '541.5', '.S3', 'W45', '1998'],
  ],
  [
    'a date within the class',
    { scheme: 'lc', class: 'G3701 1850', item: '.B7' },
    20,
    ['G', '3701', '1850', '.B7'],
  ],
  [
    'an NLM number',
    { scheme: 'nlm', class: 'WG 120', item: 'M23h 2004' },
    20,
    ['WG', '120', '.M23h', '2004'],
  ],
  [
    'words of one’s own scheme at blanks and hyphens',
    { scheme: 'own', class: 'Fiction-Reedman', item: '' },
    20,
    ['Fiction-', 'Reedman'],
  ],
])('%s', (_, more, width, expected) =>
  expect(lines(more, width)).toEqual({ lines: expected, problem: null }),
);

test('what does not fit is told and nothing of it is lost', () => {
  expect(lines({ class: 'Wickmereinstitute' })).toEqual({
    lines: ['Wickmereinstitute', 'REE'],
    problem: '“Wickmereinstitute” is too wide for the label.',
  });
  expect(lines({ suffix: 'a b c d' }, 20, 4).problem).toBe('6 lines do not fit; the label has room for 4.');
});

test('a Dewey number set on a label is the same number when its lines are put together', () => {
  const digits = fc.stringMatching(/^\d{3}\.\d{1,14}$/);
  fc.assert(
    fc.property(digits, fc.integer({ min: 6, max: 30 }), (cls, width) => {
      const { lines: set } = lines({ class: cls, item: '' }, width);
      expect(set.join('')).toBe(cls);
    }),
  );
});

test('labels stand row by row from the n-th on, and go on over the page', () => {
  const [sheet] = LABEL_SHEETS;
  const places = labelPlaces(sheet!, 50, 3);
  expect(places[0]).toEqual({ page: 0, x: 10 + 2 * 48.3, y: 10.5 });
  expect(places[2]).toEqual({ page: 0, x: 10, y: 33.5 });
  expect(places.filter((p) => p.page === 0)).toHaveLength(46);
  expect(places[46]).toEqual({ page: 1, x: 10, y: 10.5 });
});

test('the sheets to begin with hold; one that runs over the page is told at its field', () => {
  for (const sheet of LABEL_SHEETS) expect([sheet.name, labelSheetProblems(sheet)]).toEqual([sheet.name, []]);
  const [sheet] = LABEL_SHEETS;
  expect(labelSheetProblems({ ...sheet!, columns: 5 })).toEqual([
    { field: 'columns', message: '5 labels beside each other end at 248.2 mm; the page is 210 mm wide.' },
  ]);
  expect(labelSheetProblems({ ...sheet!, rows: 14 })[0]?.field).toBe('rows');
  expect(labelSheetProblems({ ...sheet!, width: 5, height: 4 }).map((p) => p.field)).toEqual([
    'width',
    'height',
  ]);
});
