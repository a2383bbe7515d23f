import type { Store } from '../store/store';
import type { CopyQuery } from './queries.list';

/**
 * Where a call number belongs, by its place on the shelf: Dewey numbers by their first two digits (`74` for 740 to 749), what no scheme can
 * read under `~`, any other by the letters before its first digit, three at most.
 */
const CLASS = `CASE WHEN c.shelf_key GLOB '[0-9][0-9][0-9]*' THEN substr(c.shelf_key, 1, 2) WHEN c.shelf_key >= '~' THEN '~'
  ELSE rtrim(substr(c.shelf_key, 1, 3), '0123456789. ') END`;

/** So many of the copies found have this class, decade of publication (`199`; '' where no year is known) and status. */
export interface CopyGroup {
  readonly class: string;
  readonly decade: string;
  readonly status: string;
  readonly n: number;
}

/** The copies found, counted in one pass by class, decade and status together. */
export const groupsOfCopies = (store: Store, { where, params }: CopyQuery): Promise<CopyGroup[]> =>
  store.rows<CopyGroup>(
    `SELECT ${CLASS} AS class, ifnull(substr(y.year, 1, 3), '') AS decade, c.status, COUNT(*) AS n
       FROM copies c LEFT JOIN record_rows y ON y.id = c.record WHERE ${where} GROUP BY 1, 2, 3`,
    { ...params },
  );
