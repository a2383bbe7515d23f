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
  addABriefRecord: 'Add a brief record',
  addARecord: 'Add a record',
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
  services: 'Services',
  since: (time: string) => `, since ${time}`,
  theLibraryByBranch: 'The library by branch',
  thingsNeedAttention: 'things need attention',
  duplicatesOrAttachedToNothing: 'duplicates, or attached to nothing',
  groupsOfLookAlikeNames: 'groups of look-alike headings',
  mergeOrKeepApart: 'merge or keep apart',
  fullRecordsOffered: (n: number) =>
    n === 1 ? 'full record is offered for a brief one' : 'full records are offered for brief ones',
  takeOrRefuse: 'take or refuse',
  briefRecordsWait: (n: number) =>
    n === 1 ? 'brief record has waited long' : 'brief records have waited long',
  noNeighbourHasThem: 'their full records have not come',
  withErrors: (errors: string) => `${errors} with errors`,
  noErrorsFound: 'no errors found',
  copiesOnTheWithdrawalList: (name: string) => `copies on the withdrawal list ${name}`,
  toCheckAndConfirm: 'to check and confirm',
  copiesNotYetScannedIn: (name: string) => `copies not yet scanned in ${name}`,
  ofFound: (found: string, expected: string) => `${found} of ${expected} found`,
} as const;
