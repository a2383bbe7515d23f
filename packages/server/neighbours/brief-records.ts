import type { BriefDetail, BriefList, BriefPage, BriefRow, OfferBody } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import type { Act } from '@osier/core/acts';
import { update } from '@osier/core/changes';
import { withKeptForms } from '@osier/core/headings';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { BRIEF_DAYS, grownRecord, sourceMarks, typedFor } from '@osier/core/neighbours';
import { briefsOf } from '../catalogue/queries';
import { errorsAllowed, newHeadings, recordErrors } from '../catalogue/records';
import { followedBy } from '../headings/follow';
import { nearAllowed } from '../headings/near';
import { cursorOf, placeIn } from '../http/cursor';
import { notFound, ProblemError } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { keptJson } from '../store/kept-json';
import type { BriefRecordColumns } from '../store/models';
import type { Store } from '../store/store';
import { GROWS } from './grow-records';
import { briefsBehind, countsOfBriefs, type ShownBrief } from './queries';

const PAGE = 100;
const DAY = 24 * 60 * 60 * 1000;

const daysOf = ({ briefDays = BRIEF_DAYS }: HouseRules): number => briefDays;
/** The day since which those wait that wait long. */
const longSince = (days: number): string => new Date(Date.now() - days * DAY).toISOString().slice(0, 10);
/** Behind every day. */
const ANY_DAY = '9999';

/** How many brief records stand how. `long`: of all of them. */
async function counts(store: Store, days: number): Promise<BriefPage['counts']> {
  const sums = { waiting: 0, offered: 0, refused: 0, long: 0 };
  for (const { state, n, long } of await countsOfBriefs(store, longSince(days))) {
    sums[state] = n;
    sums.long += long;
  }
  return sums;
}

/** How many brief records a person is to look at, and how many wait long. */
export async function briefsToTell(store: Store): Promise<{ offered: number; long: number }> {
  const { offered, long } = await counts(store, daysOf((await store.house()).value));
  return { offered, long };
}

/** A page of brief records; by default those that a person is to look at, where there are any. */
export async function listBriefs(
  { store, jobs }: Services,
  asked: BriefList | undefined,
  after: string | undefined,
): Promise<BriefPage> {
  const house = (await store.house()).value;
  const days = daysOf(house);
  const sums = await counts(store, days);
  const list = asked ?? (sums.offered ? 'offered' : 'waiting');
  const [since, record] = placeIn<readonly [since: string, record: number]>(after, ['', 0]) ?? ['', 0];
  const found = await briefsBehind(
    store,
    list === 'long' ? { state: null, until: longSince(days) } : { state: list, until: ANY_DAY },
    { since, record },
    PAGE + 1,
  );
  const page = found.slice(0, PAGE);
  const last = page.at(-1);
  return {
    rows: await named(store, page),
    next: found.length > PAGE && last ? cursorOf([last.since, last.record]) : null,
    list,
    counts: sums,
    days,
    isAskedAtNight: house.askAtNight ?? true,
    job: jobs.running().find((j) => j.kind === GROWS)?.id ?? null,
  };
}

async function named(store: Store, rows: readonly ShownBrief[]): Promise<BriefRow[]> {
  const briefs = new Map(
    (
      await briefsOf(
        store,
        rows.map((r) => r.record),
      )
    ).map((b) => [b.id, b]),
  );
  const neighbours = new Map(
    (await store.find('neighbour')).map((n): [number, string] => [n.id, n.value.name]),
  );
  return rows.map(({ neighbour, ...row }) => {
    const { title = '', author = '', year = '', copies = 0 } = briefs.get(row.record) ?? {};
    return { ...row, title, author, year, copies, from: neighbours.get(neighbour) ?? '' };
  });
}

/** The row of a brief record; 404 for a record that is none. */
async function rowOf(store: Store, record: number): Promise<BriefRecordColumns> {
  const row = await store.table('brief_records').first({ where: { record } });
  if (!row) throw notFound(`Brief record ${record}`);
  return row;
}

/** What a brief record becomes by a full one, with what of it gives way to kept forms. */
async function grown(store: Store, brief: MarcRecord, full: MarcRecord) {
  const marc = grownRecord(brief, full, (await store.house()).value);
  const { record, notes } = withKeptForms(marc, await followedBy(store, [marc]));
  return { marc: record, notes };
}

/** A brief record beside what is offered for it. */
export async function readBrief({ store }: Services, id: number): Promise<BriefDetail> {
  const row = await rowOf(store, id);
  const held = await store.read('record', id);
  if (!held) throw notFound(`Record ${id}`);
  const [shown] = await named(store, [row]);
  const offer = row.marc === null ? null : await grown(store, held.value, keptJson<MarcRecord>(row.marc));
  const { record, title, author, year, copies, since, asked, state, reason, from } = shown!;
  return {
    ...{ record, title, author, year, copies, since, asked, state, reason, from },
    version: held.version,
    lookFor: typedFor(held.value),
    marc: held.value,
    offer: offer && {
      marc: offer.marc,
      notes: [...offer.notes],
      errors: (await recordErrors(store, offer.marc)).map((f) => f.message),
    },
  };
}

/** The offer that a person has looked at; 409 when another one has come since. */
async function offerSeen(store: Store, record: number, { asked }: OfferBody) {
  const row = await rowOf(store, record);
  if (row.marc === null || row.asked !== asked)
    throw new ProblemError(409, 'What is offered for this record has changed since. Look at it again.');
  return { row, full: keptJson<MarcRecord>(row.marc) };
}

/** Puts the offered record in place of the brief one. */
export const takeOffer = (
  { store }: Services,
  person: number,
  id: number,
  body: OfferBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { row, full } = await offerSeen(s, id, body);
    const held = await s.read('record', id);
    if (!held) throw notFound(`Record ${id}`);
    const { marc } = await grown(s, held.value, full);
    const errors = await errorsAllowed(s, marc, body.withErrors);
    const headings = await newHeadings(s, [marc]);
    await nearAllowed(s, headings, body.withErrors);
    const neighbour = (await s.read('neighbour', row.neighbour))?.value.name ?? 'a neighbour';
    const did: Act = {
      act: 'grow-record',
      names: { title: briefOf(held.value).title, neighbour },
      counts: { errors },
    };
    return { did, id, changes: [update('record', { ...held, version: body.version }, marc), ...headings] };
  });

/** Says that the offered record is not the one. It stays, so that it can be taken after all, and is not offered again. */
export const refuseOffer = (
  { store }: Services,
  id: number,
  body: OfferBody,
): Promise<{ sentence: string }> =>
  store.write(async (tx) => {
    const inside = store.within(tx);
    const { row, full } = await offerSeen(inside, id, body);
    const refused = new Set([...keptJson<string[]>(row.refused), ...sourceMarks(full)]);
    await inside
      .table('brief_records')
      .update({ state: 'refused', refused: JSON.stringify([...refused]) }, { record: id }, tx);
    const held = await inside.read('record', id);
    return { sentence: `It is not offered again for “${held ? briefOf(held.value).title : id}”` };
  });
