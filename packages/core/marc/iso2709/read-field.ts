import type { DataField, Field, Subfield } from '../record';

/**
 * A data field as it was read. Fields that come again may be shared between the records of a file. All fields are of one class,
 * because the engine is quickest with that.
 */
export class ReadField implements DataField {
  readonly #shared: boolean;
  constructor(
    readonly tag: string,
    readonly ind1: string,
    readonly ind2: string,
    readonly subfields: readonly Subfield[],
    shared = false,
  ) {
    this.#shared = shared;
  }
  /** The same field as one that may be in several records. */
  static shared({ tag, ind1, ind2, subfields }: ReadField): ReadField {
    return new ReadField(tag, ind1, ind2, subfields, true);
  }
  static isShared(field: ReadField): boolean {
    return field.#shared;
  }
}

/** Whether a field is linked to one in another script (MARC 21, appendix A: subfield 6). */
export function hasLink({ subfields }: DataField): boolean {
  for (let i = 0; i < subfields.length; i++) if (subfields[i]!.code === '6') return true;
  return false;
}

/** Whether a field may be met again as the same value, in another record; one that is linked never is. */
export const isShared = (field: Field): boolean => field instanceof ReadField && ReadField.isShared(field);
