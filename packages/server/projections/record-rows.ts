import type { Store } from '../store/store';
import type { Projection } from './projection';

const COLUMNS = 'id, sort, filing_name, title, author, year, isbn, publisher, edition, language, material';

/** What lists show, sort and count of records: a narrow row each, so that no list reads whole records. */
export const recordRows: Projection = {
  name: 'record-rows',
  version: 1,
  of: ['record'],
  async apply(store, changes, tx) {
    const ids = JSON.stringify(changes.of('record').map((c) => c.id));
    if (!changes.areNew('record'))
      await store.run('DELETE FROM record_rows WHERE id IN (SELECT value FROM json_each(:ids))', { ids }, tx);
    await store.run(
      `INSERT INTO record_rows (${COLUMNS}) SELECT ${COLUMNS} FROM records WHERE id IN (SELECT value FROM json_each(:ids))`,
      { ids },
      tx,
    );
  },
  rebuild: (store) =>
    store.write(async (tx) => {
      await store.run('DELETE FROM record_rows', {}, tx);
      await store.run(`INSERT INTO record_rows (${COLUMNS}) SELECT ${COLUMNS} FROM records`, {}, tx);
    }),
};

/** How many records, copies and headings of the whole catalogue there are under each facet; triggers of the database keep the counts. */
export const facetCounts: Projection = {
  name: 'facet-counts',
  version: 3,
  of: ['record', 'holding', 'copy', 'heading'],
  apply: () => Promise.resolve(),
  rebuild: (store) =>
    store.write(async (tx) => {
      await store.run('DELETE FROM facet_counts', {}, tx);
      await store.run(
        `INSERT INTO facet_counts (facet, value, n)
           SELECT 'language', language, COUNT(*) FROM record_rows GROUP BY 2
           UNION ALL SELECT 'material', material, COUNT(*) FROM record_rows GROUP BY 2
           UNION ALL SELECT 'branch', branch, COUNT(DISTINCT record) FROM holdings GROUP BY 2
           UNION ALL SELECT 'heading-kind', kind, COUNT(*) FROM headings WHERE merged_into IS NULL GROUP BY 2
           UNION ALL SELECT 'copy-status', status, COUNT(*) FROM copies GROUP BY 2
           UNION ALL SELECT 'copy-type', type, COUNT(*) FROM copies GROUP BY 2
           UNION ALL SELECT 'copy-branch', h.branch, COUNT(*) FROM copies c JOIN holdings h ON h.id = c.holding GROUP BY 2`,
        {},
        tx,
      );
    }),
};

/** The counts of a facet over the whole catalogue, the greatest first. */
export const countsOfFacet = (
  store: Store,
  facet: 'language' | 'material' | 'branch' | 'copy-status' | 'copy-type' | 'copy-branch' | 'heading-kind',
): Promise<{ value: string; n: number }[]> =>
  store.rows<{ value: string; n: number }>(
    'SELECT value, n FROM facet_counts WHERE facet = :facet AND n > 0 ORDER BY n DESC, value',
    { facet },
  );
