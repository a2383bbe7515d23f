import { first, isData, runningText, type DataField, type MarcRecord } from '../marc';
import { fold } from '../text';
import { found, type AccessPoint } from './access-point';

/** The tag by which a field counts: an 880 counts as the field it belongs to. */
const tagOf = (f: DataField) => (f.tag === '880' ? (first(f, '6') ?? '').slice(0, 3) : f.tag);

/** An access point for the words of some fields; `text` gives what counts of a field, nothing for other fields. */
const wordsOf = <const N extends string>(
  name: N,
  title: string,
  text: (f: DataField, tag: string) => string | undefined,
): AccessPoint<MarcRecord, N> => ({
  name,
  title,
  type: 'words',
  version: 3,
  extract: (record) =>
    found(
      record.fields.flatMap((f) => {
        const counts = isData(f) ? text(f, tagOf(f)) : undefined;
        return counts === undefined ? [] : [counts];
      }),
    ),
  normalise: fold,
});

/** A tag that MARC 21 leaves to each library: 9XX and X9X, but 490. */
const isLocal = (tag: string): boolean => /^(9..|[0-35-8]9.)$/.test(tag);
/** Some subfields of a publication statement (260 and 264), or all others. */
const publication = (f: DataField, tag: string, codes: string): string | undefined =>
  /^26[04]$/.test(tag) ? runningText(f, codes) : undefined;

/** Words of titles. */
export const TITLE_WORDS = wordsOf('title', 'Title', (f, tag) =>
  /^(245|246|240|130|730|740)$/.test(tag) ? runningText(f) : undefined,
);
/** Words of names, and of the statement of responsibility. */
export const NAME_WORDS = wordsOf('name', 'Name', (f, tag) =>
  tag === '245' ? (first(f, 'c') ?? '') : /^[178](00|10|11)$/.test(tag) ? runningText(f) : undefined,
);
/** Words of subject headings. */
export const SUBJECT_WORDS = wordsOf('subject', 'Subject', (f, tag) =>
  tag.startsWith('6') && !isLocal(tag) ? runningText(f) : undefined,
);
/** Words of series statements and series headings. */
export const SERIES_WORDS = wordsOf('series', 'Series', (f, tag) =>
  /^(440|490|830)$/.test(tag) ? runningText(f) : undefined,
);
/** Words of publishers, distributors and makers. */
export const PUBLISHER_WORDS = wordsOf('publisher', 'Publisher', (f, tag) => publication(f, tag, 'bf'));
/** Words of places of publication. */
export const PLACE_WORDS = wordsOf('place', 'Place of publication', (f, tag) => publication(f, tag, 'ae'));
/** Words of notes. */
export const NOTE_WORDS = wordsOf('note', 'Note', (f, tag) =>
  /^5[0-8]\d$/.test(tag) ? runningText(f) : undefined,
);
/** Words of fields that MARC 21 leaves to each library. */
export const LOCAL_WORDS = wordsOf('local', 'Local field', (f, tag) =>
  isLocal(tag) ? runningText(f) : undefined,
);
/** Words of numbers, dates, edition and description. */
export const OTHER_WORDS = wordsOf('rest', 'Elsewhere', (f, tag) =>
  /^(020|022|024|082|050|250|300)$/.test(tag) ? runningText(f) : publication(f, tag, 'cdg'),
);

/** All of them, in the order of their rank. */
export const RECORD_WORDS = [
  TITLE_WORDS,
  NAME_WORDS,
  SUBJECT_WORDS,
  SERIES_WORDS,
  PUBLISHER_WORDS,
  PLACE_WORDS,
  NOTE_WORDS,
  LOCAL_WORDS,
  OTHER_WORDS,
];
