import { briefOf } from '@osier/core/access';
import { counted } from '@osier/core/changes';
import {
  chosenForBook,
  isSought,
  readSought,
  tasteOf,
  type BookState,
  type HouseTaste,
} from '@osier/core/neighbours';
import limited from 'p-limit';
import { boolean, number, object } from 'yup';
import { recordsSharing } from '../deliveries/queries';
import type { JobRun, JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { BookListRowColumns } from '../store/models';
import { askAll, cancelledSignal, neighbourRounds, type Askable } from './ask-all';

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
    const rounds = await neighbourRounds(services);
    const { signal, stop } = cancelledSignal(run.cancelled);
    const taste = tasteOf((await store.house()).value);
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
            const outcome = await lookForBook(services, run, row, { rounds, taste, further, signal });
            if (outcome === null) return;
            await store.write((tx) => table.update(outcome, { list, seq: row.seq }, tx));
            tally.set(outcome.state, (tally.get(outcome.state) ?? 0) + 1);
            run.tell(++done, total);
          }),
        ),
      );
    } finally {
      stop();
    }
    const of = (state: BookState) => tally.get(state) ?? 0;
    const found = of('found') + of('several');
    return `${counted(found, 'book')} found, ${of('here')} here already, ${of('not found') + of('failed')} not found.`;
  };

/** Looks for one book; null when the job was stopped meanwhile. */
async function lookForBook(
  services: Services,
  run: JobRun,
  row: BookListRowColumns,
  how: {
    readonly rounds: readonly (readonly Askable[])[];
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
  const rounds = how.rounds.map((round) => round.filter((n) => !(how.further && before.has(n.id))));
  // One that failed is asked once more when one looks further; one that answered is not.
  const { found, failures, answered } = await askAll(services, sought, rounds, how.signal);
  if (run.cancelled()) return null;
  const list = JSON.stringify([...new Set([...before, ...answered])].sort((a, b) => a - b));
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
    rounds.some((round) => round.length)
      ? 'None of the neighbours that were asked has it.'
      : 'Every neighbour was asked; none has it.',
    { asked: list },
  );
}
