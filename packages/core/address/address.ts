/** A field address in the MARCspec syntax ("MARCspec – A common MARC record path language"), as a value. */
export interface Address {
  /** Three characters; `.` stands for any. `LDR` is the leader. */
  readonly tag: string;
  /** Which of the fields with this tag; all when absent. */
  readonly index?: Range;
  /** Characters of the leader, a control field, or the whole field's text. */
  readonly characters?: Range;
  readonly indicator?: 1 | 2;
  readonly subfields: readonly SubfieldAddress[];
  /** All must hold; each holds when one of its alternatives does. */
  readonly conditions: readonly Alternatives[];
}

/** Which subfields of a field an address names. */
export interface SubfieldAddress {
  /** One code, or the ends of a range of codes. */
  readonly from: string;
  readonly to: string;
  readonly index?: Range;
  readonly characters?: Range;
  readonly conditions: readonly Alternatives[];
}

/** Positions from 0, `#` the last; `#-1` counts from the end: the last two. */
export interface Range {
  readonly from: number | '#';
  readonly to: number | '#';
}

export type Alternatives = readonly AddressCondition[];

/** `=` equal, `!=` not, `~` contains, `!~` does not, `?` is there, `!` is not. */
export type Operator = '=' | '!=' | '~' | '!~' | '?' | '!';
/** One comparison of a condition in braces. */
export interface AddressCondition {
  readonly left: Term;
  readonly operator: Operator;
  readonly right: Term;
}

/** What a condition compares: text, an address of the record, or one of the field or subfield it stands at. */
export type Term =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'record'; readonly address: Address }
  | { readonly kind: 'here'; readonly address: Omit<Address, 'tag'> };

/** Why a text is no address, and at which character. */
export interface AddressProblem {
  readonly problem: string;
  readonly at: number;
}
/** Whether reading gave an address, and not the problem with it. */
export const isAddress = (value: Address | AddressProblem): value is Address => 'tag' in value;
