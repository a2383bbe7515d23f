import {
  briefOf,
  columnsAt,
  CONTROL_NUMBER,
  FILING_NAME,
  FILING_TITLE,
  ISBN,
  ISSN,
  LANGUAGE,
  LCCN,
  MATERIAL,
  OTHER_NUMBER,
  PLACE,
  PUBLISHER,
  RECORD_WORDS,
  SERIES,
  YEAR,
} from '../access';
import { CARRIED_HEADING } from '../headings';
import type { MarcRecord } from '../marc';
import { ALIKE, describe } from '../matching';
import { describeKind } from './kind';

const COLUMN_POINTS = [FILING_TITLE, FILING_NAME, YEAR, LANGUAGE, MATERIAL];

/** A bibliographic record of the catalogue. */
export const record = describeKind<MarcRecord>()({
  kind: 'record',
  noun: ['record', 'records'],
  label: (marc) => briefOf(marc).title,
  table: 'records',
  columns: {
    title: 'text',
    author: 'text',
    year: 'text',
    isbn: 'text',
    publisher: 'text',
    edition: 'text',
    language: 'text',
    material: 'text',
    sort: 'text',
    filing_name: 'text',
    matching: 'text',
  },
  computed: 1,
  compute: (marc) => {
    const { title, author, isbn, publisher, edition } = briefOf(marc);
    return {
      ...{ title, author, isbn, publisher, edition },
      ...columnsAt(COLUMN_POINTS, marc),
      matching: JSON.stringify(describe(marc)),
    };
  },
  access: {
    words: RECORD_WORDS,
    keys: [ISBN, ISSN, CONTROL_NUMBER, LCCN, OTHER_NUMBER, ALIKE, CARRIED_HEADING],
    terms: [PUBLISHER, PLACE, SERIES],
    columns: COLUMN_POINTS,
  },
  parents: [],
});

/** That the public does not see a record; it has the record's number. */
export interface Suppressed {
  /** Why; '' where nobody said. */
  readonly reason: string;
}

/** A record that the public does not see. */
export const suppressed = describeKind<Suppressed>()({
  kind: 'suppressed',
  noun: ['suppressed record', 'suppressed records'],
  label: (_, id) => `record ${id}, suppressed from the public`,
  table: 'suppressed',
  columns: {},
  compute: () => ({}),
  parents: [],
});
