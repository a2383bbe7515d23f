import type { PiledKind } from '@osier/core/piles';
import type { Store } from '../store/store';

/** Copies that lie on a pile, or that hang on the records that do. */
export async function copiesOnPile(
  store: Store,
  pile: number,
  of: PiledKind,
  atMost: number,
): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(
    of === 'copy'
      ? "SELECT c.id FROM piled p JOIN copies c ON c.id = p.object WHERE p.pile = :pile AND p.kind = 'copy' ORDER BY p.id LIMIT :atMost"
      : "SELECT c.id FROM piled p JOIN copies c ON c.record = p.object WHERE p.pile = :pile AND p.kind = 'record' ORDER BY c.id LIMIT :atMost",
    { pile, atMost },
  );
  return rows.map((r) => r.id);
}
