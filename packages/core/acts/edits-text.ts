import type { KeptLocalField, PartEdit } from '../holdings';
import { quoted } from './words';

/** What of many copies is changed. */
const EDIT_NAMES: Readonly<Record<PartEdit['part'], string>> = {
  type: 'type',
  status: 'status',
  loanRule: 'loan rule',
  price: 'price',
  fund: 'fund',
  supplier: 'supplier',
  acquired: 'date acquired',
  condition: 'condition',
  note: 'note',
  staffNote: 'staff note',
  local: 'local field',
  branch: 'branch',
  location: 'location',
  prefix: 'prefix',
  class: 'class',
  item: 'author mark',
  year: 'year',
  suffix: 'suffix',
  callNumber: 'call number',
};

/** Changes to many copies in words: "status to missing, note cleared"; `fields` are the local fields of the library. */
export const editsText = (edits: readonly PartEdit[], fields: readonly KeptLocalField[]): string =>
  edits
    .map(({ part, field, how, value, find }) => {
      const local = fields.find((f) => f.id === field)?.value;
      const name = local ? quoted(local.name) : EDIT_NAMES[part];
      if (how === 'clear') return `${name} cleared`;
      if (how === 'house') return `${name} by house style`;
      if (how === 'replace') return `${quoted(find)} in ${name} to ${quoted(value)}`;
      return how === 'add' ? `${quoted(value)} added to ${name}` : `${name} to ${value}`;
    })
    .join(', ');
