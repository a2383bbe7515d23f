import {
  CONTROL_NUMBER,
  ISBN,
  ISSN,
  LCCN,
  LOCAL_WORDS,
  NAME_WORDS,
  NOTE_WORDS,
  PLACE_WORDS,
  PUBLISHER_WORDS,
  SERIES_WORDS,
  SUBJECT_WORDS,
  TITLE_WORDS,
} from '../access';

/** Columns of words that are searched by themselves. */
export type WordColumn = 'title' | 'name' | 'subject' | 'series' | 'publisher' | 'place' | 'note' | 'local';
/** Where words are searched: a column, all but what is local (`public`), or all. */
export type WordsAt = WordColumn | 'public' | null;
/** Columns of the words of a heading: its kept form, other forms, notes and sources, numbers. */
export type HeadingColumn = 'form' | 'seefrom' | 'seealso' | 'note' | 'identifier';
/** Where words of headings are searched: a column, the forms by which it is known (kept form and see-froms), or all. */
export type HeadingWordsAt = HeadingColumn | 'forms' | null;
/** Keys that are searched as a whole. */
export type KeyPoint = 'isbn' | 'issn' | 'lccn' | 'control';
/** Columns of a record, of its holdings and of its copies. */
export type ValueColumn = 'year' | 'language' | 'material' | 'sort';
export type HoldingColumn = 'branch' | 'location' | 'call_number' | 'shelf_key';
export type CopyColumn =
  'barcode' | 'status' | 'type' | 'fund' | 'supplier' | 'acquired' | 'last_seen' | 'last_loan';

/** Columns of a copy that are numbers. */
export type CopyAmount = 'loans';

/** The first entry of the daybook about a record, or the last. */
export type EntryOf = 'first' | 'last';

/** What is found by an index, and where it is. */
export type FindWhere =
  /** Words of one column, or of all. */
  | { readonly as: 'words'; readonly column: WordsAt }
  | { readonly as: 'key'; readonly point: KeyPoint }
  | { readonly as: 'value'; readonly of: 'record'; readonly column: ValueColumn; readonly isDate?: true }
  | { readonly as: 'value'; readonly of: 'holding'; readonly column: HoldingColumn }
  | { readonly as: 'value'; readonly of: 'copy'; readonly column: CopyColumn; readonly isDate?: true }
  | { readonly as: 'count'; readonly of: 'holding' | 'copy' }
  /** A number that a copy has. */
  | { readonly as: 'amount'; readonly column: CopyAmount }
  /** What a copy has in any local field of the library. */
  | { readonly as: 'local' }
  | { readonly as: 'finding' }
  | { readonly as: 'flag'; readonly flag: 'suppressed' | 'brief' }
  | { readonly as: 'number' }
  /** Call numbers as the shelf stands: text, or a range of places. */
  | { readonly as: 'shelf' }
  /** When a record was added, or changed last. */
  | { readonly as: 'entry'; readonly which: EntryOf }
  /** A heading that it carries, by number. */
  | { readonly as: 'heading' }
  /** Who changed it last. */
  | { readonly as: 'person' }
  /** Where it came with, or lies on: by number or name. */
  | { readonly as: 'among'; readonly of: 'delivery' | 'pile' }
  | { readonly as: 'everything' };

/** What is found by an index of headings, and where it is. */
export type HeadingWhere =
  | { readonly as: 'words'; readonly column: HeadingWordsAt }
  | { readonly as: 'value'; readonly column: 'kind' | 'vocabulary' }
  /** The records that carry it, counted. */
  | { readonly as: 'count' }
  | { readonly as: 'flag'; readonly flag: 'established' }
  | { readonly as: 'number' }
  | { readonly as: 'entry'; readonly which: EntryOf }
  | { readonly as: 'person' }
  | { readonly as: 'everything' };

/** An index that a query may name. */
export interface FindIndex<Where = FindWhere> {
  /** As a person types it. */
  readonly name: string;
  readonly title: string;
  /** By the context sets that are published with SRU (CQL 1.2, Dublin Core 1.1, Bath profile 2, Record metadata 1.1), and other words for it. */
  readonly also: readonly string[];
  readonly where: Where;
  /** Other catalogues may ask by it. */
  readonly isPublic: boolean;
}

/** What anybody may know of a library. */
const PUBLIC =
  /^(words|title|name|subject|series|publisher|place|note|isbn|issn|lccn|control|record|year|language|format|branch|location|callnumber|cql\.allrecords)$/;

/** The indexes of records with their holdings and copies. */
export const FIND_INDEXES: readonly FindIndex[] = [
  index('words', 'Words', ['cql.anywhere', 'cql.serverchoice', 'any'], { as: 'words', column: null }),
  index('title', TITLE_WORDS.title, ['dc.title', 'bath.title'], { as: 'words', column: 'title' }),
  index('name', NAME_WORDS.title, ['dc.creator', 'dc.contributor', 'bath.name', 'author', 'creator'], {
    as: 'words',
    column: 'name',
  }),
  index('subject', SUBJECT_WORDS.title, ['dc.subject', 'bath.subject'], { as: 'words', column: 'subject' }),
  index('series', SERIES_WORDS.title, ['bath.seriestitle', 'dcterms.ispartof'], {
    as: 'words',
    column: 'series',
  }),
  index('publisher', PUBLISHER_WORDS.title, ['dc.publisher', 'bath.publisher'], {
    as: 'words',
    column: 'publisher',
  }),
  index('place', PLACE_WORDS.title, ['bath.publicationplace'], { as: 'words', column: 'place' }),
  index('note', NOTE_WORDS.title, ['dc.description', 'bath.notes'], { as: 'words', column: 'note' }),
  index('local', LOCAL_WORDS.title, [], { as: 'words', column: 'local' }),
  index('heading', 'Number of a heading', [], { as: 'heading' }),
  index('isbn', ISBN.title, ['bath.isbn'], { as: 'key', point: 'isbn' }),
  index('issn', ISSN.title, ['bath.issn'], { as: 'key', point: 'issn' }),
  index('lccn', LCCN.title, ['bath.lccn'], { as: 'key', point: 'lccn' }),
  index('control', CONTROL_NUMBER.title, [], { as: 'key', point: 'control' }),
  index('record', 'Record number', ['rec.identifier', 'rec.id', 'number'], { as: 'number' }),
  index('year', 'Year', ['dc.date', 'date'], { as: 'value', of: 'record', column: 'year', isDate: true }),
  index('language', 'Language', ['dc.language'], { as: 'value', of: 'record', column: 'language' }),
  index('format', 'Type of record', ['dc.format', 'dc.type', 'material'], {
    as: 'value',
    of: 'record',
    column: 'material',
  }),
  index('branch', 'Branch', [], { as: 'value', of: 'holding', column: 'branch' }),
  index('location', 'Location', [], { as: 'value', of: 'holding', column: 'location' }),
  index('callnumber', 'Call number', ['call-number', 'shelfmark'], { as: 'shelf' }),
  index('barcode', 'Barcode', [], { as: 'value', of: 'copy', column: 'barcode' }),
  index('status', 'Status', [], { as: 'value', of: 'copy', column: 'status' }),
  index('type', 'Type of copy', [], { as: 'value', of: 'copy', column: 'type' }),
  index('fund', 'Fund', [], { as: 'value', of: 'copy', column: 'fund' }),
  index('supplier', 'Supplier', [], { as: 'value', of: 'copy', column: 'supplier' }),
  index('acquired', 'Acquired', [], { as: 'value', of: 'copy', column: 'acquired', isDate: true }),
  index('seen', 'Last seen', ['last-seen'], { as: 'value', of: 'copy', column: 'last_seen', isDate: true }),
  index('lastloan', 'Last loan', ['last-loan'], {
    as: 'value',
    of: 'copy',
    column: 'last_loan',
    isDate: true,
  }),
  index('copyfield', 'Local field of a copy', ['copy-field'], { as: 'local' }),
  index('loans', 'Loans of a copy', [], { as: 'amount', column: 'loans' }),
  index('copies', 'Number of copies', [], { as: 'count', of: 'copy' }),
  index('holdings', 'Number of holdings', [], { as: 'count', of: 'holding' }),
  index('added', 'Added', ['rec.creationdate'], { as: 'entry', which: 'first' }),
  index('changed', 'Last changed', ['rec.lastmodificationdate'], { as: 'entry', which: 'last' }),
  index('changedby', 'Last changed by', ['rec.lastmodifiedby', 'changed-by'], { as: 'person' }),
  index('delivery', 'Delivery', [], { as: 'among', of: 'delivery' }),
  index('pile', 'Pile', [], { as: 'among', of: 'pile' }),
  index('finding', 'Finding', [], { as: 'finding' }),
  index('suppressed', 'Suppressed', [], { as: 'flag', flag: 'suppressed' }),
  index('brief', 'Brief record', [], { as: 'flag', flag: 'brief' }),
  index('cql.allrecords', 'All records', [], { as: 'everything' }),
];

function index(name: string, title: string, also: readonly string[], where: FindWhere): FindIndex {
  return { name, title, also, where, isPublic: PUBLIC.test(name) };
}

const ofHeading = (
  name: string,
  title: string,
  also: readonly string[],
  where: HeadingWhere,
): FindIndex<HeadingWhere> => ({ name, title, also, where, isPublic: false });

/** The indexes of headings. */
export const HEADING_INDEXES: readonly FindIndex<HeadingWhere>[] = [
  ofHeading('words', 'Words', ['cql.anywhere', 'cql.serverchoice', 'any'], { as: 'words', column: null }),
  ofHeading('form', 'Heading', ['heading'], { as: 'words', column: 'form' }),
  ofHeading('seefrom', 'See-from', ['see-from'], { as: 'words', column: 'seefrom' }),
  ofHeading('seealso', 'See-also', ['see-also'], { as: 'words', column: 'seealso' }),
  ofHeading('note', 'Note or source', [], { as: 'words', column: 'note' }),
  ofHeading('identifier', 'Number of the authority record', ['lccn', 'control'], {
    as: 'words',
    column: 'identifier',
  }),
  ofHeading('kind', 'Kind', [], { as: 'value', column: 'kind' }),
  ofHeading('vocabulary', 'Vocabulary', [], { as: 'value', column: 'vocabulary' }),
  ofHeading('records', 'Number of records', [], { as: 'count' }),
  ofHeading('established', 'Established', [], { as: 'flag', flag: 'established' }),
  ofHeading('number', 'Number of the heading', ['rec.identifier', 'rec.id'], { as: 'number' }),
  ofHeading('added', 'Added', ['rec.creationdate'], { as: 'entry', which: 'first' }),
  ofHeading('changed', 'Last changed', ['rec.lastmodificationdate'], { as: 'entry', which: 'last' }),
  ofHeading('changedby', 'Last changed by', ['rec.lastmodifiedby', 'changed-by'], { as: 'person' }),
  ofHeading('cql.allrecords', 'All headings', [], { as: 'everything' }),
];

/** Indexes by their names, in small letters. */
export const namesOf = <W>(indexes: readonly FindIndex<W>[]): ReadonlyMap<string, FindIndex<W>> =>
  new Map(indexes.flatMap((i) => [i.name, ...i.also].map((n) => [n, i] as const)));
