import type { BookList, BookListRow, MarcBody, Person } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { BOOK_STATES, isSought, readSought, type BookState } from '@osier/core/neighbours';
import { marcOf } from '../catalogue/records';
import { notFound, wrong } from '../http/problem';
import { personById } from '../people/queries';
import type { Services } from '../services';
import type { BookListColumns, BookListRowColumns } from '../store/models';
import { booksOfList, countsOfBooks } from './queries';

const isState = (word: string): word is BookState => BOOK_STATES.some((s) => s === word);
/** The name of the job. */
export const LOOKS_UP = 'look-up-books';
/** Books that may yet be found at other neighbours. */
const OPEN: readonly BookState[] = ['waiting', 'not found', 'failed'];

const none = (): Record<BookState, number> => ({
  ...{ waiting: 0, found: 0, several: 0, here: 0, failed: 0, twice: 0 },
  ...{ 'not found': 0, 'no number': 0 },
});

/** Starts to look for many books. What is no ISBN, or comes twice, is told at once. */
export async function startBookList(
  { store, jobs }: Services,
  person: number,
  { name, codes }: { readonly name: string; readonly codes: readonly string[] },
): Promise<{ list: number; job: number }> {
  const at = new Date().toISOString();
  const seen = new Map<string, number>();
  const rows = codes.map((code, i): Omit<BookListRowColumns, 'list'> => {
    const row = { seq: i + 1, code, isbn: '', title: '', neighbour: 0, asked: '[]', marc: null, delivery: 0 };
    const read = readSought(code);
    if (!isSought(read)) return { ...row, state: 'no number', reason: read.problem };
    if (read.by !== 'isbn') return { ...row, state: 'no number', reason: 'This is no ISBN.' };
    const first = seen.get(read.isbn13);
    if (first !== undefined)
      return { ...row, isbn: read.isbn13, state: 'twice', reason: `It is book ${first} of the list.` };
    seen.set(read.isbn13, i + 1);
    return { ...row, isbn: read.isbn13, state: 'waiting', reason: '' };
  });
  const list = await store.write(async (tx) => {
    const id = await store.table('book_lists').insert({ name, at, person }, tx);
    for (const row of rows) await store.table('book_list_rows').insert({ list: id, ...row }, tx);
    return id;
  });
  const job = await jobs.begin(LOOKS_UP, `Looking for the books of ${name}`, person, { list }, rows.length);
  return { list, job: job.id };
}

async function listRow({ store, jobs }: Services, list: BookListColumns): Promise<BookListRow> {
  const counts = none();
  let ready = 0;
  for (const { state, n, ready: of } of await countsOfBooks(store, list.id)) {
    if (isState(state)) counts[state] = n;
    ready += of;
  }
  const job = jobs.running().find((j) => j.kind === LOOKS_UP && j.work.list === list.id)?.id ?? null;
  const by = (await personById(store, list.person))?.name ?? '';
  return { id: list.id, name: list.name, at: list.at, by, counts, ready, job };
}

const MOST_LISTS = 100;
/** The lists, newest first. */
export async function listBookLists(services: Services): Promise<BookListRow[]> {
  const lists = await services.store.table('book_lists').find({ order: [['id', 'DESC']], limit: MOST_LISTS });
  return Promise.all(lists.map((list) => listRow(services, list)));
}

/** The list of a number; 404 for none. */
export async function listThere({ store }: Pick<Services, 'store'>, id: number): Promise<BookListColumns> {
  const list = await store.table('book_lists').first({ where: { id } });
  if (!list) throw notFound(`Book list ${id}`);
  return list;
}

/** A list with its books. */
export async function readBookList(services: Services, id: number): Promise<BookList> {
  const { store } = services;
  const list = await listThere(services, id);
  const [row, books, neighbours] = [
    await listRow(services, list),
    await booksOfList(store, id),
    await store.find('neighbour'),
  ];
  const names = new Map(neighbours.map((n): [number, string] => [n.id, n.value.name]));
  return {
    ...row,
    rows: books.map(({ neighbour, state, ...book }) => ({
      ...book,
      state: isState(state) ? state : 'failed',
      from: names.get(neighbour) ?? '',
    })),
  };
}

/** Looks once more for the books that were not found: at those that were not asked for them yet, or that failed. */
export async function askFurther(services: Services, person: number, id: number) {
  const { store, jobs } = services;
  const list = await listThere(services, id);
  refuseWhileRunning(services, id);
  const open = await store.table('book_list_rows').count({ list: id, state: [...OPEN] });
  if (open === 0) throw wrong('list', 'There is no book in this list that was not found.');
  await store.write((tx) =>
    store
      .table('book_list_rows')
      .update({ state: 'waiting', reason: '' }, { list: id, state: [...OPEN] }, tx),
  );
  return jobs.begin(
    LOOKS_UP,
    `Looking further for the books of ${list.name}`,
    person,
    { list: id, further: true },
    open,
  );
}

/** Refuses what would come between a job and its list. */
export function refuseWhileRunning({ jobs }: Pick<Services, 'jobs'>, id: number): void {
  if (jobs.running().some((j) => j.kind === LOOKS_UP && j.work.list === id))
    throw wrong(
      'list',
      'The books of this list are being looked for. Wait until that is done, or cancel it.',
    );
}

/** Takes a neighbour's record that somebody has chosen for a book of a list, as if it had been found. */
export async function chooseForBook(
  services: Services,
  person: Person,
  { id, seq }: { readonly id: number; readonly seq: number },
  body: { readonly neighbour: number; readonly marc: MarcBody },
): Promise<{ sentence: string }> {
  const { store } = services;
  await listThere(services, id);
  refuseWhileRunning(services, id);
  const neighbour = await store.read('neighbour', body.neighbour);
  if (!neighbour) throw notFound(`Neighbour ${body.neighbour}`);
  const marc = marcOf(body.marc);
  const { title } = briefOf(marc);
  const chosen = {
    ...{ state: 'found', title, neighbour: body.neighbour, marc: JSON.stringify(marc) },
    reason: `${neighbour.value.name}: chosen by ${person.name}.`,
  };
  const changed = await store.write((tx) =>
    store.table('book_list_rows').update(chosen, { list: id, seq, delivery: 0 }, tx),
  );
  if (changed === 0)
    throw wrong('seq', 'This book is not in the list, or its record is in a delivery already.');
  return { sentence: `“${title}” is chosen for book ${seq} of the list` };
}

/** Deletes a list; deliveries that were made of it stay. */
export async function removeBookList(services: Services, id: number): Promise<{ sentence: string }> {
  const { store } = services;
  const list = await listThere(services, id);
  refuseWhileRunning(services, id);
  await store.write(async (tx) => {
    await store.table('book_list_rows').remove({ list: id }, tx);
    await store.table('book_lists').remove({ id }, tx);
  });
  return { sentence: `Deleted the list “${list.name}”` };
}
