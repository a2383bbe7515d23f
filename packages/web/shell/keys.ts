import { shellWords as wording } from './words';
/** A key, and what it does. */
export type KeyLine = readonly [key: string, what: string];

/** Keys that work everywhere. */
export const KEYS: readonly KeyLine[] = [
  ['/', wording.scanLine],
  [wording.downInTheScanLine, wording.lastInputsSuggestions],
  [wording.f6ShiftF6, wording.scanLineListPiece],
  [wording.alt19, wording.areas],
  ['?', wording.theseKeys],
  [wording.upDown, wording.moveInAList],
  ['Space', wording.tick],
  ['Enter', wording.open],
  [wording.esc, wording.backCancel],
  [wording.ctrlEnter, wording.confirmTheSheetOrGo],
  [wording.altZ, wording.undoYourLastAct],
];

const FIELD_KEYS: readonly KeyLine[] = [
  [wording.upDown, wording.moveAmongTheFields],
  ['Enter', wording.editTheField],
  ['f', wording.applyTheFixOfThe],
  ['$ + a', wording.beginASubfield],
  [wording.alt2, wording.addASubfieldWhileEditing],
  [wording.shiftTab, wording.backToIndicatorsAndTag],
  [wording.altUpDown, wording.moveTheFieldOrSubfield],
  [wording.spaceShiftUpDown, wording.selectFields],
  [wording.deleteD, wording.deleteOrDuplicateThem],
  ['s, j', wording.splitOrJoin],
  ['8', wording.addAPartner],
  [wording.ctrlCXV, wording.copyCutPaste],
  [wording.ctrlZY, wording.undoRedoEdit],
  [wording.ctrlS, wording.save],
];

/** Keys of one area, by the beginning of its path. */
const OF_AREAS: readonly (readonly [path: string, keys: readonly KeyLine[]])[] = [
  ['/catalogue', FIELD_KEYS],
  ['/deliveries/', [...FIELD_KEYS, [wording.leftRight, wording.moveAmongTheDecisions]]],
  [
    '/stocktake',
    [
      [wording.leftRight, wording.walkAlongTheShelfStrip],
      ['n', wording.nextFindingOnTheStrip],
      ['+, −', wording.zoom],
      [wording.homeEnd, wording.beginningAndEndOfThe],
      ['Enter', wording.openTheCopy],
    ],
  ],
];

/** The keys that an area has of its own. */
export const keysOfArea = (path: string): readonly KeyLine[] =>
  OF_AREAS.find(([start]) => path.startsWith(start))?.[1] ?? [];
