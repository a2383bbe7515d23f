import { DEFAULT_HOUSE, isProtected } from '../house';
import { codeProblem, placeProblems, type CodeLists } from '.';

const lists: CodeLists = {
  branches: [
    { code: 'MR', name: 'Millrace' },
    { code: 'SH', name: 'Sedge House' },
  ],
  locations: [
    { code: 'OPEN', name: 'Open shelves', branch: 'MR' },
    { code: 'READ', name: 'Reading room', branch: 'SH' },
  ],
  types: [],
  funds: [],
  suppliers: [],
};

test.each<[string, { branch: string; location: string }, string[]]>([
  ['both right', { branch: 'MR', location: 'OPEN' }, []],
  [
    'capitals count',
    { branch: 'mr', location: 'OPEN' },
    ['“mr” is not a branch here. Nearest: MR (Millrace) or SH (Sedge House).'],
  ],
  [
    'a location of another branch',
    { branch: 'MR', location: 'READ' },
    ['“READ” is not a location here. Nearest: OPEN (Open shelves).'],
  ],
  ['nothing chosen', { branch: '', location: '' }, ['Choose a branch.']],
])('%s', (_, place, said) => expect(placeProblems(place, lists).map((p) => p.message)).toEqual(said));

test('an empty list says where to fill it', () =>
  expect(codeProblem('type', 'type', 'BK', lists.types)!.message).toContain('Set-up'));

test.each([
  ['949', true],
  ['590', true],
  ['692', true],
  ['099', true],
  ['245', false],
  ['500', false],
])('%s survives a replacement: %p', (tag, kept) => {
  expect(isProtected(tag, DEFAULT_HOUSE)).toBe(kept);
});
test('a pattern that is no tag protects nothing by accident', () => {
  expect(isProtected('245', { ...DEFAULT_HOUSE, protectedFields: ['(.*)', '', '24'] })).toBe(false);
});
