import { actSentence, actUndone, quoted, searchName, type Act } from '.';
import { NO_TOTALS } from '../deliveries';

const withdraw: Act = { act: 'withdraw', names: { list: 'Trolley' }, counts: { copies: 18, records: 1 } };
const undone: Act = { act: 'undo', of: withdraw, again: false };

test.each<[Act, string]>([
  [{ act: 'told', sentence: 'Took in the delivery “a.mrc”' }, 'Took in the delivery “a.mrc”'],
  [{ act: 'deliver', names: { delivery: 'a.mrc' } }, 'Loaded the delivery “a.mrc”'],
  [
    {
      act: 'accept',
      names: { delivery: 'a.mrc' },
      counts: { ...NO_TOTALS, added: 40, replaced: 2, copies: 52, newHeadings: 1, meanwhile: 1 },
    },
    'Accepted 42 records of “a.mrc”: 40 new, 2 replaced, 52 copies, 1 new heading; 1 left as it was, because somebody changed it since the review',
  ],
  [{ act: 'accept', names: { delivery: 'a.mrc' }, counts: NO_TOTALS }, 'Accepted 0 records of “a.mrc”'],
  [
    { act: 'decide', names: { delivery: '' }, counts: { records: 1 }, outcome: 'skip' },
    'Chose “skip” for 1 incoming record',
  ],
  [
    {
      act: 'clean-records',
      names: { recipe: 'House style' },
      counts: { changed: 3, meanwhile: 2 },
      of: { q: 'willow', facets: ['ger'], within: 'the pile “Trolley”' },
    },
    'Ran “House style” over what “willow”, ger finds in the pile “Trolley”: 3 records changed; 2 left as they were, because somebody changed them since the review',
  ],
  [
    {
      act: 'add-copy',
      names: { title: 'Eels', barcode: '31204000517715', part: 'v. 2' },
      counts: { number: 1 },
    },
    'Added v. 2, copy 1 (3 1204 00051771 5) to “Eels”',
  ],
  [
    { act: 'change-copy', names: { barcode: '1' }, status: { from: 'available', to: 'missing' } },
    'Copy 1 is now missing, was available',
  ],
  [
    {
      act: 'settle',
      names: { stocktake: '746' },
      counts: { 'mark-missing': 2, 'mark-found': 0, 'correct-location': 1 },
    },
    'Settled 3 findings of “746”: 2 marked missing, 1 given the right location',
  ],
  [
    { act: 'set-up', what: 'lists', counts: { branches: 2, locations: 1, types: 3, funds: 0, suppliers: 4 } },
    'Changed the code lists: 2 branches, 1 location, 3 types and 2 more',
  ],
  [{ act: 'set-up', what: 'roll', how: 'deleted', names: { name: 'A' } }, 'Deleted the label roll “A”'],
  [
    { act: 'pile', names: { pile: 'P' }, did: { how: 'added', of: 'copy', count: 1 } },
    'Added 1 copy to the pile “P”',
  ],
  [
    {
      act: 'account',
      names: { person: 'Ada' },
      did: { how: 'changed', role: { from: 'assistant', to: 'head' }, password: true },
    },
    'Changed the account of Ada: made head, was assistant, given a new password',
  ],
  [withdraw, 'Withdrew 18 copies from “Trolley”, and 1 record with the last copy'],
  [undone, 'Undid: Withdrew 18 copies from “Trolley”, and 1 record with the last copy'],
  [
    { act: 'undo', of: withdraw, again: true },
    'Redid: Withdrew 18 copies from “Trolley”, and 1 record with the last copy',
  ],
])('%j', (act, sentence) => expect(actSentence(act)).toBe(sentence));

test('the act at the bottom of a chain of undoings', () =>
  expect(actUndone({ act: 'undo', of: undone, again: true })).toBe(withdraw));
test('a search of everything', () =>
  expect(searchName({ q: '', facets: [], within: null })).toBe('the whole catalogue'));
test('a long title is cut', () => expect(quoted('x'.repeat(80))).toBe(`“${'x'.repeat(59)}…”`));
