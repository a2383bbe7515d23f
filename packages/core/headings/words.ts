import type { AccessPoint } from '../access';
import { first, isData, runningText, type DataField } from '../marc';
import { fold } from '../text';
import { authorityNumbers } from './authority-numbers';
import type { Heading } from './heading';

/** An access point for the words of an authority record; one that was merged away has none. */
const wordsOf = <const N extends string>(
  name: N,
  title: string,
  texts: (heading: Heading) => readonly string[],
): AccessPoint<Heading, N> => ({
  name,
  title,
  type: 'words',
  version: 1,
  extract: (heading) => (heading.mergedInto === null ? texts(heading) : []).map((text) => ({ text })),
  normalise: fold,
});

const textsOf =
  (tag: RegExp) =>
  ({ marc }: Heading): string[] =>
    marc.fields.filter((f): f is DataField => isData(f) && tag.test(tagOf(f))).map(withoutControl);
/** An 880 counts as the field that it is another script of. */
const tagOf = (f: DataField): string => (f.tag === '880' ? (first(f, '6') ?? '').slice(0, 3) : f.tag);
/** What a field says, without what says how it is to be shown ($w), and links ($0 to $9). */
const withoutControl = (f: DataField): string =>
  runningText({ ...f, subfields: f.subfields.filter((s) => /[a-vx-z]/.test(s.code)) });

/** The words of headings by column (MARC 21 Format for Authority Data): 1XX, 4XX, 5XX, notes and sources (6XX), numbers. */
export const HEADING_WORDS = [
  wordsOf('form', 'Heading', textsOf(/^1/)),
  wordsOf('seefrom', 'See-from', textsOf(/^4/)),
  wordsOf('seealso', 'See-also', textsOf(/^5/)),
  wordsOf('note', 'Note or source', textsOf(/^6[678]/)),
  wordsOf('identifier', 'Number of the authority record', ({ marc }) => authorityNumbers(marc)),
] as const;
