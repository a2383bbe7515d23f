import { counted } from '@osier/core/changes';

/** Texts of the local fields of copies. */
export const localFieldWords = {
  localFields: 'Local fields',
  localField: 'Local field',
  newLocalField: 'New local field',
  whatALocalFieldIs:
    'What this library keeps of its copies beside what all libraries do: shown with each copy, found and changed in the list of copies, and written into exports. At most twelve for a type.',
  noLocalFields: 'No local fields yet.',
  whatItHolds: 'Holds',
  oneOf: (choices: string) => `one of: ${choices}`,
  localForms: {
    text: 'a text of up to 50 characters',
    number: 'a number',
    date: 'a date',
    choice: 'a choice',
    link: 'a link',
  },
  copiesOfType: 'Copies of type',
  allTypes: 'all types',
  copiesWithAValue: 'Copies with a value',
  choices: 'Choices',
  enterAfterEach: 'Enter after each.',
  staysWhileUsed: (n: string) => `Stays as it is while copies have a value: ${n}.`,
  saveLocalField: 'Save local field',
  addLocalField: 'Add local field',
  deleteLocalField: 'Delete local field',
  deleteTheField: (name: string) => `Delete the local field “${name}”?`,
  valuesGo: (n: number) =>
    n === 0
      ? 'No copy has a value in it.'
      : `The values of ${counted(n, 'copy', 'copies')} go with it. Undo brings all of them back.`,
  name: 'Name',
  change: 'Change',
  cancel: 'Cancel',
};
