/** Every text of Copies. */
export const copiesWords = {
  // BeginPile
  newPile: 'New pile',
  name: 'Name',
  aPileOf: 'A pile of',
  note: 'Note',
  whatItIsForUntil: 'what it is for, until when, for whom',
  addPile: 'Add pile',
  // Copies
  copies: 'Copies',
  kept: (piles: string) => `${piles} kept.`,
  noPileIsKept: 'No pile is kept.',
  newPile2: 'New pile',
  piles: 'Piles',
  aPileIsANamed:
    'A pile is a named set of copies or records that you go on with tomorrow. Start one and scan, or search the Catalogue and add what is found.',
  startedBy: (by: string) => `started by ${by}`,
  // CopiesOverview
  aPileIsANamedSet:
    'A pile is a named set of copies or records to work on together. Open one at the left to scan onto it, to clean what is on it with a recipe, or to see it in the Catalogue.',
  copiesByBranch: 'Copies by branch',
  copiesByType: 'Copies by type',
  copiesByStatus: 'Copies by status',
  // PileName
  saveNameAndNote: 'Save name and note',
  // PilePiece
  added: (added: string) => `${added} added`,
  alreadyThere: (repeated: number) => `${repeated} already there`,
  notKnown: (unknownLength: number) => `${unknownLength} not known`,
  backToThePiles: 'Back to the piles',
  startedByOn: (count: string, by: string, madeOn: string, note: string) =>
    `${count} · started by ${by} on ${madeOn}${note}`,
  seeItInTheCatalogue: 'See it in the Catalogue',
  runARecipeOverThis: 'Run a recipe over this pile',
  cleanTheseRecords: 'Clean these records…',
  cleanTheirRecords: 'Clean their records…',
  scanOrPasteBarcodes: 'Scan or paste barcodes',
  barcodesIsbnsRecordNumbersR12: 'Barcodes, ISBNs, record numbers (r12)',
  notAddedToThePile: (unknown: number) => `Not added to the pile: ${unknown}`,
  dismiss: 'Dismiss',
  they: 'They',
  ofThisPileNotIn: (gone: string, gone2: string, gone3: string) =>
    `${gone} of this pile ${gone2} not in the catalogue now. ${gone3} will be here again when that is undone.`,
  thePileIsEmptyScan:
    'The pile is empty. Scan into the field above, or search the Catalogue and add what is found.',
  onThisPile: 'On this pile',
  removeFromPile: (chosen: string) => `Remove ${chosen} from pile`,
  showMoreAreNotShown: (count: string) => `Show more · ${count} are not shown`,
  changeNameAndNote: 'Change name and note',
  deletePile: 'Delete pile',
  whatIsOnItStays: 'What is on it stays in the catalogue.',
  cleanThePile: (name: string) => `Clean the pile ${name}`,
  // PiledLine
  choose: (title: string, barcode: string) => `Choose ${title}${barcode}`,
} as const;
