import type { WithdrawalRow } from '@osier/contract';
import { update } from '@osier/core/changes';
import { LAST_COPY, type LastCopy } from '@osier/core/house';
import { array, mixed, number, object, string } from 'yup';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import type { LoanAnswers } from '../loans/ports';
import { personById } from '../people/queries';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { openList } from './lists';
import { barcodesOnList } from './queries';
import { weighFew } from './weighed';
import { changesOf, countGone, goingOf, reasonsOf, type Withdrawing } from './withdraw-plan';

/** Titles of a transaction. */
const AT_ONCE = 400;
const whole = () => number().integer().required();
const how = () => mixed<LastCopy>().oneOf([...LAST_COPY]);

/** The copies of one title that go, with what was said against each when it was reviewed. */
const title = object({
  copies: array(object({ copy: whole(), code: string().required(), said: string().default('') })).required(),
});
const withdrawWork = object({
  list: whole(),
  titles: array(title.required()).required(),
  overrule: object({ copies: array(whole()).required(), reason: string().default('') }).required(),
  lastCopy: how().optional(),
  lastCopies: array(object({ record: whole(), how: how().required() }).required()).required(),
});
type Title = ReturnType<typeof title.validateSync>;

/** What a job that withdraws copies is told: what was reviewed, a title at a time, so that what becomes of a title is decided at once. */
export function jobOf(
  list: number,
  { overrule, lastCopy, lastCopies }: Withdrawing,
  going: readonly WithdrawalRow[],
): { readonly titles: readonly Title[] } & Record<string, unknown> {
  const titles = new Map<number, Title['copies']>();
  for (const v of going) {
    if (!v.candidate) continue;
    const { recordId, copyId } = v.candidate;
    const own = titles.get(recordId) ?? [];
    own.push({ copy: copyId, code: v.code, said: reasonsOf(v).join('\n') });
    titles.set(recordId, own);
  }
  return { list, titles: [...titles.values()].map((copies) => ({ copies })), overrule, lastCopy, lastCopies };
}

/** Job: withdraws many copies, some hundred titles a transaction. What is stopped by now, or has more said against it than was reviewed, is left on its list. */
export const withdrawMany =
  (services: Services): JobWork =>
  async (run) => {
    const { list: id, titles, ...how } = keptWork(withdrawWork, run.work);
    const by = (await personById(services.store, run.person))?.name ?? '';
    const { name } = (await services.store.read('withdrawlist', id))?.value ?? { name: '' };
    const overruled = new Set(how.overrule.copies);
    const codesIn = (places: readonly number[]) =>
      places.flatMap((at) => titles[at - 1]!.copies.map((c) => c.code));
    const asked = new Map(titles.flatMap((t) => t.copies.map((c) => [c.copy, c.said.split('\n')])));
    const totals = await inChunks<number, LoanAnswers>({ ...services, store: services.store.aside }, run, {
      did: ({ copies = 0, records = 0 }) => ({
        ...{ act: 'withdraw', names: { list: name }, counts: { copies, records } },
      }),
      next: (after) => Promise.resolve(titles.slice(after, after + AT_ONCE).map((_, i) => after + i + 1)),
      placeOf: (at) => at,
      ask: (chunk) => services.loans.ask(codesIn(chunk), { anew: true }),
      plan: async (chunk, store, said) => {
        const list = await openList(store, id);
        const codes = codesIn(chunk);
        const verdicts = await weighFew(store, list, codes, said);
        const wanted = chunk.flatMap((at) => titles[at - 1]!.copies.map((c) => c.copy));
        const { going } = goingOf(verdicts, wanted, overruled);
        const still = going.filter((v) =>
          reasonsOf(v).every((r) => asked.get(v.candidate?.copyId ?? 0)?.includes(r)),
        );
        let next = await store.nextIds('withdrawn', Math.max(1, still.length));
        const changes = await changesOf(store, list, still, how, { by, nextId: () => next++ });
        const isLast = chunk.at(-1) === titles.length;
        const left = wanted.length - still.length;
        const isDone =
          isLast && left === 0 && !(await anyLeft(store, list.id, new Set(codes), { said, of: list }));
        const { copies, records } = countGone(changes);
        return {
          changes: isDone
            ? [...changes, update('withdrawlist', list, { ...list.value, state: 'done' })]
            : changes,
          totals: { copies, records, left },
        };
      },
    });
    if (run.cancelled()) return null;
    const { copies = 0, left = 0 } = totals;
    const stayed = left ? ` ${left} had changed meanwhile and stay on the list.` : '';
    return `Withdrew ${copies} copies from “${name}”.${stayed}`;
  };

/** So many copies of a list are weighed to see whether it is done; one with more stays open. */
const WEIGHED = 500;

/** Whether copies of a list that could go are left beside some codes. */
async function anyLeft(
  store: Store,
  list: number,
  but: ReadonlySet<string>,
  { said, of }: { readonly said: LoanAnswers; readonly of: Awaited<ReturnType<typeof openList>> },
): Promise<boolean> {
  const rest = (await barcodesOnList(store, list)).filter((code) => !but.has(code));
  if (rest.length > WEIGHED) return true;
  return (await weighFew(store, of, rest, said)).some((v) => v.candidate && v.verdict !== 'stop');
}
