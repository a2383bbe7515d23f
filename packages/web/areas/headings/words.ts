/** Every text of Headings. */
export const headingsWords = {
  // GroupPiece
  onePersonOrSeveral: 'One person, or several?',
  oneHeadingOrSeveral: 'One heading, or several?',

  verdicts: { same: 'Same', perhaps: 'Perhaps', different: 'Different' },
  judgedPair: (verdict: string, names: readonly string[], evidence: readonly string[]) =>
    `${verdict}${names.length ? ` (${names.join(' and ')})` : ''}: ${evidence.join('; ')}.`,
  sources: (sources: string) => `Sources: ${sources}`,
  ofItsFirstRecords: ' (of its first records)',
  chooseTheKeptForm: 'Choose the kept form',
  keptForm: 'Kept form',
  becomesASeeFrom: 'Becomes a see-from',
  heading: (id: string) => `${id} · heading`,
  n1Record: '1 record',
  records: (records: number) => `${records} records`,
  seeFrom: (seeFrom: string) => `See-from: ${seeFrom}`,
  merge: 'merge',
  mergeHeadingsInto1: (lost: number) => `Merge ${lost} headings into 1…`,
  differentPeople: 'Different people',
  differentHeadings: 'Different headings',
  andAreDifferent: (a: number, b: number) => `${a} and ${b} are different`,
  mergeHeadingsInto12: (lost: number) => `Merge ${lost} headings into 1`,
  // HeadingPiece
  heading2: (id: number, kind: string) => `Heading ${id}, ${kind}`,
  thisHeadingWasMergedIts: 'This heading was merged. Its number leads to',
  heading3: (mergedInto: number) => `heading ${mergedInto}`,
  mergedFrom: 'Merged from',
  n1RecordUsesIt: '1 record uses it',
  recordsUseIt: (usedByLength: number) => `${usedByLength} records use it`,
  // Headings
  headings: 'Headings',
  groupsOfNamesThatMay: (total: string) => `${total} groups of headings that may be one.`,
  noNamesLookAlike: 'No headings look alike.',
  namesAreStillBeingCompared: (comparing: string) => ` ${comparing} are still being compared.`,
  show: 'Show',
  lookAlikes: 'Look-alikes',
  allHeadings: 'All headings',
  noPersonalNamesLookAlike: 'No headings look alike: nothing to merge.',
  records2: (part: number) => `${part} records`,
  findHeadings: 'Find headings',
  wordsOfAHeading: 'Words of a heading',
  noHeadingHasTheseWords: 'No heading has these words.',
  // HeadingsOverview
  headingsByKind: 'Headings by kind',
  authorityWork: 'Authority work',
  groupsOfLookAlikeNames: 'Groups of look-alikes',
  openAGroupToCompare:
    'Open a group to compare the forms, their see-froms and their titles, and to see what speaks for and against. Choose the form to keep and merge the others into it, or record that they are different; they are then not offered again.',
  theFormsThatAreMerged: 'The forms that are merged away become see-froms of the kept form.',
  myRecentWork: 'My recent work',
} as const;
