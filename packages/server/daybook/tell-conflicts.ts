import type { Problem } from '@osier/contract';
import type { Conflict } from '@osier/core/changes';
import { labelOfAny, nounOf } from '@osier/core/kinds';
import type { ConflictError, Stale } from '../store/conflict';
import { sentenceOfEntry } from '../store/kept-acts';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
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
  found: dependsOn ? null : (current?.value ?? null),
  ...(takes !== undefined && { takes }),
  ...(dependsOn !== undefined && { dependsOn }),
});

async function tellConflict(store: Store, c: InTheWay, entry: number): Promise<Told> {
  const later = await lastEntryOf(store, c.kind, c.id, entry);
  const what = `${nounOf(c.kind)} ${c.id} (${labelOfAny(c.kind, c.id, c.found ?? c.expected)})`;
  const by = later ? ` since by ${later.name ?? 'Osier'}: ${sentenceOfEntry(later)}` : ' since';
  return { kind: c.kind, id: c.id, message: `${sentence(c, what, by)}.`, entry: later?.id ?? null };
}

function sentence(c: InTheWay, what: string, by: string): string {
  if (c.dependsOn)
    return `${what}: ${c.dependsOn === 'piled' ? 'something' : `a ${nounOf(c.dependsOn)}`} has been added to it since`;
  if (c.takes !== undefined) return `${takenThing(c.takes)} was taken${by}. ${what} has it`;
  return c.found === null ? `${what} is no longer there, changed${by}` : `${what} was changed${by}`;
}

/** "barcode [“31204…”]" as a person says it. */
function takenThing(takes: string): string {
  const at = takes.indexOf(' ');
  const values = keptJson<unknown[]>(takes.slice(at + 1));
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
