/** What of the copy itself can be changed in many at once. `local` is a local field of the library, which `field` names. */
export const COPY_EDITS = [
  'type',
  'status',
  'loanRule',
  'price',
  'fund',
  'supplier',
  'acquired',
  'condition',
  'note',
  'staffNote',
  'local',
] as const;
/** What of the place where a copy stands. `callNumber` is all of it, made by the rules of the house. */
export const PLACE_EDITS = [
  'branch',
  'location',
  'prefix',
  'class',
  'item',
  'year',
  'suffix',
  'callNumber',
] as const;
/** What can be changed in many copies at once. */
export const EDITED_PARTS = [...COPY_EDITS, ...PLACE_EDITS] as const;
export type EditedPart = (typeof EDITED_PARTS)[number];

/** How a part is changed; `house` makes the call number by the rules of the house. */
export const EDIT_WAYS = ['set', 'clear', 'add', 'replace', 'house'] as const;
export type EditWay = (typeof EDIT_WAYS)[number];

/** One change to many copies. */
export interface PartEdit {
  readonly part: EditedPart;
  /** The number of the local field that is changed; absent for any other part. */
  readonly field?: number;
  readonly how: EditWay;
  /** What it is set to, what is added behind, or what takes the place of `find`. */
  readonly value: string;
  /** The text that is replaced wherever it stands; capitals count. */
  readonly find: string;
}
