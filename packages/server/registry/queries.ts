import { NUMBERS } from '@osier/core/headings';
import { HEADING_KEY_KIND } from '../store/index-records';
import type { Store } from '../store/store';

/** Where the numbers of an agency stand among all. */
const ofAgency = (agency: string) => ({ begins: `(${agency})`, behind: `(${agency})\uffff` });

/** A heading that has a number in the registry. */
export interface NumberedThere {
  readonly heading: number;
  /** With the agency before it. */
  readonly key: string;
}

/** Headings that have a number of an agency, in the order of their numbers behind one. */
export const headingsNumbered = (
  store: Store,
  agency: string,
  after: string,
  atMost: number,
): Promise<NumberedThere[]> =>
  store.rows<NumberedThere>(
    `SELECT k.heading, k.key FROM heading_keys k JOIN headings h ON h.id = k.heading AND h.merged_into IS NULL
      WHERE k.kind = :numbers AND k.key >= :begins AND k.key < :behind AND k.key > :after ORDER BY k.key LIMIT :atMost`,
    { numbers: NUMBERS, ...ofAgency(agency), after, atMost },
  );

/** How many there are. */
export const countNumbered = async (store: Store, agency: string): Promise<number> =>
  (
    await store.row<{ n: number }>(
      'SELECT COUNT(*) AS n FROM heading_keys WHERE kind = :numbers AND key >= :begins AND key < :behind',
      { numbers: NUMBERS, ...ofAgency(agency) },
    )
  )?.n ?? 0;

/** What has got the form of the registry since is no news any more; what another registry said is none of this one. */
const STILL = "n.number >= :begins AND n.number < :behind AND (n.says <> 'form' OR n.form <> h.text)";

/** What the registry says otherwise, of headings that are still there, by their texts. */
export const newsOfRegistry = (
  store: Store,
  agency: string,
  atMost: number,
): Promise<
  {
    heading: number;
    text: string;
    says: 'form' | 'gone';
    form: string;
    number: string;
    at: string;
    records: number;
  }[]
> =>
  store.rows(
    `SELECT n.heading, h.text, n.says, n.form, n.number, n.at,
        COALESCE((SELECT u.n FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key), 0) AS records
       FROM registry_news n JOIN headings h ON h.id = n.heading AND h.merged_into IS NULL WHERE ${STILL} ORDER BY h.text, n.heading LIMIT :atMost`,
    { ...ofAgency(agency), atMost },
  );

/** How many of them there are. */
export const countNews = async (store: Store, agency: string): Promise<number> =>
  (
    await store.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM registry_news n JOIN headings h ON h.id = n.heading AND h.merged_into IS NULL WHERE ${STILL}`,
      ofAgency(agency),
    )
  )?.n ?? 0;
