import type { Field } from '../marc';

/** Which tags: three characters, `.` for any, as in `6..`. */
export type Tags = string;
/** Which of several. */
export type Which = 'all' | 'first' | 'last';
/** What a text must be like; plain text is looked for as it stands, capitals do not count. */
export interface TextMatch {
  readonly find: string;
  readonly expression?: boolean;
}

/** One clean-up step, a plain value that reads itself as a sentence (`stepSentence`). */
export type Step = StepBody & {
  /** It runs only on records of which all of this holds. */
  readonly when?: Condition;
};

/** A condition on a record under which a step is run. */
export interface Condition {
  /** A field address (MARCspec) that the record has, and one that it lacks. */
  readonly has?: string;
  readonly lacks?: string;
  /** MARC language codes of 008/35–37. */
  readonly languages?: readonly string[];
  /** Letters of leader/06. */
  readonly types?: readonly string[];
  readonly suppliers?: readonly string[];
}

export type StepBody =
  | { readonly step: 'add-field'; readonly field: Field; readonly ifAbsent: boolean }
  | { readonly step: 'delete-field'; readonly tags: Tags; readonly which: Which; readonly match?: TextMatch }
  | { readonly step: 'copy-field'; readonly tags: Tags; readonly to: string }
  | { readonly step: 'move-field'; readonly tags: Tags; readonly to: string }
  | {
      readonly step: 'set-subfield';
      readonly tags: Tags;
      readonly code: string;
      readonly value: string;
      readonly ifAbsent: boolean;
    }
  | {
      readonly step: 'delete-subfield';
      readonly tags: Tags;
      readonly code: string;
      readonly which: Which;
      readonly match?: TextMatch;
    }
  | { readonly step: 'copy-subfield'; readonly tags: Tags; readonly code: string; readonly toCode: string }
  | { readonly step: 'move-subfield'; readonly tags: Tags; readonly code: string; readonly toCode: string }
  | {
      readonly step: 'set-indicator';
      readonly tags: Tags;
      readonly which: 1 | 2;
      readonly value: string;
      readonly from?: string;
    }
  | {
      readonly step: 'replace-text';
      readonly tags: Tags;
      readonly codes: string;
      readonly match: TextMatch;
      readonly by: string;
    }
  | {
      readonly step: 'change-case';
      readonly tags: Tags;
      readonly codes: string;
      readonly to: 'sentence' | 'title' | 'lower' | 'upper';
    }
  | { readonly step: 'end-mark'; readonly tags: Tags; readonly mark: string }
  | { readonly step: 'capital-after-article'; readonly tag: string }
  | { readonly step: 'drop-subdivision'; readonly text: string }
  | { readonly step: 'rename-subdivision'; readonly text: string; readonly by: string }
  | { readonly step: 'drop-duplicate-subjects' }
  | { readonly step: 'drop-incomplete-headings' }
  | { readonly step: 'sort-fields' }
  | {
      readonly step: 'set-position';
      readonly tag: 'LDR' | '006' | '007' | '008';
      readonly from: number;
      readonly text: string;
    }
  | {
      readonly step: 'map-codes';
      readonly tags: Tags;
      readonly code: string;
      readonly table: Readonly<Record<string, string>>;
    }
  | { readonly step: 'cut-class'; readonly tag: string }
  | { readonly step: 'call-number'; readonly scheme: 'dewey' | 'lc' | 'nlm' }
  | {
      readonly step: 'build-field';
      readonly tag: string;
      readonly indicators: string;
      readonly parts: readonly BuiltPart[];
    }
  | { readonly step: 'apply-fixes'; readonly rule: string };

/** A subfield built from others: `{245$a} and {100$a}`. Left out when one of the addresses finds nothing. */
export interface BuiltPart {
  readonly code: string;
  readonly template: string;
}

/** A named, ordered list of steps. */
export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly Step[];
}

/** A recipe of this library; its id is the number it is kept under. */
export type KeptRecipe = Omit<Recipe, 'id'>;
