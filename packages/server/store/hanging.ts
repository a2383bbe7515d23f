import { childrenOf, KIND_NAMES, type Kind } from '@osier/core/kinds';
import type { ChangesByKind } from './changes-by-kind';
import { ConflictError, type Stale } from './conflict';
import type { Store } from './store';
import { tableOf, testSql } from './tables';

/** What may hang on what, as the kinds say it. */
const HANGING = KIND_NAMES.flatMap((kind) =>
  childrenOf(kind).map(({ child, parent }) => ({
    kind,
    child,
    column: parent.column,
    field: parent.field,
    among: parent.among,
    optional: parent.optional ?? false,
  })),
);

/** A child in the store, and the parent that it hangs on. */
export interface Child {
  readonly kind: Kind;
  readonly id: number;
  readonly child: Kind;
  readonly childId: number;
  /** The field of the child's value that names its parent. */
  readonly field: string;
}

/** What hangs on some objects of a kind, and would lose what it hangs on if they went. */
export async function childrenIn(store: Store, of: Kind, ids: readonly number[]): Promise<Child[]> {
  const found: Child[] = [];
  if (ids.length === 0) return found;
  for (const { kind, child, column, field, among } of HANGING) {
    if (kind !== of) continue;
    const rows = await store.rows<{ childId: number; id: number }>(
      `SELECT c.id AS childId, c.${column} AS id FROM ${tableOf(child).name} c
        WHERE c.${column} IN (SELECT value FROM json_each(:ids)) AND ${testSql(among, 'c')}`,
      { ids: JSON.stringify(ids) },
    );
    for (const row of rows) found.push({ kind, child, field, ...row });
  }
  return found;
}

/** The field of a value, by the name a kind gives for it. */
export const fieldOf = (value: object | null | undefined, field: string): unknown =>
  value === null || value === undefined
    ? undefined
    : new Map<string, unknown>(Object.entries(value)).get(field);

/**
 * Refuses by name what would hang on something that is not there (any more). The foreign keys of the database would refuse it
 * too, at the end and without a name.
 */
export async function refuseHangingOnNothing(store: Store, byKind: ChangesByKind): Promise<void> {
  const found: Stale[] = [];
  for (const { kind, child, column, optional } of HANGING) {
    const { name, keepsRemoved } = tableOf(kind);
    const own = byKind.of(child).flatMap((c) => (c.after === null ? [] : [c.id]));
    const gone = keepsRemoved ? [] : byKind.of(kind).flatMap((c) => (c.after === null ? [c.id] : []));
    if (own.length + gone.length === 0) continue;
    const rows = await store.rows<{ parent: number }>(
      `SELECT DISTINCT c.${column} AS parent FROM ${tableOf(child).name} c
        WHERE (c.id IN (SELECT value FROM json_each(:own)) OR c.${column} IN (SELECT value FROM json_each(:gone)))
          AND ${optional ? `c.${column} IS NOT NULL` : '1'}
          AND NOT EXISTS (SELECT 1 FROM ${name} p WHERE p.id = c.${column} AND ${keepsRemoved ? 'p.gone = 0' : '1'})`,
      { own: JSON.stringify(own), gone: JSON.stringify(gone) },
    );
    for (const r of rows)
      found.push({
        kind,
        id: r.parent,
        label: byKind.of(kind).find((c) => c.id === r.parent)?.before ?? null,
        current: null,
        ...(gone.includes(r.parent) && { dependsOn: child }),
      });
  }
  if (found.length) throw new ConflictError(found);
}
