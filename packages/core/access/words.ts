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
  version: 2,
  extract: (record) =>
    found(
      record.fields.flatMap((f) => {
        const counts = isData(f) ? text(f, tagOf(f)) : undefined;
        return counts === undefined ? [] : [counts];
      }),
    ),
  normalise: fold,
});

/** Words of titles, series included. */
export const TITLE_WORDS = wordsOf('title', 'Title', (f, tag) =>
  /^(245|246|240|130|730|740|440|490|830)$/.test(tag) ? runningText(f) : undefined,
);
/** Words of names, and of the statement of responsibility. */
export const NAME_WORDS = wordsOf('name', 'Name', (f, tag) =>
  tag === '245' ? (first(f, 'c') ?? '') : /^[178](00|10|11)$/.test(tag) ? runningText(f) : undefined,
);
/** Words of subject headings. */
export const SUBJECT_WORDS = wordsOf('subject', 'Subject', (f, tag) =>
  tag.startsWith('6') ? runningText(f) : undefined,
);
/** Words of numbers, publication, description and notes. */
export const OTHER_WORDS = wordsOf('rest', 'Elsewhere', (f, tag) =>
  /^(020|022|024|082|050|250|26[04]|300|5..)$/.test(tag) ? runningText(f) : undefined,
);
