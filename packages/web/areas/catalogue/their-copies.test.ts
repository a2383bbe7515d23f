import { theirCopies } from './their-copies';

const none = {
  ...{ language: undefined, branch: undefined, material: undefined, finding: undefined },
  ...{ pile: undefined, delivery: undefined, status: undefined, type: undefined, suppressed: undefined },
};
const asked = (address: string | null) =>
  address && Object.fromEntries(new URLSearchParams(address.split('?')[1]));

test.each([
  ['willow hurdle', 'words', {}, { q: 'willow hurdle' }],
  [
    'willow',
    'words',
    { language: 'eng', branch: 'MR' },
    { q: 'words all "willow*" and language = "eng"', branch: 'MR' },
  ],
  [
    'title = eels or subject = eels',
    'query',
    { material: 'Books' },
    { q: 'title = "eels" or subject = "eels" and format = "Books"' },
  ],
  ['978-0-306-40615-7', 'isbn', {}, { q: 'isbn = "9780306406157"' }],
  ['746.41', 'call number', {}, { q: 'callnumber = "746.41*"' }],
  ['746.41 REE', 'call number', {}, { q: 'callnumber = "746.41 REE*"' }],
  ['record 12', 'record', {}, { q: 'record = "12"' }],
  ['heading 7', 'heading', { status: 'lost' }, { q: 'heading = "7"', status: 'lost' }],
  ['', 'words', { pile: 4, suppressed: 'yes' }, { q: 'pile = "4" and suppressed = "yes"' }],
] as const)('the copies of “%s”', (q, tookFor, search, wanted) => {
  expect(asked(theirCopies({ ...none, q, ...search }, tookFor, []))).toEqual(wanted);
});

test('a field address asks nothing of copies', () => {
  expect(theirCopies({ ...none, q: '650$a' }, 'field address', [])).toBeNull();
});
