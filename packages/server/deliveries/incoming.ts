import type { IncomingBody, IncomingDetail, IncomingPage, IncomingRow, KeptRepair } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { update } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import { rulesWith, withFields, type Incoming, type IncomingRecord } from '@osier/core/deliveries';
import type { ProposedCopy } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import {
  describe,
  likeness,
  mergeFields,
  replaceRecord,
  type Match,
  type Outcome,
} from '@osier/core/matching';
import { marcOf } from '../catalogue/records';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { asChanged, checkedCopies, copiesAfter } from './copies';
import { readIncoming } from './incoming-records';
import { keptJson, keptValue } from '../store/kept-json';
import { countCopiesOf } from './queries';
import {
  countFacets,
  countReady,
  countUnder,
  incomingColumns,
  pageOfIncoming,
  type IncomingColumns,
} from './queries.incoming';
import { copyWork, settingsFor, type CopyWork } from './settings';

const rowOf = (c: IncomingColumns): IncomingRow => {
  const { chosen, target } = keptValue('incoming', c.value);
  return {
    id: c.id,
    version: c.version,
    seq: c.seq,
    title: c.title,
    author: c.author,
    isbn: c.isbn,
    year: c.year,
    decision: c.decision,
    chosen,
    copies: c.copies,
    copyProblems: c.copy_problems,
    note: c.note,
    state: c.state,
    record: c.record,
    errors: c.errors,
    warnings: c.warnings,
    advice: c.advice,
    target,
    recipe: c.recipe,
    matches: keptJson<Match[]>(c.matches),
    repeats: c.repeats,
    repairs: keptJson<unknown[]>(c.repairs).length,
  };
};

/** A page of a delivery's records, exceptions first, else in file order, with how many fall under each facet. */
export async function listIncoming(
  { store }: Services,
  id: number,
  facet: string | undefined,
  after: number,
  limit = 200,
): Promise<IncomingPage> {
  const rows = await pageOfIncoming(store, id, { facet, after, atMost: limit + 1 });
  const facets = await countFacets(store, id);
  const under = facet || 'all';
  return {
    rows: rows.slice(0, limit).map(rowOf),
    next: rows.length > limit ? rows[limit - 1]!.place : null,
    total: (Object.hasOwn(facets, under) ? facets[under] : undefined) ?? (await countUnder(store, id, facet)),
    facets,
    ready: facet ? await countReady(store, id, facet) : (facets.ready ?? 0),
  };
}

/** One record of a delivery with all that is known of it. */
export async function incomingDetail(
  { store }: Services,
  id: number,
  incoming: number,
): Promise<IncomingDetail> {
  const c = await incomingColumns(store, id, incoming);
  if (!c) throw notFound(`Record ${incoming} of this delivery`);
  const row = rowOf(c);
  const { marc } = keptValue('fields', c.fields);
  const delivery = (await store.read('delivery', id))!;
  const ids = [...new Set([...row.matches.map((m) => m.record), ...(row.target ? [row.target] : [])])];
  const held = await store.readMany('record', ids);
  const copies = await countCopiesOf(store, ids);
  const description = describe(marc);
  const target = held.find((h) => h.id === row.target);
  const house = rulesWith((await store.house()).value, settingsFor(delivery.value));
  return {
    ...row,
    marc,
    original: keptJson<MarcRecord>(c.original),
    findings: keptJson<Finding[]>(c.findings),
    repairList: keptJson<KeptRepair[]>(c.repairs),
    proposedCopies: [...keptValue('incoming', c.value).copies],
    held: ids.flatMap((of) => {
      const h = held.find((x) => x.id === of);
      return h
        ? [
            {
              id: h.id,
              marc: h.value,
              likeness: likeness(description, describe(h.value)),
              copies: copies.find((x) => x.record === of)?.n ?? 0,
            },
          ]
        : [];
    }),
    becomes: target ? becomes(row.decision, target.value, marc, house) : null,
  };
}

function becomes(decision: Outcome, held: MarcRecord, incoming: MarcRecord, house: HouseRules) {
  if (decision === 'replace') return replaceRecord(held, incoming, house);
  return decision === 'merge' ? mergeFields(held, incoming, house) : null;
}

/** Saves a waiting record as a person corrected it: its fields, its copies, or a note. */
export const changeIncoming = (
  { store }: Services,
  person: number,
  id: number,
  incoming: number,
  body: IncomingBody,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planCorrection(s, id, incoming, body));

async function planCorrection(
  store: Store,
  id: number,
  incoming: number,
  { version, marc: given, copies, note }: IncomingBody,
) {
  const marc = given && marcOf(given);
  const held = await readIncoming(store, id, incoming);
  if (!held) throw notFound(`Record ${incoming} of this delivery`);
  if (held.value.state !== 'waiting') throw wrong('incoming', 'This record is no longer waiting.');
  const delivery = (await store.read('delivery', id))!;
  const work = await copyWork(store, settingsFor(delivery.value));
  const now = held.fields.value;
  const next: Incoming = {
    ...held.value,
    ...(note !== undefined && { note: note.trim() }),
    copies: await copiesOf(store, work, held, marc, copies),
  };
  const row = { ...held, version };
  const changes = marc
    ? withFields(row, { marc, recipe: now.recipe ?? 'by hand' }, next)
    : [update('incoming', row, next)];
  const title = briefOf(marc ?? now.marc).title;
  const what = marc ? 'fields' : copies ? 'copies' : 'note';
  return { did: { act: 'correct' as const, names: { title }, what } as const, changes };
}

/** Copies given by hand, or read anew from changed fields; each with what is wrong with it. */
async function copiesOf(
  store: Store,
  work: CopyWork,
  { value, fields }: IncomingRecord,
  marc: MarcRecord | undefined,
  given: IncomingBody['copies'],
): Promise<readonly ProposedCopy[]> {
  if (given) {
    return (await checkedCopies(store, work, [{ seq: value.seq, copies: asChanged(given, work) }]))[0]!;
  }
  if (!marc) return value.copies;
  const { copies, anew } = copiesAfter(fields.value.marc, marc, value.copies, work);
  return anew ? (await checkedCopies(store, work, [{ seq: value.seq, copies }]))[0]! : copies;
}
