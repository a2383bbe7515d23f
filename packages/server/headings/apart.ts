import { quoted, type Act } from '@osier/core/acts';
import { removal, update } from '@osier/core/changes';
import { distinctChange, headingText } from '@osier/core/headings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';

/** What is said of headings that look alike. */
export interface SaidOfHeadings {
  readonly headings: readonly number[];
  readonly reason?: string;
  readonly later?: boolean;
}

/** The headings in the order of their numbers, in use, and every pair of them with what is noted of it. */
async function pairsOf(store: Store, ids: readonly number[]) {
  if (new Set(ids).size !== ids.length)
    throw wrong('headings', 'A heading cannot be kept apart from itself. Choose two headings.');
  const held = await store.readMany(
    'heading',
    [...ids].sort((a, b) => a - b),
  );
  if (held.length !== ids.length) throw notFound('One of these headings');
  const merged = held.find((h) => h.value.mergedInto !== null);
  if (merged)
    throw wrong(
      'headings',
      `${quoted(headingText(merged.value))} was merged into heading ${merged.value.mergedInto}.`,
    );
  const pairs: { a: number; b: number; known: StoredObject<'distinct'> | undefined }[] = [];
  for (const [i, { id: a }] of held.entries())
    for (const { id: b } of held.slice(i + 1))
      pairs.push({ a, b, known: (await store.find('distinct', { where: { a, b } }))[0] });
  return { held, pairs };
}

const namesOf = (held: readonly StoredObject<'heading'>[]) => ({
  names: { one: headingText(held[0]!.value), other: headingText(held[1]!.value) },
  ...(held.length > 2 && { more: held.length - 2 }),
});

/** Remembers that headings are different, each from every other, with why; or puts them by. */
export const keepApart = (
  { store }: Services,
  person: number,
  { headings, reason = '', later = false }: SaidOfHeadings,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { held, pairs } = await pairsOf(s, headings);
    const open = pairs.filter((p) => !p.known || (p.known.value.later && !later));
    if (open.length === 0)
      throw wrong(
        'headings',
        later ? 'They are decided or put by already.' : 'They are recorded as different already.',
      );
    let next = await s.nextIds('distinct', open.length);
    const changes = open.map(({ a, b, known }): Change<'distinct'> => {
      const made = distinctChange(next++, a, b, { reason, ...(later && { later: true }) });
      return known ? update('distinct', known, made.after!) : made;
    });
    const did: Act = later
      ? { act: 'look-later', how: 'parked', ...namesOf(held) }
      : { act: 'keep-apart', ...namesOf(held), ...(reason && { reason }) };
    return { did, changes };
  });

/** Takes up headings again that were put by. */
export const takeUpAgain = (
  { store }: Services,
  person: number,
  headings: readonly number[],
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { held, pairs } = await pairsOf(s, headings);
    const parked = pairs.flatMap(({ known }) => (known?.value.later ? [known] : []));
    if (parked.length === 0) throw wrong('headings', 'They are not put by.');
    const did: Act = { act: 'look-later', how: 'taken-up', ...namesOf(held) };
    return { did, changes: parked.map((k) => removal('distinct', k)) };
  });
