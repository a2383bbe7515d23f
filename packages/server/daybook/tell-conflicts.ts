import type { Problem } from '@osier/contract';
import type { Conflict } from '@osier/core/changes';
import type { ConflictError, Stale } from '../store/conflict';
import type { Store } from '../store/store';
import { labelOf } from './labels';
import { lastEntryOf } from './queries';

type Told = NonNullable<Problem['conflicts']>[number];

/** Something in the way of an act: what the act took it for, what it is now, what it holds or what hangs on it. */
type InTheWay = Conflict & { readonly takes?: string };

/** What stands in the way, as the named things with who changed them last; `entry` is what they changed after. */
export async function tellConflicts(
  { store }: { readonly store: Store },
  conflicts: readonly InTheWay[],
  entry: number,
): Promise<Told[]> {
  return Promise.all(conflicts.slice(0, 50).map((c) => tellConflict(store, c, entry)));
}

/** The same for what commit refused. */
export const tellStale = (services: { readonly store: Store }, error: ConflictError): Promise<Told[]> =>
  tellConflicts(services, error.conflicts.map(inTheWay), 0);

const inTheWay = ({ kind, id, label, current, takes, dependsOn }: Stale): InTheWay => ({
  kind,
  id,
  expected: label ?? null,
  found: dependsOn ? { dependsOn, id } : (current?.value ?? null),
  ...(takes !== undefined && { takes }),
});

async function tellConflict(store: Store, c: InTheWay, entry: number): Promise<Told> {
  const later = await lastEntryOf(store, c.kind, c.id, entry);
  const depends = (c.found as { dependsOn?: string } | null)?.dependsOn;
  const what = `${NAMES[c.kind] ?? c.kind} ${c.id} (${labelOf(c.kind, c.id, depends ? c.expected : (c.found ?? c.expected))})`;
  const by = later ? ` since by ${later.name ?? 'Osier'}: ${later.sentence}` : ' since';
  return { kind: c.kind, id: c.id, message: `${sentence(c, what, by, depends)}.`, entry: later?.id ?? null };
}

function sentence(c: InTheWay, what: string, by: string, depends: string | undefined): string {
  if (depends)
    return `${what}: ${depends === 'piled' ? 'something' : `a ${NAMES[depends] ?? depends}`} has been added to it since`;
  if (c.takes !== undefined) return `${takenThing(c.takes)} was taken${by}. ${what} has it`;
  return c.found === null ? `${what} is no longer there, changed${by}` : `${what} was changed${by}`;
}

/** "barcode [“31204…”]" as a person says it. */
function takenThing(takes: string): string {
  const at = takes.indexOf(' ');
  const values = JSON.parse(takes.slice(at + 1)) as unknown[];
  switch (takes.slice(0, at)) {
    case 'barcode':
      return `Barcode ${String(values[0])}`;
    case 'number':
      return `Copy number ${String(values[1])} of this title`;
    case 'call_number':
      return `The place of this holding (${values.slice(1).map(String).join(', ')})`;
    case 'name':
      return `The name “${String(values[0])}”`;
    case 'key':
      return 'This form of the heading';
    default:
      return 'The same thing';
  }
}

const NAMES: Readonly<Record<string, string>> = {
  fields: 'incoming record',
  incoming: 'incoming record',
  withdrawlist: 'withdrawal list',
  scanbatch: 'scan file',
  distinct: 'pair kept apart',
  sheet: 'supplier sheet',
  roll: 'label roll',
  lists: 'code lists',
  house: 'house rules',
};
