/** Every text of the Daybook. */
export const daybookWords = {
  // Daybook
  daybook: 'Daybook',
  moreThanEntries: (rows: number) => `More than ${rows} entries`,
  found: ' found',
  everyActCanBeUndone: (hasNextPage: string, isNarrowed: string) =>
    `${hasNextPage}${isNarrowed}. Every act can be undone from here.`,
  entries: 'Entries',
  correctTheFilterAbove: 'Correct the filter above.',
  noEntriesMatchRemoveA: 'No entries match. Remove a filter.',
  nothingHasBeenDoneYet: 'Nothing has been done yet.',
  undo: 'Undo',
  entry: (id: number, person: string, at: string) => `Entry ${id}, ${person}, ${at}`,
  undoneBy: ', undone by',
  entry2: (undoneBy: number) => `entry ${undoneBy}`,
  undoes: ', undoes',
  entry3: (undoes: number) => `entry ${undoes}`,
  andMoreChanges: (more: number) => `And ${more} more changes.`,
  becomes: 'becomes',
  // DaybookOverview
  entriesAndUndo: 'Entries and Undo',
  everythingThatChangesTheCatalogue:
    'Everything that changes the catalogue is an entry, with what it changed. Open one at the left to see it before and after.',
  undoTakesAnEntryBack:
    'Undo takes an entry back after a review. What somebody has changed since is named there and left as it is.',
  undoesYourOwnLastAct: 'undoes your own last act from anywhere.',
  myEntries: 'My entries',
  // EntryFilters
  person: 'Person',
  anybody: 'Anybody',
  area: 'Area',
  allAreas: 'All areas',
  kindOfAct: 'Kind of act',
  allActs: 'All acts',
  days: 'Days',
  fromDay: 'from day',
  toDay: 'to day',
  recordHeadingOrBarcode: 'Record, heading or barcode',
  r12H3OrABarcode: 'r12, h3 or a barcode',
  // EntryLine
  undoneByEntry: (undoneBy: number) => ` · undone by entry ${undoneBy}`,
  // RecentWork
  nothingOfYoursYet: 'Nothing of yours yet.',
} as const;
