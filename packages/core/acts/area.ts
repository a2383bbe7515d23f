import type { ActName } from './act';

/** The areas of the house, and undoing, as the daybook tells acts apart. */
export const ACT_AREAS = [
  'Deliveries',
  'Neighbours',
  'Catalogue',
  'Headings',
  'Copies',
  'Withdrawals',
  'Stocktake',
  'Set-up',
  'Undo',
] as const;
export type ActArea = (typeof ACT_AREAS)[number];

/** What each act is called in a list, and where it is done; what was told before acts were data is done anywhere. */
export const ACT_KINDS: Readonly<Record<ActName, { readonly name: string; readonly area: ActArea | null }>> =
  {
    told: { name: 'Earlier entry', area: null },
    deliver: { name: 'Load file', area: 'Deliveries' },
    settings: { name: 'Change settings of a delivery', area: 'Deliveries' },
    match: { name: 'Match again', area: 'Deliveries' },
    decide: { name: 'Decide', area: 'Deliveries' },
    correct: { name: 'Correct incoming record', area: 'Deliveries' },
    clean: { name: 'Clean delivery', area: 'Deliveries' },
    accept: { name: 'Accept', area: 'Deliveries' },
    'take-back': { name: 'Undo accepting', area: 'Deliveries' },
    'make-record': { name: 'Add record', area: 'Catalogue' },
    'make-brief': { name: 'Add brief record', area: 'Catalogue' },
    'copy-record': { name: 'Copy record', area: 'Neighbours' },
    'grow-record': { name: 'Replace brief record', area: 'Neighbours' },
    'grow-records': { name: 'Replace brief records', area: 'Neighbours' },
    'merge-records': { name: 'Merge records', area: 'Catalogue' },
    'records-apart': { name: 'Keep records apart', area: 'Catalogue' },
    'delete-record': { name: 'Delete record', area: 'Catalogue' },
    suppress: { name: 'Suppress record', area: 'Catalogue' },
    'edit-record': { name: 'Edit record', area: 'Catalogue' },
    'clean-records': { name: 'Clean records', area: 'Catalogue' },
    merge: { name: 'Merge headings', area: 'Headings' },
    'add-heading': { name: 'Add heading', area: 'Headings' },
    'edit-heading': { name: 'Edit authority record', area: 'Headings' },
    'delete-headings': { name: 'Delete headings', area: 'Headings' },
    'make-headings': { name: 'Make headings that records carry', area: 'Headings' },
    'take-authorities': { name: 'Load authority records', area: 'Headings' },
    'merge-all': { name: 'Merge all that are the same', area: 'Headings' },
    'change-heading': { name: 'Change heading', area: 'Headings' },
    'split-heading': { name: 'Split heading', area: 'Headings' },
    'keep-apart': { name: 'Keep apart', area: 'Headings' },
    'look-later': { name: 'Look at later', area: 'Headings' },
    'add-holding': { name: 'Add holding', area: 'Copies' },
    'add-copy': { name: 'Add copy', area: 'Copies' },
    'change-copy': { name: 'Change copy', area: 'Copies' },
    'change-holding': { name: 'Change holding', area: 'Copies' },
    'delete-holding': { name: 'Delete holding', area: 'Copies' },
    'move-holding': { name: 'Move holding', area: 'Copies' },
    'join-holdings': { name: 'Join holdings', area: 'Copies' },
    'move-copy': { name: 'Move copy', area: 'Copies' },
    'swap-barcodes': { name: 'Swap barcodes', area: 'Copies' },
    'add-copies': { name: 'Add copies', area: 'Copies' },
    'load-loans': { name: 'Load loan figures', area: 'Copies' },
    'change-copies': { name: 'Change copies', area: 'Copies' },
    pile: { name: 'Pile', area: 'Copies' },
    'delete-list': { name: 'Delete withdrawal list', area: 'Withdrawals' },
    'change-list': { name: 'Change withdrawal list', area: 'Withdrawals' },
    'start-list': { name: 'Start withdrawal list', area: 'Withdrawals' },
    restore: { name: 'Undo withdrawals', area: 'Withdrawals' },
    withdraw: { name: 'Withdraw', area: 'Withdrawals' },
    'tell-union': { name: 'Tell the union catalogue', area: 'Withdrawals' },
    'start-stocktake': { name: 'Start stocktake', area: 'Stocktake' },
    'load-scans': { name: 'Load scans', area: 'Stocktake' },
    settle: { name: 'Settle findings', area: 'Stocktake' },
    'close-stocktake': { name: 'Close stocktake', area: 'Stocktake' },
    'set-up': { name: 'Lists, rules, suppliers', area: 'Set-up' },
    recipe: { name: 'Recipe', area: 'Set-up' },
    'keep-sheet': { name: 'Keep sheet of labels', area: 'Copies' },
    'keep-search': { name: 'Save search', area: 'Catalogue' },
    account: { name: 'Account', area: 'Set-up' },
    'first-fill': { name: 'First filling', area: 'Set-up' },
    undo: { name: 'Undo', area: 'Undo' },
  };

/** The names of all acts. */
export const ACT_NAMES = Object.keys(ACT_KINDS) as readonly ActName[];

/** The acts of an area. */
export const actsOfArea = (area: ActArea): ActName[] =>
  ACT_NAMES.filter((act) => ACT_KINDS[act].area === area);
