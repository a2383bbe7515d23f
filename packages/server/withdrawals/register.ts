import type { RegisterRow } from '@osier/contract';
import type { Services } from '../services';
import { keptValue } from '../store/kept-json';
import { registerRows } from './queries';

/** The register of what went. Rows whose withdrawal was taken back stay, and say so. */
export async function register(
  { store }: Services,
  before: number | null,
): Promise<{ rows: RegisterRow[]; next: number | null }> {
  const rows = await registerRows(store, before, 201);
  return {
    rows: rows.slice(0, 200).map((r) => ({
      id: r.id,
      entry: r.entry,
      restored: r.gone === 1,
      withdrawn: keptValue('withdrawn', r.value),
    })),
    next: rows.length > 200 ? rows[199]!.id : null,
  };
}
