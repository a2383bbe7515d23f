import type { DataField, Field, Subfield } from '../record';

/** Marks that a field bears at the most; the oldest goes. */
const MARKS = 8;
const UNMARKED: readonly object[] = [];

/**
 * A data field as it was read. Fields that come again may be shared between records; such a field can be marked with
 * what holds of it wherever it stands. All fields are of one class, because the engine is quickest with that.
 */
export class ReadField implements DataField {
  #marks: readonly object[] | null = null;
  constructor(
    readonly tag: string,
    readonly ind1: string,
    readonly ind2: string,
    readonly subfields: readonly Subfield[],
  ) {}
  /** From now on it may be in several records. */
  share(): this {
    this.#marks ??= UNMARKED;
    return this;
  }
  static isShared(field: ReadField): boolean {
    return field.#marks !== null;
  }
  static isMarked(field: ReadField, mark: object): boolean {
    const marks = field.#marks;
    return marks !== null && (marks[0] === mark || marks.includes(mark));
  }
  static mark(field: ReadField, mark: object): void {
    if (field.#marks && !field.#marks.includes(mark))
      field.#marks = [mark, ...field.#marks.slice(0, MARKS - 1)];
  }
}

/** Whether a field is linked to one in another script (MARC 21, appendix A: subfield 6). */
export function hasLink({ subfields }: DataField): boolean {
  for (let i = 0; i < subfields.length; i++) if (subfields[i]!.code === '6') return true;
  return false;
}

/** Whether a field may be met again as the same value, in another record; one that is linked never is. */
export const isShared = (field: Field): boolean => field instanceof ReadField && ReadField.isShared(field);

/** Whether a field that may be met again bears a mark. */
export const isMarked = (field: Field, mark: object): boolean =>
  field instanceof ReadField && ReadField.isMarked(field, mark);

/** Marks a field that may be met again with something that holds of it wherever it stands; others are left as they are. */
export function markShared(field: Field, mark: object): void {
  if (field instanceof ReadField) ReadField.mark(field, mark);
}
