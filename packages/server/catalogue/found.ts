import type { SearchBody } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { ruleNow } from '@osier/core/checks';
import type { StoredObject } from '@osier/core/kinds';
import { isPlan, isQueryText, planOfText, typedWords } from '@osier/core/find';
import { recogniseInput, type Recognition } from '@osier/core/query';
import { quoted, type SearchName } from '@osier/core/acts';
import { wrong } from '../http/problem';
import { CHUNK } from '../jobs/in-chunks';
import type { Store } from '../store/store';
import { having, havingSoFar } from './having';
import { withPlan } from './queries.find';
import { searchable } from './searchable';
import {
  acceptedFrom,
  amongRecords,
  chosenRecords,
  idsBehind,
  inBoth,
  onPile,
  suppressedRecords,
  underCallNumber,
  underHeading,
  withBarcode,
  withIsbn,
  withCopies,
  withNumber,
  type IdQuery,
  type SearchFacets,
} from './queries.found';

/** What a search finds, and what its input was taken for. */
export interface FoundRecords extends IdQuery {
  readonly tookFor: Recognition['as'] | 'query';
  /** The pile or delivery that it looks through; null for the whole catalogue. */
  readonly within: string | null;
  /** How much of all was looked at (0 to 1), where the others are still looked for; only where what there is so far was asked for. */
  readonly running?: number | null;
}

/** What is looked for, and where it looks. */
export type SearchPlace = Pick<
  SearchBody,
  'q' | 'pile' | 'delivery' | 'records' | 'status' | 'type' | 'suppressed'
>;

/**
 * The records a search finds: by words (all of them, each as a beginning), ISBN, barcode, call number, number of record or
 * heading, or by having what a field address (MARCspec) names; all when it is empty. `signal` ends a search that looks through all; with
 * `isSoFar` it gives what it has found up to now.
 */
export async function foundBy(
  store: Store,
  { q, pile, delivery, records, status, type, suppressed }: SearchPlace,
  signal?: AbortSignal,
  isSoFar = false,
): Promise<FoundRecords> {
  const everywhere = { within: null, ...(await takenFor(store, q, signal, isSoFar)) };
  const places = [
    ...(pile ? [await thePile(store, pile)] : []),
    ...(delivery ? [await theDelivery(store, delivery)] : []),
    ...(status || type ? [await theCopies(store, status, type)] : []),
    ...(suppressed ? [{ within: 'suppressed records', ...suppressedRecords }] : []),
    ...(records ? [theChosen(records)] : []),
  ];
  return places.reduce<FoundRecords>(
    (found, place) => ({
      tookFor: found.tookFor,
      ...inBoth(found, place),
      ...(found.ranking && { ranking: found.ranking }),
      running: found.running ?? null,
      within: found.within ? `${found.within}, ${place.within}` : place.within,
    }),
    everywhere,
  );
}

type Place = IdQuery & { readonly within: string };

async function thePile(store: Store, pile: number): Promise<Place> {
  const held = await store.read('pile', pile);
  if (!held) throw wrong('pile', `There is no pile ${pile}.`);
  return { within: `the pile ${quoted(held.value.name)}`, ...onPile(pile, held.value.of) };
}

async function theDelivery(store: Store, delivery: number): Promise<Place> {
  const held = await store.read('delivery', delivery);
  if (!held) throw wrong('delivery', `There is no delivery ${delivery}.`);
  return { within: `the delivery ${quoted(held.value.name)}`, ...acceptedFrom(delivery) };
}

async function theCopies(store: Store, status: string | undefined, type: string | undefined): Promise<Place> {
  const named = type && (await store.lists()).value.types.find((t) => t.code === type)?.name;
  const what = [status, type && (named ?? type)].filter(Boolean).join(', ');
  return { within: `titles with copies: ${what}`, ...withCopies(status, type) };
}

const theChosen = (records: readonly number[]): Place => ({
  within: counted(records.length, 'chosen record'),
  ...chosenRecords(records),
});

/** The records of a search behind an id, with their content. */
export async function nextFound(
  store: Store,
  found: FoundRecords,
  facets: SearchFacets,
  after: number,
): Promise<StoredObject<'record'>[]> {
  const ids = await nextIdsFound(store, found, facets, after);
  const held = new Map((await store.readMany('record', ids)).map((h) => [h.id, h]));
  return ids.flatMap((id) => held.get(id) ?? []);
}

/** The same, only their numbers. */
export const nextIdsFound = (
  store: Store,
  found: FoundRecords,
  facets: SearchFacets,
  after: number,
): Promise<number[]> => idsBehind(store, found, facets, after, CHUNK);

/** How a search is named. */
export const searched = (
  { q, language, branch, material, finding }: SearchBody,
  { within }: FoundRecords,
): SearchName => ({
  q,
  facets: [language, branch, material, finding].filter((f) => f !== undefined),
  within,
});

/** The facets of a search. */
export const facetsOf = ({ language, branch, material, finding }: SearchBody): SearchFacets => ({
  language,
  branch,
  material,
  finding: finding && ruleNow(finding),
});

/** What an input is taken for, and the records that it finds. A query that cannot be answered is refused with the sentence why. */
async function takenFor(
  store: Store,
  q: string,
  signal: AbortSignal | undefined,
  isSoFar: boolean,
): Promise<IdQuery & Pick<FoundRecords, 'tookFor' | 'running'>> {
  if (isQueryText(q)) {
    const plan = planOfText(q);
    if (!isPlan(plan)) throw wrong('q', plan.problem);
    return { tookFor: 'query', ...(await searchable(store, plan)) };
  }
  const recognition = recogniseInput(q, (await store.house()).value.barcodes);
  if (recognition.as === 'field address' && isSoFar) {
    const { ids, running } = await havingSoFar(store, recognition.text, signal);
    return { tookFor: recognition.as, ...amongRecords(ids), running };
  }
  return { tookFor: recognition.as, ...(await queryOf(store, recognition, signal)) };
}

async function queryOf(store: Store, recognition: Recognition, signal?: AbortSignal): Promise<IdQuery> {
  switch (recognition.as) {
    case 'isbn':
      return withIsbn(recognition.code);
    case 'record':
      return withNumber(recognition.id);
    case 'heading':
      return underHeading(recognition.id);
    case 'barcode':
      return withBarcode(recognition.code);
    case 'call number':
      return underCallNumber(recognition.text);
    case 'field address':
      return amongRecords(await having(store, recognition.text, signal));
  }
  const plan = typedWords(recognition.text, null);
  if (!isPlan(plan)) throw wrong('q', plan.problem);
  return withPlan(plan);
}
