import type { MergeBody } from '@osier/contract';
import { quoted } from '@osier/core/acts';
import { pastedFields } from '@osier/core/editing';
import type { StoredObject } from '@osier/core/kinds';
import {
  asNewForm,
  headingText,
  identityOf,
  keptForm,
  NotMergeable,
  withSubfields,
  WrongForm,
  type Heading,
  type Merging,
} from '@osier/core/headings';
import { isData, type DataField } from '@osier/core/marc';
import { array, number, object } from 'yup';
import { notFound, wrong } from '../http/problem';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import { headingWithKey, mergesUnderWay } from './queries';

/** What a merge is asked for. */
export type MergeAsked = Pick<MergeBody, 'kept' | 'lost' | 'form' | 'taken'>;

/** A merge as it stands, checked; `alsoFrom` are all headings whose records change. */
export interface MergeNow extends Merging {
  readonly kept: StoredObject<'heading'>;
  readonly lost: readonly StoredObject<'heading'>[];
  readonly changing: readonly number[];
}

const headingsOfWork = object({
  kept: number().integer().required(),
  lost: array(number().integer().required()).required(),
});

/** The headings that merges over many records are at work on, by the job; one job may be left aside. */
export async function headingsMerging(store: Store, before = Infinity): Promise<ReadonlySet<number>> {
  const rows = await mergesUnderWay(store);
  return new Set(
    rows
      .filter((r) => r.id < before)
      .flatMap((r) => {
        const work = headingsOfWork.validateSync(keptJson(r.work));
        return [work.kept, ...work.lost];
      }),
  );
}

/** Refuses an act on a heading that a merge over many records is at work on. */
export async function refuseMerging(
  store: Store,
  headings: readonly StoredObject<'heading'>[],
  before = Infinity,
): Promise<void> {
  const merging = await headingsMerging(store, before);
  const held = headings.find((h) => merging.has(h.id));
  if (held)
    throw wrong(
      'kept',
      `${quoted(headingText(held.value))} is being merged. Wait until that has ended, or cancel it.`,
    );
}

/** A typed form of a heading as its field; 422 where it is none. */
export function typedForm(heading: Heading, typed: string): DataField {
  const own = keptForm(heading);
  try {
    const text = withSubfields(heading.kind, typed.trim());
    const line = /^[$‡|]/.test(text) ? text : `$a${text}`;
    const [pasted] = pastedFields(
      `${own.tag} ${`${own.ind1}${own.ind2}`.replaceAll(' ', '#')} ${line}`,
    ).fields;
    return asNewForm(heading, pasted && isData(pasted) ? pasted.subfields : []);
  } catch (error) {
    if (error instanceof WrongForm) throw wrong('form', error.message);
    throw error;
  }
}

/** Refuses a form that another heading has already. */
async function refuseUsed(
  store: Store,
  heading: Heading,
  form: DataField,
  own: readonly number[],
): Promise<void> {
  const fields = heading.marc.fields.map((f) => (f === keptForm(heading) ? form : f));
  const used = await headingWithKey(store, identityOf({ ...heading, marc: { ...heading.marc, fields } }));
  if (used && !own.includes(used.id))
    throw wrong('form', `Heading ${used.id} has this form already. Merge with it instead.`);
}

/** What is asked, as it stands in the store now. `job` is the work that does it, if one does. */
export async function mergeNow(store: Store, asked: MergeAsked, job?: number): Promise<MergeNow> {
  const { kept: keptId, lost: lostIds, taken } = asked;
  if (lostIds.includes(keptId)) throw wrong('kept', 'The kept form cannot be merged into itself.');
  const [kept] = await store.readMany('heading', [keptId]);
  const lost = await store.readMany('heading', lostIds);
  if (!kept || lost.length !== new Set(lostIds).size) throw notFound('One of these headings');
  const odd = [kept, ...lost].find((h) => h.value.mergedInto !== null);
  if (odd)
    throw wrong(
      'lost',
      `${quoted(headingText(odd.value))} was merged into heading ${odd.value.mergedInto} already.`,
    );
  const mixed = lost.find((l) => l.value.kind !== kept.value.kind);
  if (mixed)
    throw wrong(
      'lost',
      `${quoted(headingText(mixed.value))} is a ${mixed.value.kind} heading, the kept form is ${kept.value.kind}.`,
    );
  await refuseMerging(store, [kept, ...lost], job ?? Infinity);
  const form = asked.form ? typedForm(kept.value, asked.form) : undefined;
  if (form) await refuseUsed(store, kept.value, form, [keptId, ...lostIds]);
  const changing = form ? [keptId, ...lostIds] : lostIds;
  return { kept, lost, changing, taken, ...(form && { form }) };
}

/** A merge that does not go together, as the refusal that a person is told. */
export function asRefused<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof NotMergeable) throw wrong('lost', error.message);
    throw error;
  }
}
