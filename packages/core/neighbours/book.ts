import { briefOf, isbns, withoutEndPunctuation } from '../access';
import { dataFields, first, firstValue, isData, runningText, type Field, type MarcRecord } from '../marc';

/** What of a record is held against the book in the hand, as text; '' for what it does not say. */
export interface BookFacts {
  readonly title: string;
  /** The statement of responsibility, else the name. */
  readonly author: string;
  readonly edition: string;
  readonly publisher: string;
  readonly year: string;
  readonly pages: string;
  readonly size: string;
  readonly isbns: readonly string[];
  /** Address of its cover, where 856 says that it is one. */
  readonly cover: string;
}

const bare = (text: string | undefined): string =>
  withoutEndPunctuation((text ?? '').replace(/\s*\+\s*$/, ''));

/** What can be seen on the book itself. */
export function bookFacts(record: MarcRecord): BookFacts {
  const brief = briefOf(record);
  const title = dataFields(record, '245')[0];
  const extent = dataFields(record, '300')[0];
  return {
    title: bare(title ? runningText(title, 'abnp') : brief.title),
    author: bare(first(title, 'c')) || brief.author,
    edition: bare(firstValue(record, '250', 'a')),
    publisher: [
      firstValue(record, '264', 'a') ?? firstValue(record, '260', 'a'),
      firstValue(record, '264', 'b') ?? firstValue(record, '260', 'b'),
    ]
      .map(bare)
      .filter(Boolean)
      .join(' : '),
    year: bare(firstValue(record, '264', 'c') ?? firstValue(record, '260', 'c')) || brief.year,
    pages: bare(first(extent, 'a')),
    size: bare(first(extent, 'c')),
    isbns: isbns(record),
    cover: coverOf(record),
  };
}

/** Whether a field links to a picture of the cover: 856 that says so in $3 (MARC 21, 856). */
const linksToCover = (f: Field): boolean =>
  f.tag === '856' && isData(f) && /cover/i.test(first(f, '3') ?? '');

/** A record without its links to covers: the picture was that of another book. */
export const withoutCover = (record: MarcRecord): MarcRecord => ({
  ...record,
  fields: record.fields.filter((f) => !linksToCover(f)),
});

/** A picture of the cover: the first web address of 856 that is one. */
function coverOf(record: MarcRecord): string {
  const address = first(dataFields(record, '856').find(linksToCover), 'u') ?? '';
  return /^https?:\/\//i.test(address) && URL.canParse(address) ? address : '';
}
