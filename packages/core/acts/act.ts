import type { AcceptTotals } from '../deliveries';
import type { Outcome } from '../matching';
import type { PiledKind } from '../piles';
import type { Settlement } from '../stocktake';

type Names<N extends string> = { readonly names: Readonly<Record<N, string>> };
type Counts<C extends string> = { readonly counts: Readonly<Record<C, number>> };
/** How many objects long work left as they were, because somebody changed them since its review. */
type Meanwhile = { readonly counts: { readonly meanwhile?: number } };
/** A search of the catalogue as it is named. */
export interface SearchName {
  readonly q: string;
  readonly facets: readonly string[];
  /** The pile or delivery that was searched, in words; null for the whole catalogue. */
  readonly within: string | null;
}

/** The label roll of which the head let somebody else have a number; absent where nothing was overruled. */
interface OverruledRoll {
  readonly overruled?: string;
}

/** The same where copies took numbers of several. */
interface OverruledRolls {
  readonly overruled?: readonly string[];
}

/** What each act says of itself: counts and names, and how it was done. No words. */
export interface ActParts {
  /** An entry from before acts were kept as data. */
  readonly told: { readonly sentence: string };
  readonly 'first-fill': Names<'library'>;
  readonly account: Names<'person'> & {
    readonly did:
      | { readonly how: 'first' }
      | { readonly how: 'added'; readonly role: string }
      | { readonly how: 'sessions-ended'; readonly sessions: number }
      | {
          readonly how: 'changed';
          readonly name?: string;
          readonly role?: { readonly from: string; readonly to: string };
          readonly active?: boolean;
          /** Rights beside those of the role. */
          readonly given?: readonly string[];
          readonly taken?: readonly string[];
          readonly password?: boolean;
        };
  };
  readonly deliver: Names<'delivery'>;
  readonly settings: Names<'delivery'>;
  readonly match: Names<'delivery'> & Counts<'changed'> & Meanwhile;
  /** `delivery` is empty where some records were chosen by hand. */
  readonly decide: Names<'delivery'> & Counts<'records'> & Meanwhile & { readonly outcome: Outcome };
  readonly correct: Names<'title'> & { readonly what: 'fields' | 'copies' | 'note' };
  readonly clean: Names<'recipe' | 'delivery'> & Counts<'changed'> & Meanwhile;
  readonly accept: Names<'delivery'> & { readonly counts: Readonly<AcceptTotals> } & Meanwhile;
  readonly 'take-back': Names<'delivery'> & Counts<'records'> & Meanwhile;
  /** `errors`: saved with so many findings that are errors; `alike`: although so many records looked like it. */
  readonly 'make-record': Names<'title'> & Counts<'errors' | 'alike'>;
  readonly 'make-brief': Names<'title' | 'barcode' | 'location'> & Counts<'alike'> & OverruledRoll;
  /** `copies` were made with it; `errors` and `alike` as for a record that is made. */
  readonly 'copy-record': Names<'title' | 'neighbour'> &
    Counts<'copies' | 'errors' | 'alike'> &
    OverruledRolls;
  /** A brief record gave way to its full one. */
  readonly 'grow-record': Names<'title' | 'neighbour'> & Counts<'errors'>;
  /** The same for all of which the full one is sure. */
  readonly 'grow-records': Counts<'records'>;
  readonly 'merge-records': Names<'title'> &
    Counts<'records' | 'copies'> & { readonly errors?: number; readonly notes?: readonly string[] };
  readonly 'records-apart': Names<'one' | 'other' | 'reason'>;
  readonly 'delete-record': Names<'title'> & Counts<'holdings'>;
  readonly suppress: Names<'title'> & { readonly how: 'suppressed' | 'shown' };
  readonly 'edit-record': Names<'title'> & {
    readonly tags: readonly string[];
    /** Saved with so many findings that are errors. */
    readonly errors?: number;
    /** What gave way to the kept form of its heading, as sentences of core. */
    readonly notes: readonly string[];
  };
  readonly 'clean-records': Names<'recipe'> & Counts<'changed'> & Meanwhile & { readonly of: SearchName };
  readonly 'add-holding': Names<'title' | 'callNumber' | 'location'>;
  readonly 'add-copy': Names<'title' | 'barcode' | 'part'> & Counts<'number'> & OverruledRoll;
  readonly 'change-copy': Names<'barcode'> &
    OverruledRoll & {
      readonly status: { readonly from: string; readonly to: string } | null;
      /** Why it has another status, and the barcode that it had before; absent where there is none. */
      readonly reason?: string;
      readonly was?: string;
    };
  readonly 'change-holding': Names<'title' | 'callNumber' | 'location'> & { readonly was: string };
  readonly 'delete-holding': Names<'title' | 'callNumber' | 'location'>;
  readonly 'move-holding': Names<'title' | 'callNumber' | 'from'> & Counts<'copies'>;
  readonly 'join-holdings': Names<'title' | 'callNumber' | 'from'> & Counts<'copies'>;
  readonly 'move-copy': Names<'barcode' | 'title' | 'callNumber' | 'location'>;
  readonly 'swap-barcodes': Names<'one' | 'other'>;
  readonly 'add-copies': Names<'title'> & Counts<'copies' | 'holdings'> & OverruledRolls;
  /** What the loans desk counted, from a file. */
  readonly 'load-loans': Names<'file'> & Counts<'changed' | 'unknown'> & Meanwhile;
  readonly 'change-copies': Names<'what'> & Counts<'changed' | 'refused'> & Meanwhile;
  readonly merge: Names<'kept'> & Counts<'headings' | 'records'>;
  readonly 'add-heading': Names<'heading'>;
  readonly 'edit-heading': Names<'heading'> & { readonly tags: readonly string[] };
  /** `first` is one of them. */
  readonly 'delete-headings': Names<'first'> & Counts<'headings'>;
  /** Of what records carry and no heading knew. */
  readonly 'make-headings': Counts<'headings'>;
  readonly 'take-authorities': Names<'file'> & Counts<'headings' | 'made' | 'records'>;
  readonly 'merge-all': Counts<'groups' | 'headings' | 'records'> & Meanwhile;
  /** A heading that gets another form. */
  readonly 'change-heading': Names<'from' | 'to'> & Counts<'records'>;
  readonly 'split-heading': Names<'from' | 'to'> & Counts<'records'>;
  /** `more`: how many headings beside the two named. */
  readonly 'keep-apart': Names<'one' | 'other'> & { readonly more?: number; readonly reason?: string };
  readonly 'look-later': Names<'one' | 'other'> & {
    readonly how: 'parked' | 'taken-up';
    readonly more?: number;
  };
  readonly pile: Names<'pile'> & {
    readonly did:
      | { readonly how: 'began' | 'note' | 'deleted' }
      | { readonly how: 'renamed'; readonly from: string }
      | {
          readonly how: 'added' | 'removed';
          readonly of: PiledKind;
          readonly count: number;
          readonly meanwhile?: number;
        };
  };
  readonly recipe: Names<'recipe'> & Counts<'steps'> & { readonly how: 'kept' | 'changed' | 'deleted' };
  readonly 'keep-search': Names<'search'> & { readonly how: 'kept' | 'changed' | 'deleted' };
  readonly 'keep-sheet': Names<'sheet'> & { readonly how: 'kept' | 'changed' | 'deleted' };
  readonly 'start-list': Names<'list'>;
  readonly 'change-list': Names<'list'>;
  readonly 'delete-list': Names<'list'>;
  readonly restore: Counts<'copies' | 'records'>;
  readonly withdraw: Names<'list'> & Counts<'copies' | 'records'>;
  /** How many records and holdings the union catalogue was told of: gone, and back. */
  readonly 'tell-union': Counts<'records' | 'holdings' | 'back'>;
  readonly 'start-stocktake': Names<'stocktake'>;
  readonly 'load-scans': Names<'stocktake' | 'file'> & Counts<'scans'>;
  readonly 'close-stocktake': Names<'stocktake'> & Counts<'found' | 'expected' | 'findings'>;
  readonly settle: Names<'stocktake'> & {
    /** Those that are optional are not in entries from before they could be said. */
    readonly counts: Readonly<Record<'mark-missing' | 'mark-found' | 'correct-location', number>> &
      Readonly<Partial<Record<Settlement, number>>>;
  };
  readonly 'set-up':
    | { readonly what: 'house' }
    | ({ readonly what: 'lists' } & Counts<'branches' | 'locations' | 'types' | 'funds' | 'suppliers'>)
    | (Names<'name'> & {
        readonly what: 'sheet' | 'roll' | 'starter' | 'neighbour' | 'localfield';
        readonly how: 'made' | 'changed' | 'deleted';
        /** So many copies have a value in a local field that was deleted. */
        readonly values?: number;
      });
  /** `again`: what was undone is done once more. */
  readonly undo: { readonly of: Act; readonly again: boolean };
}

/** The name of an act, as the store and the permissions know it. */
export type ActName = keyof ActParts;
/** What was done, as data: the name of the act, its counts and names. */
export type Act = { [A in ActName]: { readonly act: A } & ActParts[A] }[ActName];
