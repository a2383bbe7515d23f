import type { DeleteHeadingsBody, Review, ReviewRow } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { counted, removal } from '@osier/core/changes';
import { headingText } from '@osier/core/headings';
import type { StoredObject } from '@osier/core/kinds';
import { notFound, wrong } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { headingsMerging } from './merging';
import { headingsByNumber, mergedInto } from './queries';

interface Looked {
  readonly heading: StoredObject<'heading'>;
  /** Why it stays. */
  readonly stays: string | null;
}

async function lookedAt(store: Store, ids: readonly number[]): Promise<Looked[]> {
  const held = await store.readMany('heading', [...new Set(ids)]);
  if (held.length !== new Set(ids).size) throw notFound('One of these headings');
  const rows = new Map((await headingsByNumber(store, ids)).map((r) => [r.id, r]));
  const merging = await headingsMerging(store);
  const looked: Looked[] = [];
  for (const heading of held) {
    const records = rows.get(heading.id)?.records ?? 0;
    const from = (await mergedInto(store, heading.id)).length;
    const apart = [
      ...(await store.find('distinct', { where: { a: heading.id } })),
      ...(await store.find('distinct', { where: { b: heading.id } })),
    ].length;
    const stays =
      heading.value.mergedInto !== null
        ? 'It was merged into another one, and its number leads there.'
        : merging.has(heading.id)
          ? 'It is being merged now.'
          : records > 0
            ? `${counted(records, 'record')} ${records === 1 ? 'carries' : 'carry'} it.`
            : from > 0
              ? `${counted(from, 'heading')} that ${from === 1 ? 'was' : 'were'} merged into it ${from === 1 ? 'leads' : 'lead'} to it.`
              : apart > 0
                ? 'It is recorded as different from another one.'
                : null;
    looked.push({ heading, stays });
  }
  return looked;
}

function see(shown: Shown, looked: readonly Looked[]): void {
  for (const { heading, stays } of looked) shown.see(heading.id, heading.version, stays);
}

/** What deleting headings would change. */
export async function reviewDeleteHeadings(
  { store }: Services,
  { headings }: Pick<DeleteHeadingsBody, 'headings'>,
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const looked = await lookedAt(store, headings);
  see(shown, looked);
  const page = reviewPage<ReviewRow>(from);
  for (const { heading, stays } of looked)
    page.offer(stays !== null, () => ({
      ...{ id: heading.id, label: headingText(heading.value), detail: '', canLeaveOut: false },
      exception: stays && `${stays} It stays.`,
      before: { marc: heading.value.marc },
      after: null,
    }));
  const count = looked.filter((l) => l.stays === null).length;
  return {
    sentence: `${counted(count, 'heading')} will be deleted.`,
    verb: 'Delete',
    noun: { one: 'heading', many: 'headings' },
    count,
    consequences: ['Their see-froms lead nowhere from then on.'],
    ...page.take(),
    token: shown.token(),
  };
}

/** Deletes headings that no record carries and nothing leads to; the others stay. */
export const deleteHeadings = (
  { store }: Services,
  person: number,
  { headings, token }: DeleteHeadingsBody,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const shown = await beginReview(s);
    const looked = await lookedAt(s, headings);
    see(shown, looked);
    if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
    const gone = looked.filter((l) => l.stays === null);
    if (gone.length === 0) throw wrong('headings', looked[0]?.stays ?? 'There is nothing to delete.');
    const did: Act = {
      act: 'delete-headings',
      names: { first: headingText(gone[0]!.heading.value) },
      counts: { headings: gone.length },
    };
    return { did, changes: gone.map((l) => removal('heading', l.heading)) };
  });
