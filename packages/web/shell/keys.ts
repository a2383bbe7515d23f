/** A key, and what it does. */
export type KeyLine = readonly [key: string, what: string];

/** Keys that work everywhere. */
export const KEYS: readonly KeyLine[] = [
  ['/', 'Scan line'],
  ['Down in the scan line', 'Last inputs, suggestions'],
  ['F6, Shift F6', 'Scan line, list, piece'],
  ['Alt 1 … 9', 'Areas'],
  ['?', 'These keys'],
  ['Up, Down', 'Move in a list'],
  ['Space', 'Tick'],
  ['Enter', 'Open'],
  ['Esc', 'Back, leave without saving'],
  ['Ctrl Enter', 'The act of the sheet'],
  ['Alt Z', 'Undo your last act'],
];

const FIELD_KEYS: readonly KeyLine[] = [
  ['Up, Down', 'Move among the fields'],
  ['Enter', 'Edit the field'],
  ['f', 'Apply the fix of the field'],
  ['Alt +', 'Add a subfield while editing'],
  ['Ctrl S', 'Save'],
];

/** Keys of one area, by the beginning of its path. */
const OF_AREAS: readonly (readonly [path: string, keys: readonly KeyLine[]])[] = [
  ['/catalogue', FIELD_KEYS],
  ['/deliveries/', [...FIELD_KEYS, ['Left, Right', 'Move among the decisions']]],
  [
    '/stocktake',
    [
      ['Left, Right', 'Walk along the shelf strip'],
      ['n', 'Next finding on the strip'],
      ['+, −', 'Zoom'],
      ['Home, End', 'Beginning and end of the strip'],
      ['Enter', 'Open the copy'],
    ],
  ],
];

/** The keys that an area has of its own. */
export const keysOfArea = (path: string): readonly KeyLine[] =>
  OF_AREAS.find(([start]) => path.startsWith(start))?.[1] ?? [];
