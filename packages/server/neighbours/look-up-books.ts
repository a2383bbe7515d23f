import { briefOf } from '@osier/core/access';
import { counted } from '@osier/core/changes';
import {
  chosenForBook,
  inOrder,
  isSought,
  readSought,
  tasteOf,
  type BookRecord,
  type BookState,
  type HouseTaste,
  type Neighbour,
} from '@osier/core/neighbours';
import limited from 'p-limit';
import { boolean, number, object } from 'yup';
import { recordsSharing } from '../deliveries/queries';
import type { JobRun, JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { BookListRowColumns } from '../store/models';
import { readFrom } from './find';
import { NeighbourFailure } from './ports';

const work = object({ list: number().integer().required(), further: boolean().default(false) });
/** Books that are looked for at a time; each neighbour has a limit of its own. */
const BESIDE = 6;

/** What was found of a book. */
type Outcome = Pick<BookListRowColumns, 'reason' | 'title' | 'neighbour' | 'asked' | 'marc'> & {
  readonly state: BookState;
};

/** Job: looks for the books of a list that wait. Each is kept when it is done, so that one that was killed goes on with the next. */
export const lookUpBooks =
  (services: Services): JobWork =>
  async (run) => {
    const { list, further } = keptWork(work, run.work);
    const { store } = services;
    const table = store.table('book_list_rows');
    const waiting = await table.find({ where: { list, state: 'waiting' }, order: [['seq', 'ASC']] });
    const neighbours = inOrder(
      (await store.find('neighbour')).map((n) => ({ ...n, neighbour: n.value })),
    ).filter((n) => n.value.isUsed);
    const gone = new AbortController();
    const stops = setInterval(() => run.cancelled() && gone.abort(), 200);
    const house = (await store.house()).value;
    const isInTurn = house.askNeighbours !== 'at once';
    const taste = tasteOf(house);
    const tally = new Map<BookState, number>();
    let done = (await table.count({ list })) - waiting.length;
    const total = done + waiting.length;
    run.tell(done, total);
    try {
      const turn = limited(BESIDE);
      await Promise.all(
        waiting.map((row) =>
          turn(async () => {
            if (run.cancelled()) return;
            const outcome = await lookForBook(services, run, row, neighbours, {
              isInTurn,
              taste,
              further,
              signal: gone.signal,
            });
            if (outcome === null) return;
            await store.write((tx) => table.update(outcome, { list, seq: row.seq }, tx));
            tally.set(outcome.state, (tally.get(outcome.state) ?? 0) + 1);
            run.tell(++done, total);
          }),
        ),
      );
    } finally {
      clearInterval(stops);
    }
    const of = (state: BookState) => tally.get(state) ?? 0;
    const found = of('found') + of('several');
    return `${counted(found, 'book')} found, ${of('here')} here already, ${of('not found') + of('failed')} not found.`;
  };

type Asked = { readonly id: number; readonly value: Neighbour };

/** Looks for one book; null when the job was stopped meanwhile. */
async function lookForBook(
  services: Services,
  run: JobRun,
  row: BookListRowColumns,
  neighbours: readonly Asked[],
  how: {
    readonly isInTurn: boolean;
    readonly taste: HouseTaste;
    readonly further: boolean;
    readonly signal: AbortSignal;
  },
): Promise<Outcome | null> {
  const outcome = (state: BookState, reason: string, more: Partial<Outcome> = {}): Outcome => ({
    ...{ title: '', neighbour: 0, asked: row.asked, marc: null },
    ...more,
    state,
    reason,
  });
  const sought = readSought(row.isbn);
  if (!isSought(sought) || sought.by !== 'isbn') return outcome('no number', 'This is no ISBN.');
  const held = (await recordsSharing(services.store, 'isbn', [sought.isbn13], 1)).flatMap((f) =>
    keptJson<number[]>(f.records),
  )[0];
  if (held !== undefined) {
    const record = await services.store.read('record', held);
    return outcome('here', `Record ${held} has this ISBN.`, {
      title: record ? briefOf(record.value).title : '',
    });
  }
  const before = new Set(keptJson<number[]>(row.asked));
  const toAsk = neighbours.filter((n) => !(how.further && before.has(n.id)));
  const asked = new Set(before);
  const found: BookRecord[] = [];
  const failures: string[] = [];
  const ask = async ({ id, value }: Asked): Promise<boolean> => {
    if (run.cancelled()) return true;
    try {
      const answer = await services.neighbours.asking.ask(id, value, sought, { signal: how.signal });
      const { state, message, records } = await readFrom(services, value, answer);
      if (state === 'failed') {
        failures.push(`${value.name}: ${message}`);
        return false;
      }
      // One that failed is asked once more when one looks further; one that answered is not.
      asked.add(id);
      const { name, trust, materials } = value;
      found.push(
        ...records.map(({ marc, errors, warnings }) => ({
          marc,
          errors,
          warnings,
          neighbour: { id, name, trust, materials },
        })),
      );
      return records.length > 0;
    } catch (error) {
      if (!(error instanceof NeighbourFailure)) throw error;
      failures.push(`${value.name}: ${error.message}`);
      return false;
    }
  };
  if (how.isInTurn) {
    for (const n of toAsk) if (await ask(n)) break;
  } else await Promise.all(toAsk.map(ask));
  if (run.cancelled()) return null;
  const list = JSON.stringify([...asked].sort((a, b) => a - b));
  const chosen = chosenForBook(found, how.taste);
  if (chosen) {
    const { marc, neighbour } = chosen.best;
    return outcome(chosen.state, `${neighbour.name}: ${chosen.reason}.`, {
      ...{ title: briefOf(marc).title, neighbour: neighbour.id, asked: list, marc: JSON.stringify(marc) },
    });
  }
  if (failures.length) return outcome('failed', failures.join(' '), { asked: list });
  return outcome(
    'not found',
    toAsk.length
      ? 'None of the neighbours that were asked has it.'
      : 'Every neighbour was asked; none has it.',
    { asked: list },
  );
}
