import type { Followable } from '@osier/core/headings';
import type { Store } from '../store/store';

/** Headings that some groups and keys lead to as see-froms: not those that are a kept form themselves, or lead to several. */
export const seeFromsLeadingOn = (
  store: Store,
  wanted: readonly Followable[],
): Promise<{ heading: number; key: string }[]> =>
  store.rows<{ heading: number; key: string }>(
    `SELECT MIN(k.heading) AS heading, k.key FROM json_each(:wanted) w JOIN heading_keys k ON k.kind = w.value ->> 'group' AND k.key = w.value ->> 'key'
       JOIN headings h ON h.id = k.heading AND h.merged_into IS NULL
     GROUP BY k.kind, k.key HAVING COUNT(DISTINCT k.heading) = 1 AND SUM(h.key = k.key) = 0`,
    { wanted: JSON.stringify(wanted) },
  );
