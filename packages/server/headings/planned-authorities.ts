import type { AuthorityFileBody } from '@osier/contract';
import {
  authorityNumbers,
  formOfAuthority,
  headingGroup,
  headingIdentity,
  identityOf,
  incomingAuthority,
  keptForm,
  NUMBERS,
  planAuthority,
  seeFromKey,
  seeFroms,
  type AuthorityPlan,
  type Heading,
  type IncomingAuthority,
} from '@osier/core/headings';
import type { StoredObject } from '@osier/core/kinds';
import type { Store } from '../store/store';
import type { FileRow } from './authority-rows';
import { ProblemError } from '../http/problem';
import { headingsMerging, typedForm } from './merging';
import { countCarrying, headingsWithKeys, mergedInto } from './queries';

/** An authority record of a file with what becomes of it. */
export interface PlannedAuthority extends AuthorityPlan {
  readonly seq: number;
  readonly incoming: IncomingAuthority;
  readonly held: StoredObject<'heading'> | null;
  /** The heading that takes its place, where it is replaced. */
  readonly into: StoredObject<'heading'> | null;
  readonly records: number;
}

const unread = (row: FileRow): PlannedAuthority => ({
  ...{ seq: row.seq, held: null, into: null, records: 0, outcome: 'left', after: null },
  incoming: {
    ...{
      marc: { leader: '', fields: [] },
      text: '',
      heading: null,
      numbers: [],
      isDeleted: false,
      replacements: [],
    },
    problem: row.repairs[0]?.message ?? 'It cannot be read.',
  },
  note: row.repairs[0]?.message ?? 'It cannot be read.',
});

/** What a heading is known by. */
export const identityText = (heading: Heading): string => headingIdentity(identityOf(heading));

/** What becomes of the records of a piece of the file, by what the store has now. `seen` are the headings that came before. */
export async function plannedAuthorities(
  store: Store,
  rows: readonly FileRow[],
  seen: Set<string>,
  onto: AuthorityFileBody['onto'],
): Promise<PlannedAuthority[]> {
  const read = rows.map((row) => ({ row, incoming: row.marc && incomingAuthority(row.marc) }));
  const wanted = read.flatMap(({ incoming }) =>
    incoming?.heading
      ? [...numbersOf(incoming), ...formsOf(incoming.heading), ...placesOfReplacement(incoming)]
      : [],
  );
  const found = await headingsWithKeys(store, wanted);
  const held = new Map(
    (
      await store.readMany('heading', [
        ...new Set([...found.map((f) => f.heading), ...onto.map((o) => o.heading)]),
      ])
    ).map((h) => [h.id, h]),
  );
  /** The heading that a record was chosen for, where it still stands for itself. */
  const chosenFor = (seq: number) => {
    const id = onto.find((o) => o.seq === seq)?.heading;
    const heading = id === undefined ? undefined : held.get(id);
    return heading?.value.mergedInto === null ? [heading] : [];
  };
  const at = (group: string, key: string, isOwn: boolean) =>
    found
      .filter((f) => f.group === group && f.key === key && (!isOwn || f.isOwn))
      .flatMap((f) => held.get(f.heading) ?? []);
  const planned: PlannedAuthority[] = [];
  /** Headings that earlier records of this piece are about. */
  const touched = new Set<number>();
  for (const { row, incoming } of read) {
    if (!incoming) {
      planned.push(unread(row));
      continue;
    }
    const { heading } = incoming;
    const [into] = placesOfReplacement(incoming).flatMap(({ group, key, isOwn }) => at(group, key, isOwn));
    // What takes its place may have its number already, as one that was cancelled.
    const others = (h: StoredObject<'heading'>) => h.id !== into?.id;
    const [byNumber] = [
      ...chosenFor(row.seq),
      ...numbersOf(incoming).flatMap(({ group, key }) => at(group, key, false)),
    ].filter(others);
    const own = heading && identityOf(heading);
    const [byForm] = (own ? at(headingGroup(own), own.key, true) : []).filter(others);
    const met = byNumber ?? byForm ?? null;
    const records = met ? await countCarrying(store, [met.id]) : 0;
    const clashing = heading
      ? seeFroms(heading).flatMap((f) => at(headingGroup(identityOf(heading)), seeFromKey(f), true))
      : [];
    const isTwice =
      heading !== null && (seen.has(identityText(heading)) || (met !== null && touched.has(met.id)));
    if (heading) seen.add(identityText(heading));
    if (met) touched.add(met.id);
    const isHeld = met !== null && incoming.isDeleted && (await isHeldByOthers(store, met.id));
    const plan = planAuthority(incoming, {
      ...{ byNumber: byNumber?.value ?? null, byForm: byForm?.value ?? null, records, isTwice, isHeld },
      replacement: into?.value,
      clashes: clashing
        .filter((c) => c.id !== met?.id)
        .map((c) => ({
          text: seeTextOf(c.value),
          leadsBack: own !== null && seeFroms(c.value).some((f) => seeFromKey(f) === own.key),
        })),
    });
    planned.push({ ...plan, ...{ seq: row.seq, incoming, held: met, into: into ?? null, records } });
  }
  return heldUp(store, planned);
}

/** Leaves replaced headings whose replacement goes too, or that a merge is at work on: what their records would carry then would be wrong. */
async function heldUp(store: Store, planned: readonly PlannedAuthority[]): Promise<PlannedAuthority[]> {
  if (!planned.some((p) => p.outcome === 'replaced')) return [...planned];
  const going = new Set(
    planned.flatMap((p) => (p.outcome === 'replaced' || p.outcome === 'deletes' ? (p.held?.id ?? []) : [])),
  );
  const merging = await headingsMerging(store);
  return planned.map((p): PlannedAuthority => {
    if (p.outcome !== 'replaced' || !p.into || !p.held) return p;
    const why = going.has(p.into.id)
      ? 'goes with this file as well. Load the file once more for this one'
      : merging.has(p.into.id) || merging.has(p.held.id)
        ? 'is being merged now. Load it again when that has ended'
        : null;
    if (why === null) return p;
    return {
      ...p,
      outcome: 'left',
      after: null,
      note: `“${seeTextOf(p.into.value)}”, which replaces it, ${why}.`,
    };
  });
}

/** Where the one heading that takes the place of a deleted one would be found: by its numbers, then by its form. */
function placesOfReplacement({
  heading,
  replacements,
}: IncomingAuthority): readonly { readonly group: string; readonly key: string; readonly isOwn: boolean }[] {
  const [only, ...more] = replacements;
  if (!heading || !only || more.length) return [];
  const numbers = only.numbers.map((key) => ({ group: NUMBERS, key, isOwn: false }));
  const form = replacingForm(heading, only.text);
  // A form that was merged itself leads to where it went.
  const forms = form
    ? [true, false].map((isOwn) => ({ group: headingGroup(form), key: form.key, isOwn }))
    : [];
  return [...numbers, ...forms];
}

/** The identity of a heading of the same kind that is written so; null where that is no heading. */
function replacingForm(heading: Heading, text: string): ReturnType<typeof identityOf> | null {
  try {
    const form = typedForm(heading, text);
    const fields = heading.marc.fields.map((f) => (f === keptForm(heading) ? form : f));
    return identityOf({ ...heading, marc: { ...heading.marc, fields } });
  } catch (error) {
    if (error instanceof ProblemError) return null;
    throw error;
  }
}

/** Whether other headings were merged into one, or told apart from it. */
const isHeldByOthers = async (store: Store, id: number): Promise<boolean> =>
  (await mergedInto(store, id)).length > 0 ||
  (await store.find('distinct', { where: { a: id } })).length > 0 ||
  (await store.find('distinct', { where: { b: id } })).length > 0;

const seeTextOf = (heading: Heading): string =>
  formOfAuthority(heading.marc)
    ?.subfields.map((s) => s.value)
    .join(' ') ?? '';
const numbersOf = ({ marc }: IncomingAuthority) =>
  authorityNumbers(marc).map((key) => ({ group: NUMBERS, key }));
const formsOf = (heading: Heading) => {
  const own = identityOf(heading);
  const group = headingGroup(own);
  return [own.key, ...seeFroms(heading).map(seeFromKey)].map((key) => ({ group, key }));
};
