/** Every text of Copies. */
export const wording = {
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
  beginAPile: 'Begin a pile',
  piles: 'Piles',
  aPileIsANamed:
    'A pile is a named set of copies or records that you go on with tomorrow. Begin one and scan, or search the Catalogue and put what is found on a pile.',
  begunBy: (by: string) => `begun by ${by}`,
  // CopiesOverview
  aPileIsANamedSet:
    'A pile is a named set of copies or records to work on together. Open one at the left to scan onto it, to clean what is on it with a recipe, or to see it in the Catalogue.',
  copiesByBranch: 'Copies by branch',
  copiesByType: 'Copies by type',
  copiesByStatus: 'Copies by status',
  // PileName
  saveNameAndNote: 'Save name and note',
  // PilePiece
  putOn: (added: string) => `${added} put on`,
  wereThereAlready: (repeated: number) => `${repeated} were there already`,
  notKnown: (unknownLength: number) => `${unknownLength} not known`,
  backToThePiles: 'Back to the piles',
  begunByOn: (count: string, by: string, madeOn: string, note: string) =>
    `${count} · begun by ${by} on ${madeOn}${note}`,
  seeItInTheCatalogue: 'See it in the Catalogue',
  runARecipeOverThis: 'Run a recipe over this pile',
  cleanTheseRecords: 'Clean these records…',
  cleanTheirRecords: 'Clean their records…',
  scanOrPasteBarcodes: 'Scan or paste barcodes',
  barcodesIsbnsRecordNumbersR12: 'Barcodes, ISBNs, record numbers (r12)',
  notPutOnThePile: (unknown: number) => `Not put on the pile: ${unknown}`,
  iHaveSeenThem: 'I have seen them',
  they: 'They',
  ofThisPileNotIn: (gone: string, gone2: string, gone3: string) =>
    `${gone} of this pile ${gone2} not in the catalogue now. ${gone3} will be here again when that is undone.`,
  nothingLiesHereYetScan:
    'Nothing lies here yet. Scan into the field above, or search the Catalogue and put what is found on this pile.',
  onThisPile: 'On this pile',
  takeOff: (chosen: string) => `Take ${chosen} off`,
  showMoreAreNotShown: (count: string) => `Show more · ${count} are not shown`,
  changeNameAndNote: 'Change name and note',
  deletePile: 'Delete pile',
  whatLiesOnItStays: 'What lies on it stays in the catalogue.',
  cleanThePile: (name: string) => `Clean the pile ${name}`,
  // PiledLine
  choose: (title: string, barcode: string) => `Choose ${title}${barcode}`,
} as const;
