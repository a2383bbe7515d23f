import type { Review, ReviewRow, SplitBody } from '@osier/contract';
import { quoted, type Act } from '@osier/core/acts';
import { counted } from '@osier/core/changes';
import { headingText, identityOf, isItsForm, splitPlan, type SplitPlan } from '@osier/core/headings';
import type { ChangeSet } from '@osier/core/kinds';
import { notFound, wrong } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { headingsFollowing } from './change-records';
import { recordRow } from './merge';
import { asRefused, refuseMerging, typedForm } from './merging';
import { countCarrying, headingWithKey, recordsCarrying } from './queries';

type Asked = Pick<SplitBody, 'form' | 'records'>;
/** A split as it stands, with what a person is told of it. */
interface SplitNow extends Omit<SplitPlan, 'changes'> {
  readonly changes: ChangeSet;
  readonly from: string;
  readonly to: string;
  readonly isMade: boolean;
  readonly isEmptied: boolean;
}

/** The records with these numbers that carry a heading; 422 where one does not. */
async function carriers(store: Store, heading: number, wanted: readonly number[]) {
  const ids = [...new Set(wanted)].sort((a, b) => a - b);
  const carrying = new Set<number>();
  for (let after = 0; ;) {
    const piece = await recordsCarrying(store, [heading], after, 1000);
    if (piece.length === 0) break;
    for (const id of piece) carrying.add(id);
    after = piece.at(-1)!;
    if (after >= ids.at(-1)!) break;
  }
  const other = ids.find((id) => !carrying.has(id));
  if (other !== undefined) throw wrong('records', `Record ${other} does not carry this heading.`);
  return store.readMany('record', ids);
}

async function splitNow(
  store: Store,
  id: number,
  { form: typed, records: wanted }: Asked,
): Promise<SplitNow> {
  const [from] = await store.readMany('heading', [id]);
  if (!from) throw notFound(`Heading ${id}`);
  if (from.value.mergedInto !== null)
    throw wrong('form', `This heading was merged into heading ${from.value.mergedInto}.`);
  const form = typedForm(from.value, typed);
  if (isItsForm(from.value, form))
    throw wrong('form', 'This is the form that the heading has. Type what tells the other one from it.');
  const { kind, vocabulary } = identityOf(from.value);
  const marc = {
    ...from.value.marc,
    fields: [...from.value.marc.fields.filter((f) => f.tag[0] !== '1'), form],
  };
  const { key } = identityOf({ ...from.value, marc });
  const known = await headingWithKey(store, { kind, vocabulary, key });
  const [there] = known ? await store.readMany('heading', [known.id]) : [];
  await refuseMerging(store, [from, ...(there ? [there] : [])]);
  const to = there ?? { id: await store.nextIds('heading', 1), form };
  const records = await carriers(store, id, wanted);
  const isEmptied = (await countCarrying(store, [id])) === records.length;
  const note = await store.nextIds('distinct', 1);
  const [low, high] = [Math.min(id, to.id), Math.max(id, to.id)];
  const apart = (await store.find('distinct', { where: { a: low, b: high } })).length > 0;
  const plan = asRefused(() => splitPlan({ from, to, records, isEmptied, note }));
  const changes = apart ? plan.changes.filter((c) => c.kind !== 'distinct') : plan.changes;
  const headings = changes.filter((c) => c.kind === 'heading');
  // Records carry titles and subdivisions along to the other form.
  const { made } = await headingsFollowing(store, [], headings, plan.records);
  return {
    ...plan,
    changes: [...changes, ...made],
    ...{ isMade: !there, isEmptied, from: headingText(from.value) },
    to: form.subfields.map((s) => s.value).join(' '),
  };
}

function see(shown: Shown, split: SplitNow): void {
  for (const c of split.records) shown.see(c.kind, c.id, c.version, c.after);
  for (const n of split.notes) shown.see(n.record, n.message);
  shown.see(split.from, split.to, split.isMade, split.isEmptied);
}

/** What a split would change. */
export async function reviewSplit({ store }: Services, id: number, asked: Asked, from = 0): Promise<Review> {
  const shown = await beginReview(store);
  const split = await splitNow(store, id, asked);
  see(shown, split);
  const page = reviewPage<ReviewRow>(from);
  const notes = new Map<number, string>();
  for (const n of split.notes)
    notes.set(n.record, [notes.get(n.record), n.message].filter(Boolean).join(' '));
  for (const c of split.records)
    page.offer(notes.has(c.id), () => recordRow(c.id, c.before!, c.after!, notes.get(c.id) ?? null));
  return {
    sentence: `${counted(split.records.length, 'record')} will carry ${quoted(split.to)}; the others keep ${quoted(split.from)}.`,
    verb: 'Split',
    noun: { one: 'record', many: 'records' },
    count: split.records.length,
    consequences: [
      split.isMade
        ? `The heading ${quoted(split.to)} will be made.`
        : `The heading ${quoted(split.to)} is there already.`,
      ...(split.isEmptied
        ? [`No record is left under ${quoted(split.from)}; it is marked as split (leader 05 s).`]
        : []),
      'That the two are different is recorded.',
    ],
    ...page.take(),
    token: shown.token(),
  };
}

/** Gives some records of a heading to another one. */
export const split = (
  { store }: Services,
  person: number,
  id: number,
  { token, ...asked }: Asked & { readonly token?: string },
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const shown = await beginReview(s);
    const now = await splitNow(s, id, asked);
    see(shown, now);
    if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
    const did: Act = {
      act: 'split-heading',
      names: { from: now.from, to: now.to },
      counts: { records: now.records.length },
    };
    return { did, changes: now.changes };
  });
