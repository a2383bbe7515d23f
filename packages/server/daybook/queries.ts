import type { Store } from '../store/store';

/** The last entry behind another that changed an object, with who made it. */
export const lastEntryOf = (
  store: Store,
  kind: string,
  id: number,
  after: number,
): Promise<{ id: number; sentence: string; name: string | null } | undefined> =>
  store.row<{ id: number; sentence: string; name: string | null }>(
    `SELECT d.id, d.sentence, p.name FROM daybook_objects o JOIN daybook d ON d.id = o.entry LEFT JOIN people p ON p.id = d.person
      WHERE o.kind = :kind AND o.object = :id AND d.id > :after ORDER BY d.id DESC LIMIT 1`,
    { kind, id, after },
  );
