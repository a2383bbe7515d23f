import { counted, creation, removal, update } from '@osier/core/changes';
import {
  formOfAuthority,
  formsOfMerge,
  mergedHeadings,
  mergedRecords,
  type MergeForms,
} from '@osier/core/headings';
import type { Change, ChangeSet, StoredObject } from '@osier/core/kinds';
import type { Store } from '../store/store';
import { carryingPieces, changedTogether, headingsFollowing } from './change-records';
import type { PlannedAuthority } from './planned-authorities';

/** Forms that records change by, and the headings whose records do. */
interface FormsChanged {
  readonly forms: MergeForms;
  readonly changing: readonly number[];
}

/** The change set of some authority records, with the records that carry a heading which gets another form. */
export async function authorityChanges(
  store: Store,
  planned: readonly PlannedAuthority[],
): Promise<{ readonly records: readonly Change<'record'>[]; readonly changes: ChangeSet }> {
  const made = planned.filter((p) => p.outcome === 'new');
  let next = made.length ? await store.nextIds('heading', made.length) : 0;
  const headings: Change<'heading'>[] = [];
  for (const p of planned) {
    if (p.outcome === 'new' && p.after) headings.push(creation('heading', next++, p.after));
    else if (p.outcome === 'deletes' && p.held) headings.push(removal('heading', p.held));
    else if (p.after && p.held && p.outcome !== 'replaced') headings.push(update('heading', p.held, p.after));
  }
  const merges = [...planned.flatMap(renamedBy), ...planned.flatMap((p) => replacedBy(p, headings))];
  const records = await changedTogether(store, merges);
  const { along, made: followed } = await headingsFollowing(
    store,
    merges.map((r) => r.forms),
    headings,
    records,
  );
  return { records, changes: [...records, ...headings, ...along, ...followed] };
}

/** The forms of a heading that gets another one. */
function renamedBy({ outcome, held, after }: PlannedAuthority): FormsChanged[] {
  if (outcome !== 'changes-form' || !held || !after) return [];
  const [kept, lost] = [formOfAuthority(after.marc), formOfAuthority(held.value.marc)];
  return kept && lost ? [{ forms: { kept, lost: [lost] }, changing: [held.id] }] : [];
}

/**
 * Merges a heading into the one that replaces it, as that is after what is to be done with it already; the changes of the two are put among
 * `headings`. Gives the forms that records change by.
 */
function replacedBy(
  { outcome, held, into }: PlannedAuthority,
  headings: Change<'heading'>[],
): FormsChanged[] {
  if (outcome !== 'replaced' || !held || !into) return [];
  const at = headings.findIndex((c) => c.id === into.id);
  const merging: { kept: StoredObject<'heading'>; lost: StoredObject<'heading'>[] } = {
    kept: { ...into, value: headings[at]?.after ?? into.value },
    lost: [held],
  };
  for (const change of mergedHeadings(merging))
    if (change.id === into.id && at >= 0) headings[at] = { ...headings[at]!, after: change.after };
    else headings.push(change);
  return [{ forms: formsOfMerge(merging), changing: [held.id] }];
}

/** What stays as it is in the records that an authority record changes, each with how many they are and the first of them; '' when all follow. */
export async function notesOfAuthority(store: Store, planned: PlannedAuthority): Promise<string> {
  if (planned.records === 0) return '';
  const found = new Map<string, Set<number>>();
  for (const { forms, changing } of [...renamedBy(planned), ...replacedBy(planned, [])])
    for await (const piece of carryingPieces(store, changing))
      for (const { record, message } of mergedRecords(forms, piece).notes)
        found.set(message, (found.get(message) ?? new Set<number>()).add(record));
  return [...found]
    .map(([message, [...records]]) =>
      records.length === 1
        ? `Record ${records[0]}: ${message}`
        : `${counted(records.length, 'record')}, record ${records[0]} the first: ${message}`,
    )
    .join(' ');
}
