import type { CopyList, CopyListRow, CopyOrder, CopySearch } from '@osier/contract';
import { isPlan, planOfTyped } from '@osier/core/find';
import { isLocalValue, readLocal, type KeptLocalField, type LocalValue } from '@osier/core/holdings';
import { fold } from '@osier/core/text';
import { mustBeSearchable } from '../catalogue/searchable';
import { cursorOf, placeIn } from '../http/cursor';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import { localFieldsOf } from './local-fields';
import {
  copiesWhere,
  countCopies,
  isUnread,
  leadsToFew,
  pageOfCopies,
  type AfterCopy,
  type CopyQuery,
  type LocalTest,
  type PlacedCopy,
} from './queries.list';

const PAGE = 100;
/** Of more it is only told that there are. */
const MOST_COUNTED = 10_000;

/** The conditions of a search for copies; 422 where it names a pile that is not there, or one of records, or its query cannot be answered. */
export async function copiesFound(store: Store, search: CopySearch): Promise<CopyQuery> {
  if (search.pile) {
    const pile = await store.read('pile', search.pile);
    if (!pile) throw wrong('pile', `There is no pile ${search.pile}.`);
    if (pile.value.of !== 'copy') throw wrong('pile', 'This pile is of records.');
  }
  const asked = planOfTyped(search.q);
  if (!isPlan(asked)) throw wrong('q', asked.problem);
  const plan = await mustBeSearchable(store, asked);
  const { prefixOrder } = (await store.house()).value;
  return copiesWhere(search, plan, {
    isLed: await leadsToFew(store, plan),
    local: await localTestOf(store, search),
    prefixOrder,
  });
}

/** What is asked of a local field: of a choice or number all of it, of any other form a part. */
async function localTestOf(store: Store, { local, localValue }: CopySearch): Promise<LocalTest | null> {
  if (local === undefined) return null;
  const field = await store.read('localfield', local);
  if (!field) throw wrong('local', 'This local field is no longer there.');
  const { form } = field.value;
  if (localValue === '') return { field: local, is: 'any', value: '' };
  if (form !== 'choice' && form !== 'number') {
    const folded = fold(localValue);
    return folded === ''
      ? { field: local, is: 'signs', value: localValue }
      : { field: local, is: 'part', value: folded };
  }
  const read = readLocal(field.value, localValue);
  if (!isLocalValue(read)) throw wrong('localValue', read.problem);
  return { field: local, is: 'whole', value: read.value };
}

/** A copy as the list shows it; values of fields that are no longer there are left out. */
export const listRow = (
  { sorted: _, shelfKey, locals, ...row }: PlacedCopy,
  fields: readonly KeptLocalField[],
): CopyListRow => ({
  ...row,
  isUnread: isUnread({ shelfKey }),
  local: keptJson<LocalValue[]>(locals).filter((l) => fields.some((f) => f.id === l.field)),
});

/** A page of the copies that are found. */
export async function listCopies(
  { store }: Services,
  search: CopySearch,
  {
    sort,
    down,
    after,
  }: { readonly sort: CopyOrder; readonly down: boolean; readonly after: string | undefined },
): Promise<CopyList> {
  const found = await copiesFound(store, search);
  const form: AfterCopy = [sort === 'price' ? 0 : '', 0];
  const page = { sort, down, after: placeIn<AfterCopy>(after, form), atMost: PAGE + 1 };
  const [total, placed, fields] = await Promise.all([
    countCopies(store, found, MOST_COUNTED),
    pageOfCopies(store, found, page),
    localFieldsOf(store),
  ]);
  const last = placed[PAGE - 1];
  return {
    total: Math.min(total, MOST_COUNTED),
    isMore: total > MOST_COUNTED,
    rows: placed.slice(0, PAGE).map((row) => listRow(row, fields)),
    next: placed.length > PAGE && last ? cursorOf([last.sorted, last.id]) : null,
  };
}
