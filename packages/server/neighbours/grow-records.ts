import { counted, update } from '@osier/core/changes';
import { withKeptForms } from '@osier/core/headings';
import type { StoredObject } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import {
  growthOf,
  grownRecord,
  soughtFor,
  sourceMarks,
  tasteOf,
  type Growth,
  type HouseTaste,
} from '@osier/core/neighbours';
import limited from 'p-limit';
import { newHeadings, recordErrors } from '../catalogue/records';
import { followedBy } from '../headings/follow';
import { wrong } from '../http/problem';
import { inChunks } from '../jobs/in-chunks';
import { JobStopped, type JobWork } from '../jobs/jobs';
import type { Services } from '../services';
import { keptJson } from '../store/kept-json';
import type { BriefRecordColumns } from '../store/models';
import type { Store } from '../store/store';
import { askAll, cancelledSignal, neighbourRounds, type Askable } from './ask-all';
import { briefRowsAfter } from './queries';

/** The name of the job. */
export const GROWS = 'grow-brief-records';
/** Records that are asked for, and then written, together. */
const CHUNK = 20;
/** Records that are asked for at a time; each neighbour has a limit of its own. */
const BESIDE = 6;

interface Waiting {
  readonly row: BriefRecordColumns;
  readonly held: StoredObject<'record'>;
}

/** Begins to ask for the full records of all brief ones. */
export async function beginGrowing(services: Services, person: number) {
  const { store, jobs } = services;
  if (jobs.running().some((j) => j.kind === GROWS))
    throw wrong('brief', 'The full records are being asked for already.');
  const total = await store.table('brief_records').count({});
  if (total === 0) throw wrong('brief', 'No brief record waits.');
  if ((await neighbourRounds(services)).length === 0)
    throw wrong('brief', 'No neighbour is set up that could be asked.');
  return jobs.begin(GROWS, 'Asking for the full records of brief ones', person, {}, total);
}

async function nextWaiting(store: Store, after: number): Promise<Waiting[]> {
  const rows = await briefRowsAfter(store, after, CHUNK);
  const held = new Map(
    (
      await store.readMany(
        'record',
        rows.map((r) => r.record),
      )
    ).map((h) => [Number(h.id), h]),
  );
  return rows.flatMap((row) => {
    const of = held.get(row.record);
    return of ? [{ row, held: of }] : [];
  });
}

/** What asking for a record came to, and of which version of it. */
interface Outcome {
  readonly version: number;
  readonly growth: Growth | null;
  readonly failures: readonly string[];
}

/** Job: asks for the full record of each brief one. A sure one takes its place; one that is not waits for a person. */
export const growBriefRecords =
  (services: Services): JobWork =>
  async (run) => {
    const { store } = services;
    const rounds = await neighbourRounds(services);
    const taste = tasteOf((await store.house()).value);
    const { signal, stop } = cancelledSignal(run.cancelled);
    try {
      const totals = await inChunks<Waiting, ReadonlyMap<number, Outcome>>(services, run, {
        did: (t) => ({ act: 'grow-records', counts: { records: t.changed ?? 0 } }),
        next: (after, s) => nextWaiting(s, after),
        placeOf: ({ row }) => row.record,
        async ask(chunk) {
          const turn = limited(BESIDE);
          const outcomes = await Promise.all(
            chunk.map((w) => turn(() => askFor(services, w, rounds, taste, signal))),
          );
          // The chunk is asked for again after the next start.
          if (run.stopping()) throw new JobStopped('The server stops.');
          return new Map(outcomes.flatMap((o, i) => (o ? [[chunk[i]!.row.record, o] as const] : [])));
        },
        plan: (chunk, s, asked) => planGrowing(chunk, s, asked),
      });
      const of = (name: string) => (totals[name] ?? 0).toLocaleString('en-GB');
      return `Asked for ${counted(totals.asked ?? 0, 'brief record')}: ${of('changed')} replaced by their full ones, ${of('offered')} to be looked at.`;
    } finally {
      stop();
    }
  };

/** Asks by one number after another until something is found; null when nobody waits for it any longer. */
async function askFor(
  services: Services,
  { row, held }: Waiting,
  rounds: readonly (readonly Askable[])[],
  taste: HouseTaste,
  signal: AbortSignal,
): Promise<Outcome | null> {
  const refused = new Set(keptJson<string[]>(row.refused));
  const failures: string[] = [];
  for (const sought of soughtFor(held.value)) {
    const asked = await askAll(services, sought, rounds, signal);
    if (signal.aborted) return null;
    failures.push(...asked.failures);
    const growth = growthOf(held.value, asked.found, taste, refused);
    if (growth) return { version: held.version, growth, failures };
  }
  return { version: held.version, growth: null, failures };
}

async function planGrowing(chunk: readonly Waiting[], s: Store, asked: ReadonlyMap<number, Outcome>) {
  const { value: house } = await s.house();
  const at = new Date().toISOString();
  const rows: (Partial<BriefRecordColumns> & { readonly record: number })[] = [];
  const grown: { readonly held: StoredObject<'record'>; readonly marc: MarcRecord }[] = [];
  for (const { row, held } of chunk) {
    const outcome = asked.get(row.record);
    // Somebody has changed it while it was asked for: it is asked for again the next time.
    if (!outcome || outcome.version !== held.version) continue;
    const { growth, failures } = outcome;
    // Somebody has refused it while it was on its way.
    const refused = new Set(keptJson<string[]>(row.refused));
    if (growth && sourceMarks(growth.best.marc).some((mark) => refused.has(mark))) continue;
    if (growth === null) {
      const reason = failures.length ? failures.join(' ') : 'None of the neighbours has more of it.';
      // An offer stays until there is another.
      if (row.state === 'waiting') rows.push({ record: row.record, asked: at, reason });
      continue;
    }
    const full = growth.best.marc;
    const taken = grownRecord(held.value, full, house);
    const { record: marc } = withKeptForms(taken, await followedBy(s, [taken]));
    const errors = growth.isSure ? await recordErrors(s, marc) : [];
    if (growth.isSure && errors.length === 0) grown.push({ held, marc });
    else {
      const why = errors.length
        ? `${growth.reason} With what is ours the checks find ${counted(errors.length, 'error')} in it.`
        : growth.reason;
      const offer = { reason: why, neighbour: growth.best.neighbour.id, marc: JSON.stringify(full) };
      if (row.state !== 'offered' || row.marc !== offer.marc)
        rows.push({ record: row.record, asked: at, state: 'offered', ...offer });
    }
  }
  const headings = await newHeadings(
    s,
    grown.map((g) => g.marc),
  );
  return {
    changes: [...grown.map((g) => update('record', g.held, g.marc)), ...headings],
    totals: {
      asked: chunk.length,
      changed: grown.length,
      offered: rows.filter((r) => r.state === 'offered').length,
    },
    async also(tx: Parameters<Store['run']>[2]) {
      const table = s.table('brief_records');
      for (const { record, ...values } of rows) await table.update(values, { record }, tx);
    },
  };
}
