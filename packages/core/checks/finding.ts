import type { HouseRules } from '../house';
import type { DataField, RecordEdit, Where } from '../marc';
import type { Placed, RecordView } from './view';

export type Severity = 'error' | 'warning' | 'advice';

/** Something a check noticed. */
export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly where: Where;
  /** A sentence for a person. */
  readonly message: string;
  readonly fix?: Fix;
}

/** How a finding is corrected: safe ones can be applied unseen. */
export interface Fix {
  readonly sentence: string;
  readonly safe: boolean;
  readonly edits: readonly RecordEdit[];
}

/** One check: `source` names the published rule, or says "common practice, no source". */
export interface Check {
  readonly rule: string;
  readonly title: string;
  readonly group: Group;
  readonly source: string;
  /** Formats it is for, bibliographic when absent. */
  readonly formats?: readonly RecordView['format'][];
  /** Tags of which a record must have one for the check to find anything; the others are spared it. */
  readonly needs?: readonly string[];
  /**
   * Whether it looks at every data field for itself: what it finds in a field depends on that field alone, the language
   * in 008, the marks that leader/18 promises and the house rules. A field in which nothing was found is not looked at again
   * when one just like it comes.
   */
  readonly each?: true;
  /** Tells every finding, in the order of the record. */
  run(view: RecordView, tell: Tell, house: HouseRules): void;
}
export type Tell = (finding: Omit<Finding, 'rule'>) => unknown;

/** How checks stand together in Set-up. */
export type Group =
  | 'Structure'
  | 'Characters'
  | 'Numbers'
  | 'Coded fields'
  | 'Title'
  | 'Publication and description'
  | 'Names'
  | 'Subjects'
  | 'Series'
  | 'Links'
  | 'Classification and holdings';

/** The three MARC 21 formats. */
export const ALL_FORMATS = ['bibliographic', 'authority', 'holdings'] as const;

/** A fix that can be applied unseen. */
export const safe = (sentence: string, ...edits: RecordEdit[]): Fix => ({ sentence, safe: true, edits });
/** A fix that a person looks at first. */
export const look = (sentence: string, ...edits: RecordEdit[]): Fix => ({ sentence, safe: false, edits });

/** The edit that gives a subfield another text. */
export const setText = (p: Placed, subfield: number, value: string): RecordEdit => ({
  op: 'text',
  at: p.at,
  subfield,
  value,
});
/** The edit that changes parts of a field. */
export const change = (p: Placed, changes: Partial<DataField>): RecordEdit => ({
  op: 'replace',
  at: p.at,
  field: { ...p.field, ...changes },
});
/** The edit that takes a field away. */
export const remove = (p: Placed): RecordEdit => ({ op: 'remove', at: p.at });
/** Takes a subfield away, and the field with its last one. */
export function dropSubfield(p: Placed, i: number): RecordEdit {
  const subfields = p.field.subfields.filter((_, k) => k !== i);
  return subfields.some((s) => /[a-z]/.test(s.code)) ? change(p, { subfields }) : remove(p);
}
/** Writes over positions of a control field. */
export const setPositions = (
  tag: string,
  { value, at }: { value: string; at: number },
  from: number,
  text: string,
): RecordEdit => ({
  op: 'replace',
  at,
  field: { tag, value: value.slice(0, from).padEnd(from) + text + value.slice(from + text.length) },
});

/** Text short enough for a sentence. */
export const excerpt = (text: string, most = 40): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;
