/** Every text of Today. */
export const todayWords = {
  // Attention
  needsAttention: 'Needs attention',
  thingsAreDuplicatesOrAttached: (data: number) =>
    `${data} things are duplicates or attached to nothing. Change one of each pair and it leaves this list.`,
  what: 'What',
  name: 'Name',
  why: 'Why',
  // BranchTable
  branch: 'Branch',
  records: 'Records',
  copies: 'Copies',
  // FirstSteps
  nameTheBranchesAndLocations: 'Name the branches and locations',
  lookThroughTheHouseRules: 'Look through the house rules',
  reserveALabelRollFor: 'Reserve a label roll for barcodes',
  loadAFileOfRecords: 'Load a file of records',
  acceptItsRecords: 'Accept its records',
  firstSteps: 'First steps',
  done: 'done',
  // QuickActs
  scanOrSearch: 'Scan or search',
  loadAFile: 'Load a file',
  startAStocktake: 'Start a stocktake',
  startAWithdrawalList: 'Start a withdrawal list',
  // Today
  today: 'Today',
  waiting: 'Waiting',
  nothingIsWaitingLoadA: 'Nothing is waiting. Load a file in',
  deliveries: 'Deliveries',
  orScanSomethingAtThe: ', or scan something at the top.',
  notSavedYet: 'Not saved yet',
  begin: 'Begin',
  recentWork: 'Recent work',
  nothingHasBeenDoneYet: 'Nothing has been done yet.',
  findingsInTheCatalogue: 'Findings in the catalogue',
  theLibraryByBranch: 'The library by branch',
  thingsNeedAttention: 'things need attention',
  duplicatesOrAttachedToNothing: 'duplicates, or attached to nothing',
  groupsOfLookAlikeNames: 'groups of look-alike names',
  mergeOrKeepApart: 'merge or keep apart',
  withErrors: (errors: string) => `${errors} with errors`,
  noErrorsFound: 'no errors found',
  copiesOnTheWithdrawalList: (name: string) => `copies on the withdrawal list ${name}`,
  toCheckAndConfirm: 'to check and confirm',
  copiesNotYetScannedIn: (name: string) => `copies not yet scanned in ${name}`,
  ofFound: (found: string, expected: string) => `${found} of ${expected} found`,
} as const;
